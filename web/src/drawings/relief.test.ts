import { describe, expect, it } from "vitest";

import { cells, FOUR, NINE, offAt } from "./relief";

const MAP = {
  mean_mm: 14,
  taper_along_mm: 0.4,
  lean_mm: 0.2,
  barrel_mm: 0.3,
  residual_mm: 0.02,
  range_mm: 0.6,
};

describe("a face as a relief", () => {
  it("is what its map says at each place", () => {
    expect(offAt(MAP, 0.5, 0)).toBeCloseTo(0.1);
    expect(offAt(MAP, 1, 1)).toBeCloseTo(0.2 + 0.1 - 0.2);
    expect(offAt({ ...MAP, barrel_mm: null }, 0, -1)).toBeCloseTo(-0.3);
  });

  it("has its cells top row first, shaded by the most", () => {
    const found = cells(MAP, 4, 2, 0.2);
    expect(found).toHaveLength(8);
    expect([found[0]?.x, found[0]?.y, found[4]?.y]).toEqual([0, 0, 0.5]);
    expect(found.every((c) => Math.abs(c.share) <= 1)).toBe(true);
    expect(cells(MAP, 1, 1, 0)[0]?.share).toBeCloseTo(0.1);
  });

  it("is read at named places", () => {
    expect(FOUR.map((p) => p.name)).toEqual([
      "start, bottom",
      "start, top",
      "end, bottom",
      "end, top",
    ]);
    expect(NINE[4]).toEqual({ along: 0.5, up: 0, name: "middle, middle" });
  });
});
