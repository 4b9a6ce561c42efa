import { expect, it } from "vitest";

import { ringPaths } from "./ring";

it("draws each segment with its faces square to the radius and its joints closed", () => {
  const paths = ringPaths(4, 100, 20);
  expect(paths).toHaveLength(4);
  // Of a square ring the corners lie at the side length: 100 and 80.
  expect(paths[0]).toBe("M100.0 -100.0L100.0 100.0L80.0 80.0L80.0 -80.0Z");
  const [first, second] = paths.map((p) => p.slice(1, -1).split("L"));
  expect(first?.[1]).toBe(second?.[0]?.replace("-100.0 100.0", "100.0 100.0"));
});

it("draws nothing of what is no ring", () => {
  expect(ringPaths(2, 100, 20)).toEqual([]);
  expect(ringPaths(Number.NaN, 100, 20)).toEqual([]);
});
