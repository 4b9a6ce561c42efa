import { fetchEarly } from "../api/early";
import { beforeEach, describe, expect, it, vi } from "vitest";

import { ask, askPatiently, Problem } from "../api/client";
import { REFERENCE, SETTINGS } from "../tests/samples";
import { notice } from "./notice.svelte";
import { outbox } from "./sending/outbox.svelte";
import { shop } from "./shop.svelte";
import { recall, remember } from "./storage";

const response = (status: number) => new Response(null, { status });
const answers = (body: unknown, status = 200) =>
  vi.spyOn(globalThis, "fetch").mockImplementation(() =>
    Promise.resolve(
      new Response(JSON.stringify(body), {
        status,
        headers: { "content-type": status < 400 ? "application/json" : "application/problem+json" },
      }),
    ),
  );

const OURS = "urn:jade-ribbon:problem:x";

beforeEach(async () => {
  vi.restoreAllMocks();
  localStorage.clear();
  await outbox.clear();
});

describe("asking the server", () => {
  it("gives the data", async () => {
    expect(await ask(Promise.resolve({ data: 7, response: response(200) }))).toBe(7);
  });

  it("throws what is wrong in words, with each faulty field", async () => {
    const error = {
      type: OURS,
      code: "input",
      detail: "x is wrong",
      errors: [{ path: "x", message: "no" }],
    };
    const failed = ask(Promise.resolve({ error, response: response(422) }));
    await expect(failed).rejects.toMatchObject({
      message: "x is wrong",
      code: "input",
      unreachable: false,
      errors: [{ path: "x", message: "no" }],
    });
  });

  it("knows an unreachable server from a refusal", async () => {
    const lost = ask(Promise.reject(new TypeError("fetch")));
    await expect(lost).rejects.toMatchObject({ unreachable: true });
    expect(new Problem("internal", "x", 503).unreachable).toBe(true);
    expect(new Problem("conflict", "x", 409).unreachable).toBe(false);
    expect(new Problem("conflict", "x", 409).refuses).toBe(true);
    const login = ask(Promise.resolve({ error: "<html>", response: response(404) }));
    await expect(login).rejects.toMatchObject({ unreachable: true, refuses: false });
  });

  it("tries again while the server restarts, and not after a refusal", async () => {
    vi.useFakeTimers();
    let tries = 0;
    const flaky = () => {
      tries += 1;
      return tries < 3
        ? Promise.reject(new TypeError("down"))
        : Promise.resolve({ data: "up", response: response(200) });
    };
    const waiting = askPatiently(flaky);
    await vi.runAllTimersAsync();
    expect(await waiting).toBe("up");
    expect(tries).toBe(3);
    const refusal = { error: { type: OURS }, response: response(404) };
    const refusing = vi.fn(() => Promise.resolve(refusal));
    await expect(askPatiently(refusing)).rejects.toBeInstanceOf(Problem);
    expect(refusing).toHaveBeenCalledTimes(1);
    vi.useRealTimers();
  });
});

describe("what is kept in the browser", () => {
  it("comes back, and spoilt things fall back", () => {
    remember("x", { a: 1 });
    expect(recall("x", null)).toEqual({ a: 1 });
    localStorage.setItem("jade-ribbon.y", "{broken");
    expect(recall("y", "usual")).toBe("usual");
    expect(recall("nothing", 3)).toBe(3);
  });
});

describe("the shop", () => {
  it("asks the core what was meant only by an unusual value", async () => {
    shop.settings = SETTINGS;
    shop.reference = REFERENCE;
    answers({ value: 0.64 });
    expect(await shop.meant("thickness_mm", 0.64)).toBeNull();
    expect(await shop.meant("unknown", 1e9)).toBeNull();
    expect(fetch).not.toHaveBeenCalled();
    expect(await shop.meant("thickness_mm", 6.4)).toBe(0.64);
    expect(fetch).toHaveBeenCalledTimes(1);
  });

  it("turns units and theme over and remembers", () => {
    shop.units = "metric";
    shop.turnUnits();
    expect([shop.units, recall("units", "")]).toEqual(["inch", "inch"]);
    expect(shop.unit("length")).toBe("in");
    const before = shop.theme;
    shop.turnTheme();
    expect(shop.theme).not.toBe(before);
    shop.turnUnits();
    expect(shop.say(134.54, "stress")).toBe("135 MPa");
    expect(shop.money(1.5)).toBe("€\u00a01.50");
  });

  it("says that it could not load, and loads when asked again", async () => {
    answers({ type: OURS, detail: "no such thing", code: "x" }, 404);
    await shop.load();
    expect(shop.failed).toBe("no such thing");
    answers([]);
    await shop.load();
    expect(shop.failed).toBe("");
  });
});

describe("the notice", () => {
  it("undoes by the change, then says so", async () => {
    const fetch = answers({ id: 3 });
    const after = vi.fn();
    notice.canUndo("Gone.", 3, after);
    expect(notice.undoable).toBe(true);
    await notice.undo();
    expect((fetch.mock.calls[0]?.[0] as Request).url).toContain("/api/changes/3/undo");
    expect(after).toHaveBeenCalled();
    expect([notice.text, notice.undoable]).toEqual(["Undone.", false]);
  });

  it("tells a failure as one", () => {
    notice.fail(new Problem("conflict", "Not now.", 409));
    expect([notice.text, notice.bad]).toEqual(["Not now.", true]);
    notice.close();
    expect(notice.text).toBe("");
  });
});

describe("the first questions", () => {
  it("are answered by what was asked early, once, and by the server where that failed", async () => {
    const early = (body: string) => Promise.resolve(new Response(body));
    window.jadeEarly = new Map<string, Promise<Response | null>>([
      ["/api/shop", early("early")],
      ["/api/saws", Promise.resolve(null)],
    ]);
    vi.spyOn(globalThis, "fetch").mockImplementation(() => Promise.resolve(new Response("late")));
    const ask = (path: string) =>
      fetchEarly(new Request(`http://localhost${path}`)).then((r) => r.text());
    expect(await ask("/api/shop")).toBe("early");
    expect(await ask("/api/shop")).toBe("late");
    expect(await ask("/api/saws")).toBe("late");
    expect(await ask("/api/bands")).toBe("late");
    delete window.jadeEarly;
  });
});
