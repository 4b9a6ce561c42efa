import { describe, expect, it } from "vitest";

import { cells, FOUR, NINE } from "./relief";

describe("a face as a relief", () => {
  it("has its cells in rows from the top, shaded by the most", () => {
    const found = cells(
      [
        [0.1, -0.4],
        [0, 0.05],
      ],
      0.2,
    );
    expect(found.map((c) => [c.x, c.y, c.share])).toEqual([
      [0, 0, 0.5],
      [0.5, 0, -1],
      [0, 0.5, 0],
      [0.5, 0.5, 0.25],
    ]);
    expect([found[0]?.width, found[0]?.height]).toEqual([0.5, 0.5]);
    expect(cells([[0.3]], 0)[0]?.share).toBeCloseTo(0.3);
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
