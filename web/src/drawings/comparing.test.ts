import { describe, expect, it } from "vitest";

import type { Compared } from "../api/schema";
import { bestOf, measures, shares, type Measure } from "./comparing";

const band = (cost: number | null, hours = 10, wide = 0): Compared =>
  ({
    band: { label: "x" },
    option:
      cost === null
        ? null
        : {
            figures: { cost_total: cost },
            bending_hours: hours,
            spread: { cost: { low: cost - wide / 2, high: cost + wide / 2 } },
          },
    reasons: [],
    life_m: 8000,
  }) as unknown as Compared;
const measure = (key: string) => measures(10_000).find((m) => m.key === key) as Measure;

describe("comparing bands", () => {
  it("shares one axis", () => {
    expect(shares(measure("cost"), [band(2), band(4), band(null)])).toEqual([0.5, 1, null]);
  });

  it("spreads decades evenly", () => {
    const [a = 0, b = 0, c = 0] = shares(measure("hours"), [
      band(1, 10),
      band(1, 100),
      band(1, 1000),
    ]);
    expect((b ?? 0) - (a ?? 0)).toBeCloseTo((c ?? 0) - (b ?? 0), 9);
    expect(c).toBe(1);
  });

  it("knows which way is better, and marks bands that read alike together", () => {
    expect(bestOf(measure("cost"), [band(2), band(4)])).toEqual([true, false]);
    expect(bestOf(measure("hours"), [band(2, 5), band(2, 50)])).toEqual([false, true]);
    expect(bestOf(measure("cost"), [band(2), band(2.01), band(4)])).toEqual([true, true, false]);
    expect(bestOf(measure("cost"), [band(2), band(2)])).toEqual([false, false]);
    expect(bestOf(measure("cost"), [band(null), band(2)])).toEqual([false, false]);
  });

  it("holds bands level whose figures are written the same", () => {
    const whole = (v: number) => v.toFixed(0);
    const three = [band(2.9), band(3.1), band(9)];
    expect(bestOf(measure("cost"), three, whole)).toEqual([true, true, false]);
    expect(bestOf(measure("cost"), three)).toEqual([true, false, false]);
  });

  it("holds bands level that lie well within what they are known to", () => {
    expect(bestOf(measure("cost"), [band(2, 10, 3), band(2.2, 10, 3)])).toEqual([false, false]);
    expect(bestOf(measure("cost"), [band(2, 10, 3), band(4, 10, 3)])).toEqual([true, false]);
  });

  it("takes no side where neither more nor less is better", () => {
    const teeth = measure("teeth");
    const [few, many] = [6, 30].map(
      (teeth_in_cut) => ({ option: { teeth_in_cut } }) as unknown as Compared,
    );
    expect(bestOf(teeth, [few, many] as Compared[])).toEqual([false, false]);
  });

  it("holds hours in bending level beyond what is known of them", () => {
    const hours = measure("hours");
    expect(bestOf(hours, [band(1, 20), band(1, 11_000), band(1, 400_000)])).toEqual([
      false,
      true,
      true,
    ]);
    expect(shares(hours, [band(1, 11_000), band(1, 400_000)])).toEqual([1, 1]);
  });
});
