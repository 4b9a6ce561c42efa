import { beforeEach, describe, expect, it, vi } from "vitest";

import { ask, askPatiently, Problem } from "../api/client";
import type { JobAnswer, RunInput } from "../api/schema";
import { REFERENCE, SETTINGS } from "../tests/samples";
import { notice } from "./notice.svelte";
import { outbox } from "./outbox.svelte";
import { shop } from "./shop.svelte";
import { recall, remember } from "./storage";
import { ticket } from "./ticket.svelte";

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

beforeEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
  outbox.waiting = [];
  outbox.refused = [];
});

describe("asking the server", () => {
  it("gives the data", async () => {
    expect(await ask(Promise.resolve({ data: 7, response: response(200) }))).toBe(7);
  });

  it("throws what is wrong in words, with each faulty field", async () => {
    const error = { code: "input", detail: "x is wrong", errors: [{ path: "x", message: "no" }] };
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
    const refusing = vi.fn(() => Promise.resolve({ error: {}, response: response(404) }));
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

const JOB = {
  id: 5,
  name: "Strakes",
  operation: "resaw",
  material: "european_larch_dry",
  material_name: "European larch (dry)",
  height_mm: 185,
  length_mm: 3600,
  count: 7,
  slice_mm: 14,
  min_radius_mm: null,
  angle_deg: 0,
  finish: "plane",
  tolerance_mm: 0.8,
  round_stock: false,
  wall_mm: null,
  rules: {},
  what_if: null,
  saw_id: 2,
  saw_name: "Shop saw",
  band_id: null,
  band_label: null,
  state: "planned",
  done_pieces: 0,
  setup_id: null,
  updated_at: "2026-01-01T00:00:00Z",
} as unknown as JobAnswer;

describe("the ticket", () => {
  it("knows a draft from a saved job, and what was edited", () => {
    ticket.startNew(2);
    expect([ticket.name, ticket.changed, ticket.draft.saw_id]).toEqual(["New job", true, 2]);
    ticket.take(JOB);
    expect([ticket.name, ticket.changed]).toEqual(["Strakes", false]);
    ticket.edit({ height_mm: 120 });
    expect(ticket.changed).toBe(true);
    expect(recall<{ height_mm: number }>("ticket.draft", { height_mm: 0 }).height_mm).toBe(120);
  });

  it("keeps the draft of the job that is open when it is read again", async () => {
    ticket.take(JOB);
    ticket.edit({ height_mm: 120 });
    answers(JOB);
    await ticket.open(5);
    expect(ticket.draft.height_mm).toBe(120);
    await ticket.reload();
    expect(ticket.draft.height_mm).toBe(185);
  });

  it("saves a new job by posting and a known one by putting", async () => {
    const fetch = answers(JOB);
    ticket.startNew(2);
    await ticket.save();
    await ticket.save();
    const methods = fetch.mock.calls.map(([request]) => (request as Request).method);
    expect(methods).toEqual(["POST", "PUT"]);
    expect(ticket.id).toBe(5);
  });

  it("keeps a variant beside the job, never over it", async () => {
    const fetch = answers({ ...JOB, id: 6, name: "Strakes, what if" });
    ticket.take(JOB);
    await ticket.saveVariant();
    const request = fetch.mock.calls[0]?.[0] as Request;
    expect(request.method).toBe("POST");
    expect((await request.json()).name).toBe("Strakes, what if");
    expect(ticket.id).toBe(6);
  });
});

const RUN: RunInput = {
  client_key: "abcdefgh",
  job_id: 5,
  saw_id: 2,
  band_id: 7,
  pieces: 7,
  length_mm: 3600,
  time_s: 800,
};

describe("the outbox", () => {
  it("keeps a run while the server is away and sends it once it answers", async () => {
    vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
    vi.useFakeTimers();
    await outbox.log(RUN);
    expect(outbox.waiting).toHaveLength(1);
    expect(recall<RunInput[]>("outbox", [])).toHaveLength(1);
    answers({ id: 1, band: { id: 7 } }, 201);
    await vi.advanceTimersByTimeAsync(6000);
    expect(outbox.waiting).toHaveLength(0);
    expect(outbox.last).toMatchObject({ id: 1 });
    vi.useRealTimers();
  });

  it("sets a refused run aside with the reason, and goes on", async () => {
    answers({ code: "conflict", detail: "Band is scrapped." }, 409);
    await outbox.log(RUN);
    expect(outbox.waiting).toHaveLength(0);
    expect(outbox.refused[0]?.why).toBe("Band is scrapped.");
    outbox.dismiss("abcdefgh");
    expect(outbox.refused).toHaveLength(0);
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
    expect(shop.money(1.5)).toBe("€ 1.50");
  });

  it("says that it could not load, and loads when asked again", async () => {
    answers({ detail: "no such thing", code: "x" }, 404);
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
