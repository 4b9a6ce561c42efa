import { describe, expect, it } from "vitest";

import { kerfMiddle } from "./curve";

describe("a kerf seen from above", () => {
  it("runs straight where it begins and bends as its radius says", () => {
    expect(kerfMiddle(0, 100)).toBe(0);
    expect(kerfMiddle(10, 100)).toBeCloseTo(100 - Math.sqrt(100 * 100 - 10 * 10), 2);
    expect(kerfMiddle(20, 100)).toBe(4 * kerfMiddle(10, 100));
  });
});
