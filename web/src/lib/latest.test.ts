import { describe, expect, it } from "vitest";

import { Latest } from "./latest";

const later = <T>(value: T, ms: number) =>
  new Promise<T>((done) => setTimeout(() => done(value), ms));

describe("numbered requests", () => {
  it("drops an answer that a later request overtook", async () => {
    const latest = new Latest();
    const slow = latest.take(() => later("old", 30));
    const quick = latest.take(() => later("new", 1));
    expect(await quick).toBe("new");
    expect(await slow).toBeNull();
  });

  it("drops the failure of an overtaken request and throws that of the latest", async () => {
    const latest = new Latest();
    const failed = latest.take(() => later(0, 20).then(() => Promise.reject(new Error("late"))));
    const fails = latest.take(() => Promise.reject(new Error("now")));
    await expect(fails).rejects.toThrow("now");
    expect(await failed).toBeNull();
  });
});
