import { describe, expect, it } from "vitest";

import { bowAt, heldCut, tenth } from "./stock";

describe("a cut that is dragged", () => {
  const cuts = [14, 29.4, 44.8];

  it("stays between its neighbours, their kerfs apart", () => {
    expect(heldCut(cuts, 1, 20, 1.4, 59)).toBe(20);
    expect(heldCut(cuts, 1, 3, 1.4, 59)).toBeCloseTo(15.4);
    expect(heldCut(cuts, 1, 50, 1.4, 59)).toBeCloseTo(43.4);
  });

  it("stays in the billet", () => {
    expect(heldCut(cuts, 0, -9, 1.4, 59)).toBe(0);
    expect(heldCut(cuts, 2, 90, 1.4, 59)).toBeCloseTo(57.6);
  });
});

it("draws a bow as a parabola, greatest in the middle", () => {
  expect([bowAt(0), bowAt(0.25), bowAt(0.5), bowAt(1)]).toEqual([0, 0.75, 1, 0]);
});

it("marks nothing finer than a tenth", () => {
  expect(tenth(12.748)).toBe(12.7);
});
