import { beforeEach, describe, expect, it, vi } from "vitest";

import type { RunInput } from "../api/schema";
import { server } from "../tests/server";
import { outbox, waitedSeconds } from "./outbox.svelte";

const RUN: RunInput = {
  client_key: "abcdefgh",
  job_id: 5,
  saw_id: 2,
  band_id: 7,
  pieces: 7,
  length_mm: 3600,
  time_s: 800,
};
const OTHER = { ...RUN, client_key: "ijklmnop", pieces: 2 };
const problem = (status: number, code: string) =>
  new Response(
    JSON.stringify({ type: `urn:jade-ribbon:problem:${code}`, code, detail: `It is ${code}.` }),
    { status, headers: { "content-type": "application/problem+json" } },
  );
const page = (status: number) =>
  new Response("<html>Log in</html>", { status, headers: { "content-type": "text/html" } });

const keys = () => outbox.entries.map((e) => e.key);
const settled = () => vi.waitFor(() => expect(outbox.entries.length).toBeGreaterThanOrEqual(0));

beforeEach(async () => {
  vi.restoreAllMocks();
  await outbox.clear();
  await vi.waitFor(() => expect(outbox.entries).toEqual([]));
});

describe("the outbox", () => {
  it("keeps a run while the server is away and sends it once it answers", async () => {
    vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
    expect(await outbox.log(RUN)).toBe("kept");
    await vi.waitFor(() => expect(keys()).toEqual(["abcdefgh"]));
    const { sent } = server({ "POST /api/runs": { id: 1, band: { id: 7 } } });
    await outbox.send();
    await vi.waitFor(() => expect(keys()).toEqual([]));
    const [body] = (await sent("POST")) as [RunInput];
    expect(body).toMatchObject({ client_key: "abcdefgh", pieces: 7 });
    expect(body.waited_s).toBeGreaterThanOrEqual(0);
    expect(outbox.last).toMatchObject({ id: 1 });
  });

  it("sets a refused run aside with the reason, lets it be put right, and goes on", async () => {
    const fetch = vi.spyOn(globalThis, "fetch");
    fetch.mockImplementation(() => Promise.resolve(problem(409, "conflict")));
    expect(await outbox.log(RUN)).toBe("refused");
    await vi.waitFor(() => expect(outbox.refused[0]?.refused).toBe("It is conflict."));
    expect(outbox.waiting).toEqual([]);
    const { sent } = server({ "POST /api/runs": { id: 1, band: { id: 7 } } });
    await outbox.change("abcdefgh", { pieces: 6 });
    expect(await sent("POST")).toMatchObject([{ client_key: "abcdefgh", pieces: 6 }]);
    await vi.waitFor(() => expect(keys()).toEqual([]));
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
      if (body.client_key === RUN.client_key) return problem(500, "internal");
      return new Response(JSON.stringify({ id: 2, band: { id: 7 } }), {
        headers: { "content-type": "application/json" },
      });
    });
    expect(await outbox.log(RUN)).toBe("kept");
    expect(await outbox.log(OTHER)).toBe("sent");
    await outbox.send();
    const tried = fetch.mock.calls.length;
    await outbox.send();
    await settled();
    expect(fetch.mock.calls.length).toBe(tried);
    await vi.waitFor(() => expect(outbox.entries[0]).toMatchObject({ key: "abcdefgh", tries: 3 }));
  });

  it("sends no run from under the hands that put it right", async () => {
    const fetch = vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
    await outbox.log(RUN);
    outbox.hold("abcdefgh");
    fetch.mockRestore();
    const { sent } = server({ "POST /api/runs": { id: 1, band: { id: 7 } } });
    await outbox.send();
    await vi.waitFor(() => expect(keys()).toEqual(["abcdefgh"]));
    await outbox.change("abcdefgh", { pieces: 6 });
    expect(await sent("POST")).toMatchObject([{ client_key: "abcdefgh", pieces: 6 }]);
    await vi.waitFor(() => expect(keys()).toEqual([]));
  });

  it("is one entry a key, however often its button is tapped", async () => {
    vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
    await Promise.all([outbox.log(RUN), outbox.log(RUN)]);
    await vi.waitFor(() => expect(keys()).toEqual(["abcdefgh"]));
  });

  it("sends a run at once where the browser's store is full, and says so where it cannot", async () => {
    vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    const fetch = vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
    await expect(outbox.log(RUN)).rejects.toThrow("cannot be reached");
    fetch.mockImplementation(() =>
      Promise.resolve(
        new Response(JSON.stringify({ id: 3, band: { id: 7 } }), {
          headers: { "content-type": "application/json" },
        }),
      ),
    );
    expect(await outbox.log(RUN)).toBe("sent");
    expect(outbox.last).toMatchObject({ id: 3 });
  });

  it("gives a run up, and puts it back", async () => {
    vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("offline"));
    await outbox.log(RUN);
    const gone = await outbox.drop("abcdefgh");
    await vi.waitFor(() => expect(keys()).toEqual([]));
    if (gone) await outbox.putBack(gone);
    await vi.waitFor(() => expect(keys()).toEqual(["abcdefgh"]));
  });

  it("tells how long a run waited by the page's own clock, else by the device's", () => {
    const entry = {
      key: "x",
      run: RUN,
      logged: Date.now() - 60_000,
      page: performance.timeOrigin,
      mark: performance.now() - 5000,
      tries: 0,
      tried: 0,
      refused: "",
    };
    expect(waitedSeconds(entry)).toBeCloseTo(5, 0);
    expect(waitedSeconds({ ...entry, page: 1 })).toBeCloseTo(60, 0);
    expect(waitedSeconds({ ...entry, page: 1, logged: Date.now() + 60_000 })).toBe(null);
  });
});
