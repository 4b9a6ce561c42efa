import { describe, expect, it } from "vitest";

import { clockPoint, gapPx, leanDeg, turnArc, turnHead } from "./truing";

const endOf = (path: string): readonly [number, number] => {
  const [x = NaN, y = NaN] = path.split(" ").slice(-2).map(Number);
  return [x, y];
};

describe("a wheel against the straightedge", () => {
  it("is drawn with its gap larger than life, the sign kept", () => {
    expect(gapPx(1)).toBeCloseTo(14);
    expect(gapPx(-1)).toBeCloseTo(-14);
    expect(gapPx(0)).toBe(0);
  });

  it("shows even a hair, and holds a great gap within the picture", () => {
    expect(gapPx(0.01)).toBe(2);
    expect(gapPx(30)).toBe(gapPx(20));
  });

  it("leans by the gap over its height", () => {
    expect(leanDeg(100, 100)).toBeCloseTo(45);
    expect(leanDeg(-10, 1000)).toBeCloseTo(-0.573, 3);
  });
});

describe("a bolt on the clock", () => {
  it.each([
    [12, 0, -10],
    [3, 10, 0],
    [6, 0, 10],
    [9, -10, 0],
  ])("stands at %i o'clock", (oclock, x, y) => {
    const at = clockPoint(oclock, 10);
    expect(at.x).toBeCloseTo(x);
    expect(at.y).toBeCloseTo(y);
  });

  it("turns clockwise to the right of its top, anticlockwise to the left", () => {
    expect(endOf(turnArc(0.25, 10))).toEqual([10, -0]);
    expect(endOf(turnArc(-0.25, 10))).toEqual([-10, -0]);
    expect(turnArc(0.25, 10)).toContain(" 0 0 1 ");
    expect(turnArc(-0.75, 10)).toContain(" 0 1 0 ");
    expect(turnArc(0, 10)).toBe("");
  });

  it("has its arrow where the turn ends, its barbs behind it", () => {
    const points = [...turnHead(0.25, 10, 4).matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map((m) => [
      Number(m[1]),
      Number(m[2]),
    ]);
    expect(points[1]).toEqual([10, -0]);
    for (const barb of [points[0], points[2]]) expect(barb?.[1]).toBeLessThan(0);
    expect(turnHead(0, 10, 4)).toBe("");
  });
});
