import { describe, expect, it } from "vitest";

import { cleanZone, feedAxis, feedTicks, placeMarks, softPath, type Mark } from "./feedScale";

const limits = { power: 2.54, bite: 4.11, gullet: 6.42, pace: 8, hand: 12.1, edge: 22.5 };
const marks: Mark[] = Object.entries(limits).map(([key, feed]) => ({
  key,
  feed,
  label: `limit of ${key}`,
  binding: key === "power",
}));

describe("the feed scale", () => {
  const axis = feedAxis(0.55, Object.values(limits), 900);

  it("fades in and out as wide as floor and ceiling are unsure", () => {
    const zone = cleanZone(axis, { low: 0.3, high: 1 }, { low: 1.9, high: 3.1 });
    expect(zone.rise.from).toBeLessThan(zone.rise.to);
    expect(zone.rise.to).toBeLessThan(zone.fall.from);
    const path = softPath(zone, 10, 15);
    expect(path).toBe(
      `M${zone.rise.from} 25L${zone.rise.to} 10H${zone.fall.from}L${zone.fall.to} 25Z`,
    );
  });

  it("is nowhere whole where floor and ceiling overlap", () => {
    const zone = cleanZone(axis, { low: 0.5, high: 2.5 }, { low: 1, high: 3 });
    const peak = Number(/L[\d.]+ ([\d.]+)L/.exec(softPath(zone, 10, 15))?.[1]);
    expect(peak).toBeGreaterThan(10);
    expect(peak).toBeLessThan(25);
  });

  it("rises with the feed and holds floor and limits", () => {
    expect(axis(0.55)).toBeGreaterThan(0);
    expect(axis(22.5)).toBeLessThan(900);
    expect(axis(2)).toBeLessThan(axis(4));
  });

  it("puts equal ratios at equal distances", () => {
    expect(axis(2) - axis(1)).toBeCloseTo(axis(8) - axis(4), 6);
  });

  it("keeps ticks apart", () => {
    const xs = feedTicks(axis).map((t) => axis(t.feed));
    xs.slice(1).forEach((x, i) => expect(x - (xs[i] ?? 0)).toBeGreaterThanOrEqual(46));
  });

  it("has ticks that are round in the units shown", () => {
    expect(feedTicks(axis).map((t) => t.label)).toEqual(["0.5", "1", "2", "5", "10", "20"]);
    const feet = feedTicks(axis, 0.3048);
    expect(feet.map((t) => t.label)).toEqual(["1", "2", "5", "10", "20", "50"]);
    expect(feet[0]?.feed).toBeCloseTo(0.3048);
  });

  it("gives colliding labels rows of their own", () => {
    const placed = placeMarks(marks, axis, 900);
    for (const a of placed) {
      for (const b of placed) {
        if (a === b || a.row !== b.row || a.anchor !== b.anchor) continue;
        expect(Math.abs(a.x - b.x)).toBeGreaterThan(40);
      }
    }
  });

  it("still stands when the window is shut far under the floor", () => {
    const shut = feedAxis(4.8, [0.14, 1.6, 32], 900);
    expect(shut(0.14)).toBeGreaterThan(0);
    expect(shut(4.8)).toBeLessThan(900);
  });
});
