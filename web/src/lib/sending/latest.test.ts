import { describe, expect, it, vi } from "vitest";

import { Latest } from "./latest";

/** A request that is answered by hand. */
function held<T>() {
  let answer: (value: T) => void = () => undefined;
  let fail: (problem: Error) => void = () => undefined;
  const promise = new Promise<T>((resolve, reject) => ([answer, fail] = [resolve, reject]));
  const request = vi.fn(() => promise);
  return { request, answer: (v: T) => answer(v), fail: (p: Error) => fail(p) };
}
const settled = () => new Promise((done) => setTimeout(done));

describe("the latest of many questions", () => {
  it("has one request under way, and of those asked meanwhile sends only the last", async () => {
    const latest = new Latest();
    const [a, b, c] = [held<string>(), held<string>(), held<string>()];
    const answers = [a, b, c].map((h) => latest.take(h.request));
    await settled();
    expect([a, b, c].map((h) => h.request.mock.calls.length)).toEqual([1, 0, 0]);
    a.answer("a");
    await settled();
    expect([b, c].map((h) => h.request.mock.calls.length)).toEqual([0, 1]);
    c.answer("c");
    expect(await Promise.all(answers)).toEqual([null, null, "c"]);
  });

  it("sends the next one whatever came of the one before", async () => {
    const latest = new Latest();
    const [a, b] = [held<string>(), held<string>()];
    const [first, second] = [latest.take(a.request), latest.take(b.request)];
    a.fail(new Error("away"));
    expect(await first).toBeNull();
    b.answer("b");
    expect(await second).toBe("b");
  });

  it("throws what the latest throws, and goes on", async () => {
    const latest = new Latest();
    const a = held<string>();
    const first = latest.take(a.request);
    a.fail(new Error("no"));
    await expect(first).rejects.toThrow("no");
    expect(await latest.take(() => Promise.resolve("yes"))).toBe("yes");
  });
});
