import { describe, expect, it } from "vitest";

import type { Outline, OutlineSample } from "../api/schema";
import { fitOutline, pieces } from "./outline";

const sample = (x_mm: number, y_mm: number, radius_mm: number | null): OutlineSample => ({
  x_mm,
  y_mm,
  radius_mm,
});
const chain = [
  sample(0, 0, null),
  sample(100, 0, null),
  sample(120, 20, 20),
  sample(120, 40, 20),
  sample(100, 60, 80),
];
const outline: Outline = {
  min_radius_mm: 20,
  at_mm: [120, 20],
  length_mm: 200,
  corners: [],
  stretches: [],
  chains: [chain],
};

describe("an outline on the page", () => {
  const fit = fitOutline(outline, 400, 200, 20);

  it("lies inside its frame, undistorted", () => {
    const [ax, ay] = fit([0, 0]);
    const [bx, by] = fit([120, 60]);
    expect(ax).toBeGreaterThanOrEqual(20 - 1e-9);
    expect(by).toBeLessThanOrEqual(180 + 1e-9);
    expect((bx - ax) / 120).toBeCloseTo((by - ay) / 60, 9);
  });

  it("is parted where the band can no longer turn it", () => {
    expect(pieces(chain, 50, fit).map((p) => p.kind)).toEqual(
      ["line", "tight", "turns"].slice(0, 2),
    );
    expect(pieces(chain, 10, fit).map((p) => p.kind)).toEqual(["line", "turns"]);
    expect(pieces(chain, null, fit)).toHaveLength(1);
  });
});
