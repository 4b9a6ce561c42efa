import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it } from "vitest";

import type { CopiesAnswer, DoorsAnswer } from "../../../api/schema";
import { notice } from "../../../lib/notice.svelte";
import { shop } from "../../../lib/shop.svelte";
import { REFERENCE, SAW, SETTINGS } from "../../../tests/samples";
import { server } from "../../../tests/server";
import SampleDoor from "../../start/SampleDoor.svelte";
import Start from "../../start/Start.svelte";
import Keeping from "./Keeping.svelte";
import Network from "./Network.svelte";

const COPY = {
  name: "2026-11-26-090000000000.sqlite",
  at: "2026-11-26T09:00:00Z",
  why: "daily",
  size: 3_121_152,
};
const COPIES: CopiesAnswer = {
  folder: "/srv/shop.copies",
  copies: [COPY],
  newest_at: COPY.at,
  warning: "",
  keeping: "One a day while the shop is served.",
};
const DEVICE = {
  id: "a1",
  name: "Odda’s phone",
  role: "anyone" as const,
  joined_at: COPY.at,
  seen_at: COPY.at,
  owner_until: null,
  this_one: false,
};
const DOORS: DoorsAnswer = {
  on: true,
  has_passphrase: true,
  reach: [{ where: "this machine", address: "http://127.0.0.1:8433/", what: "everything" }],
  devices: [DEVICE],
  address: "https://192.168.1.7:8443/",
  fingerprint: "AA:BB",
  how: "A device joins once.",
};

beforeEach(() => {
  localStorage.clear();
  shop.settings = { ...SETTINGS, people: ["Odda", "Brill"] };
  shop.reference = REFERENCE;
  shop.units = "metric";
  shop.saws = [SAW];
  notice.close();
});

describe("copies", () => {
  it("tell the newest one's age and how large it is", async () => {
    server({ "GET /api/copies": COPIES, "GET /api/sample-yard": { state: "none" } });
    render(Keeping);
    expect(await screen.findByText(/^The newest copy is/)).toBeTruthy();
    expect(screen.getByText(/3.1 MB/)).toBeTruthy();
  });

  it("are brought back only once it was said what that takes away", async () => {
    const told = server({
      "GET /api/copies": COPIES,
      "POST /api/copies/restore": { name: COPY.name, before: "b" },
      "GET /api/shop": SETTINGS,
      "GET /api/reference": REFERENCE,
      "GET /api/saws": [SAW],
    });
    render(Keeping);
    await fireEvent.click(await screen.findByRole("button", { name: "Restore …" }));
    expect(screen.getByText(/Everything recorded since then is taken out/)).toBeTruthy();
    expect(await told.sent("POST")).toEqual([]);
    await fireEvent.click(screen.getByRole("button", { name: /^Restore 26/ }));
    await waitFor(() => expect(notice.text).toMatch(/^The shop is as it was on/));
    expect(await told.sent("POST")).toEqual([{ name: COPY.name }]);
  });

  it("say what is wrong with them instead of an age", async () => {
    server({ "GET /api/copies": { ...COPIES, warning: "The newest copy is 4 days old." } });
    render(Keeping);
    expect(await screen.findByText("The newest copy is 4 days old.")).toBeTruthy();
    expect(screen.queryByText(/min old\.$/)).toBeNull();
  });
});

describe("the shop's network", () => {
  it("says what is reachable from where, and lets a device of a person join", async () => {
    const told = server({
      "GET /api/doors": DOORS,
      "POST /api/doors/code": {
        code: "12345678",
        until: COPY.at,
        address: DOORS.address,
        squares: ["10", "01"],
      },
    });
    render(Network);
    expect(await screen.findByText("http://127.0.0.1:8433/")).toBeTruthy();
    await fireEvent.change(screen.getByLabelText("Whose"), { target: { value: "Brill" } });
    await fireEvent.click(screen.getByLabelText(/^authorised/));
    await fireEvent.click(screen.getByRole("button", { name: "Show a code" }));
    expect(await screen.findByText("1234 5678")).toBeTruthy();
    expect(await told.sent("POST")).toEqual([{ name: "Brill’s phone", role: "authorised" }]);
  });

  it("shuts a device out and lets one do more", async () => {
    const told = server({
      "GET /api/doors": DOORS,
      "POST /api/doors/device": DOORS,
      "POST /api/doors/shut-out": { ...DOORS, devices: [] },
    });
    render(Network);
    const may = await screen.findByLabelText("What Odda’s phone may");
    await fireEvent.change(may, { target: { value: "authorised" } });
    await fireEvent.click(screen.getByRole("button", { name: "Shut out" }));
    expect(await screen.findByText("None yet.")).toBeTruthy();
    expect(await told.sent("POST")).toEqual([
      { id: "a1", name: "Odda’s phone", role: "authorised" },
      { id: "a1" },
    ]);
  });

  it("that is off says how to turn it on, and offers no code", async () => {
    server({ "GET /api/doors": { ...DOORS, on: false, how: "jade-ribbon serve --network" } });
    render(Network);
    expect(await screen.findByText("jade-ribbon serve --network")).toBeTruthy();
    expect(screen.queryByRole("button", { name: "Show a code" })).toBeNull();
  });
});

describe("the first hour", () => {
  it("shows three doors, and which is next", async () => {
    server({ "GET /api/bands": [], "GET /api/sample-yard": { state: "none" } });
    shop.saws = [];
    render(Start);
    expect(screen.getByRole("heading", { level: 1 }).textContent).toBe(
      "First, the saw and a band.",
    );
    expect(screen.getAllByRole("heading", { level: 2 }).map((h) => h.textContent)).toEqual([
      "My saw",
      "My bands",
      "Look round a sample yard",
    ]);
    expect(screen.queryByRole("link", { name: "Plan a job" })).toBeNull();
  });

  it("goes on to a job once there is a saw and a band", async () => {
    server({ "GET /api/bands": [{}], "GET /api/sample-yard": { state: "none" } });
    render(Start);
    expect(await screen.findByRole("link", { name: "Plan a job" })).toBeTruthy();
  });

  it("says that the sample yard is being made, or why it could not be", async () => {
    server({
      "GET /api/sample-yard": { state: "failed", words: "The disk is full.", usual_s: 20 },
      "POST /api/sample-yard": { state: "making", words: "", usual_s: 20 },
    });
    render(SampleDoor);
    expect(await screen.findByText("The disk is full.")).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "Look round" }));
    expect(await screen.findByText(/Making it, about 20 seconds/)).toBeTruthy();
  });
});
