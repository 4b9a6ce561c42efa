import { describe, expect, it } from "vitest";

import { area, edge, fill, gulletOutline } from "./tooth";

const hook = { form: "hook", pitch: 12.7, depth: 4.3, hookDeg: 10 };

describe("tooth outlines", () => {
  it("reach the true depth and span one pitch", () => {
    for (const form of ["regular", "skip", "hook", "variable", "mill_high"]) {
      const points = gulletOutline({ ...hook, form });
      expect(Math.max(...points.map((p) => p.into))).toBeCloseTo(4.3, 6);
      expect(points[0]).toEqual({ along: 0, into: 0 });
      expect(points.at(-1)).toEqual({ along: 12.7, into: 0 });
    }
  });

  it("lean under the tip with a positive hook, and stand straight without", () => {
    const leaning = gulletOutline(hook).some((p) => p.along < -0.1);
    const straight = gulletOutline({ ...hook, hookDeg: 0 }).every((p) => p.along >= -1e-9);
    expect([leaning, straight]).toEqual([true, true]);
  });

  it("scale with the pitch like similar teeth", () => {
    const small = area(gulletOutline(hook));
    const big = area(gulletOutline({ ...hook, pitch: 25.4, depth: 8.6 }));
    expect(big / small).toBeCloseTo(4, 6);
  });

  it("fill to exactly the computed share", () => {
    const outline = gulletOutline(hook);
    for (const share of [0, 0.1, 0.32, 0.75, 1]) {
      expect(area(fill(outline, share)) / area(outline)).toBeCloseTo(share, 9);
    }
  });

  it("repeat over a length", () => {
    const tips = edge(hook, 50.8).filter((p) => p.into === 0);
    expect(tips.map((p) => p.along)).toEqual([0, 12.7, 25.4, 38.099999999999994, 50.8]);
  });

  it("are flat for a continuous edge", () => {
    expect(gulletOutline({ ...hook, depth: 0 })).toHaveLength(2);
  });
});
