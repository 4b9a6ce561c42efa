import { describe, expect, it } from "vitest";

import { inCurve } from "./curve";

const LEAN = 3 + 2 * Math.sqrt(2);
const [width, thickness, kerf] = [12.7, 0.64, 1.13];
const tightest = width ** 2 / (LEAN * (kerf - thickness));

describe("a band in its kerf", () => {
  it("just touches both walls at the core's tightest radius", () => {
    expect(inCurve(width, thickness, kerf, tightest).clearance).toBeCloseTo(0, 9);
  });

  it("binds below it and runs free above", () => {
    expect(inCurve(width, thickness, kerf, tightest * 0.8).clearance).toBeLessThan(0);
    expect(inCurve(width, thickness, kerf, tightest * 1.25).clearance).toBeGreaterThan(0);
  });

  it("leans less in a gentler bend", () => {
    const [near, far] = [100, 5000].map((r) => inCurve(width, thickness, kerf, r).lean);
    expect((near ?? 0) / (far ?? 1)).toBeCloseTo(50, 9);
  });
});
