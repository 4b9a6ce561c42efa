import { describe, expect, it } from "vitest";

import { feedOf, markAt, passTime } from "./pace";

describe("the pace", () => {
  it("takes a length in the time that the feed says", () => {
    expect(passTime(1000, 2)).toBe(30_000);
    expect(passTime(1000, 0)).toBe(0);
  });

  it("has its mark go along, and begin again", () => {
    expect(markAt(0, 1000, 2)).toBe(0);
    expect(markAt(15_000, 1000, 2)).toBe(0.5);
    expect(markAt(45_000, 1000, 2)).toBe(0.5);
    expect(markAt(100, 1000, 0)).toBe(0);
  });

  it("tells the true feed of a length that was timed", () => {
    expect(feedOf(500, 15_000)).toBeCloseTo(2);
    expect(feedOf(500, 0)).toBe(null);
  });
});
