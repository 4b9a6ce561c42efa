import { beforeEach, describe, expect, it, vi } from "vitest";

import type { RunInput } from "../../api/schema";
import { server } from "../../tests/server";
import { type NewRun, outbox, waitedSeconds } from "./outbox.svelte";
import { stamp, type WaitingRun } from "./outboxStore";

const RUN: NewRun = {
  job_id: 5,
  saw_id: 2,
  band_id: 7,
  pieces: 7,
  length_mm: 3600,
  time_s: 800,
};
const OTHER = { ...RUN, pieces: 2 };
const LOGGED = { id: 9, at: "2026-03-01T09:00:00Z", pieces: 7, length_mm: 3600, time_s: 800 };
const problem = (status: number, code: string, current: object | null = null) =>
  new Response(
    JSON.stringify({
      type: `urn:jade-ribbon:problem:${code}`,
      code,
      detail: `It is ${code}.`,
      current,
    }),
    { status, headers: { "content-type": "application/problem+json" } },
  );
const taken = (body: object) =>
  new Response(JSON.stringify(body), { headers: { "content-type": "application/json" } });
const page = (status: number) =>
  new Response("<html>Log in</html>", { status, headers: { "content-type": "text/html" } });

const offline = () => vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
const bodyOf = async (call: unknown) =>
  (await ((call as [Request])[0] as Request).clone().json()) as RunInput;
const waits = (count: number) => vi.waitFor(() => expect(outbox.entries).toHaveLength(count));
const first = () => outbox.entries[0] as WaitingRun;

beforeEach(async () => {
  vi.restoreAllMocks();
  await outbox.clear();
  outbox.sentAnyway = null;
  await waits(0);
});

describe("the outbox", () => {
  it("keeps a run while the server is away and sends it once it answers", async () => {
    offline();
    expect(await outbox.log(RUN)).toBe("kept");
    await waits(1);
    const { key } = first();
    const { sent } = server({ "POST /api/runs": { id: 1, band: { id: 7 } } });
    await outbox.send();
    await waits(0);
    const [body] = (await sent("POST")) as [RunInput];
    expect(body).toMatchObject({ client_key: key, pieces: 7 });
    expect(body.waited_s).toBeGreaterThanOrEqual(0);
    expect(outbox.last).toMatchObject({ id: 1 });
  });

  it("draws a key at each tap: two runs alike are two", async () => {
    offline();
    await Promise.all([outbox.log(RUN), outbox.log(RUN)]);
    await waits(2);
    expect(new Set(outbox.entries.map((e) => e.key)).size).toBe(2);
  });

  it("tells within two seconds that a run is kept, where the network hangs", async () => {
    let letGo: (why: Error) => void = () => undefined;
    vi.spyOn(globalThis, "fetch").mockImplementation(
      () => new Promise((_, refuse) => (letGo = refuse)),
    );
    const start = performance.now();
    expect(await outbox.log(RUN)).toBe("kept");
    expect(performance.now() - start).toBeLessThan(2500);
    await waits(1);
    letGo(new TypeError("hung up"));
    await outbox.send();
  });

  it("sets a refused run aside with the reason, lets it be put right, and goes on", async () => {
    const fetch = vi.spyOn(globalThis, "fetch");
    fetch.mockImplementation(() => Promise.resolve(problem(409, "conflict")));
    expect(await outbox.log(RUN)).toBe("refused");
    await vi.waitFor(() => expect(outbox.refused[0]?.refused).toBe("It is conflict."));
    expect(outbox.waiting).toEqual([]);
    const { sent } = server({ "POST /api/runs": { id: 1, band: { id: 7 } } });
    const entry = first();
    expect(await outbox.change(entry, { pieces: 6 })).toBe("waits");
    expect(await sent("POST")).toMatchObject([{ client_key: entry.key, pieces: 6 }]);
    await waits(0);
  });

  it.each([page(404), page(200), page(502), problem(503, "busy")])(
    "takes nothing but our own word for a refusal",
    async (answer) => {
      vi.spyOn(globalThis, "fetch").mockImplementation(() => Promise.resolve(answer.clone()));
      expect(await outbox.log(RUN)).toBe("kept");
    },
  );

  it("lets the others pass one over which the server fails", async () => {
    const fetch = vi.spyOn(globalThis, "fetch").mockImplementation(async (input) => {
      const body = (await (input as Request).clone().json()) as RunInput;
      return body.pieces === RUN.pieces
        ? problem(500, "internal")
        : taken({ id: 2, band: { id: 7 } });
    });
    expect(await outbox.log(RUN)).toBe("kept");
    expect(await outbox.log(OTHER)).toBe("sent");
    await outbox.send();
    const tried = fetch.mock.calls.length;
    await outbox.send();
    await waits(1);
    expect(fetch.mock.calls.length).toBe(tried);
    await vi.waitFor(() => expect(first()).toMatchObject({ tries: 3 }));
  });

  it("sends no run from under the hands that put it right", async () => {
    const fetch = offline();
    await outbox.log(RUN);
    await waits(1);
    await outbox.hold(first().key);
    fetch.mockRestore();
    const { sent } = server({ "POST /api/runs": { id: 1, band: { id: 7 } } });
    await outbox.send();
    await waits(1);
    await outbox.change(first(), { pieces: 6 });
    expect(await sent("POST")).toMatchObject([{ pieces: 6 }]);
    await waits(0);
  });

  it("sends a run at once where the browser's store is full, and says so where it cannot", async () => {
    vi.spyOn(IDBObjectStore.prototype, "add").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    const fetch = offline();
    await expect(outbox.log(RUN)).rejects.toThrow("cannot be reached");
    fetch.mockImplementation(() => Promise.resolve(taken({ id: 3, band: { id: 7 } })));
    expect(await outbox.log(RUN)).toBe("sent");
    expect(outbox.last).toMatchObject({ id: 3 });
  });

  it("gives a run up, and puts it back", async () => {
    offline();
    await outbox.log(RUN);
    await waits(1);
    const { key } = first();
    const gone = await outbox.drop(key);
    await waits(0);
    if (gone) await outbox.putBack(gone);
    await waits(1);
    expect(first().key).toBe(key);
  });

  it("tells how long a run waited by the page's own clock, else by the device's", () => {
    const entry = {
      ...stamp("x"),
      logged: Date.now() - 60_000,
      mark: performance.now() - 5000,
    };
    expect(waitedSeconds(entry)).toBeCloseTo(5, 0);
    expect(waitedSeconds({ ...entry, page: 1 })).toBeCloseTo(60, 0);
    expect(waitedSeconds({ ...entry, page: 1, logged: Date.now() + 60_000 })).toBe(null);
  });
});

describe("a run put right while it is under way", () => {
  /** A run whose send hangs until it is let go. */
  async function underWay(): Promise<{ answer: (with_: Response) => void }> {
    let answer: (with_: Response) => void = () => undefined;
    vi.spyOn(globalThis, "fetch").mockImplementationOnce(
      () => new Promise((done) => (answer = done)),
    );
    void outbox.log(RUN);
    await waits(1);
    await vi.waitFor(() => expect(vi.mocked(fetch)).toHaveBeenCalledTimes(1));
    return { answer: (with_) => answer(with_) };
  }

  it("is kept beside what the shop has, and takes its place when asked", async () => {
    const { answer } = await underWay();
    const entry = first();
    void outbox.change(entry, { pieces: 6 });
    await vi.waitFor(() => expect(first().rev).toBe(1));
    answer(taken(LOGGED));
    await vi.waitFor(() => expect(first().logged_run).toMatchObject({ id: 9, pieces: 7 }));
    expect(String(first().refused)).toContain("It was sent before it was put right");
    vi.mocked(fetch).mockImplementation(() => Promise.resolve(taken({ id: 10 })));
    expect(await outbox.replace(first())).toBe("sent");
    const last = await bodyOf(vi.mocked(fetch).mock.calls.at(-1));
    expect(last).toMatchObject({ pieces: 6, replaces: 9 });
    expect(last.client_key).not.toBe(entry.key);
    await waits(0);
  });

  it("given up meanwhile, is told with a way to take it back", async () => {
    const { answer } = await underWay();
    await outbox.drop(first().key);
    answer(taken(LOGGED));
    await vi.waitFor(() => expect(outbox.sentAnyway).toMatchObject({ id: 9 }));
    await waits(0);
  });

  it("put right after another tab sent it, is kept beside what the shop has", async () => {
    const { answer } = await underWay();
    const entry = first();
    answer(taken(LOGGED));
    await waits(0);
    expect(await outbox.change(entry, { pieces: 5 })).toBe("was_sent");
    await waits(1);
    expect(first()).toMatchObject({ logged_run: { id: 9 }, run: { pieces: 5 } });
  });

  it("whose answer was lost, is told apart by the shop and kept", async () => {
    const fetch = offline();
    await outbox.log(RUN);
    await waits(1);
    fetch.mockImplementation(() => Promise.resolve(problem(409, "known", LOGGED)));
    await outbox.change(first(), { pieces: 4 });
    await vi.waitFor(() => expect(first().logged_run).toMatchObject({ id: 9 }));
    expect(first().run.pieces).toBe(4);
  });
});
