import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import { ask, Problem, SHUT_OUT } from "../../api/client";
import { session } from "../../lib/session.svelte";
import { whyNot } from "../../lib/microphone";
import { shop } from "../../lib/shop.svelte";
import Who from "../../parts/fields/Who.svelte";
import { SETTINGS } from "../../tests/samples";
import { server } from "../../tests/server";
import Join from "./Join.svelte";

const SHUT = {
  here: "network",
  joined: false,
  name: "",
  role: "anyone",
  owner_until: null,
} as const;
const IN = { ...SHUT, joined: true, name: "Phone" };

beforeEach(() => {
  session.state = SHUT;
  shop.settings = SETTINGS;
});

describe("joining", () => {
  it("takes a code that was scanned, and goes on", async () => {
    const told = server({ "POST /api/door/join": IN });
    const onjoined = vi.fn();
    render(Join, { scanned: "12345678", onjoined });
    await fireEvent.click(screen.getByRole("button", { name: "Join" }));
    await waitFor(() => expect(onjoined).toHaveBeenCalled());
    expect(await told.sent("POST")).toEqual([{ code: "12345678" }]);
    expect(session.shut).toBe(false);
  });

  it("by the passphrase names the device", async () => {
    const told = server({ "POST /api/door/enter": { ...IN, role: "owner" } });
    render(Join, { onjoined: vi.fn() });
    await fireEvent.input(screen.getByLabelText("Passphrase"), {
      target: { value: "copper kettle" },
    });
    await fireEvent.click(screen.getByRole("button", { name: "Come in" }));
    await waitFor(() => expect(session.owns).toBe(true));
    expect(await told.sent("POST")).toEqual([{ passphrase: "copper kettle", name: "Phone" }]);
  });
});

describe("a device shut out", () => {
  it("is told whatever it asked, and gives up nothing that waits to be sent", async () => {
    session.state = IN;
    server({ "GET /api/door": SHUT });
    const heard = vi.fn();
    globalThis.addEventListener(SHUT_OUT, heard);
    const response = new Response(null, { status: 401 });
    const error = { type: "urn:jade-ribbon:problem:join", code: "join", detail: "shut out" };
    const failed = ask(Promise.resolve({ error, response })).catch((p: unknown) => p as Problem);
    expect(((await failed) as Problem).refuses).toBe(false);
    expect(heard).toHaveBeenCalled();
    await waitFor(() => expect(session.shut).toBe(true));
  });
});

describe("who did it", () => {
  it("is picked where the shop has people, a name from before among them", () => {
    shop.settings = { ...SETTINGS, people: ["Odda", "Brill"] };
    render(Who, { value: "Gone", onpick: vi.fn() });
    const options = screen.getAllByRole("option").map((o) => o.textContent);
    expect(options).toEqual(["–", "Odda", "Brill", "Gone"]);
  });

  it("is typed only where the shop has named nobody", async () => {
    shop.settings = { ...SETTINGS, people: [] };
    const onpick = vi.fn();
    render(Who, { value: "", onpick });
    await fireEvent.input(screen.getByLabelText("Who"), { target: { value: "Tam" } });
    expect(onpick).toHaveBeenCalledWith("Tam");
  });
});

describe("why there is no microphone", () => {
  it.each([
    [false, "NotAllowedError", /plain HTTP/],
    [true, "NotAllowedError", /not allowed for this page/],
    [true, "NotFoundError", /has no microphone/],
    [true, "NotReadableError", /Another program/],
    [true, "AbortError", /gives no microphone/],
  ])("secure page: %s, %s", (secure, name, words) => {
    vi.stubGlobal("isSecureContext", secure);
    expect(whyNot(new DOMException("", name))).toMatch(words);
    vi.unstubAllGlobals();
  });
});
