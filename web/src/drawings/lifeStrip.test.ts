import { describe, expect, it } from "vitest";

import { lifeStrip } from "./lifeStrip";

const day = (n: number) => new Date(Date.UTC(2026, 0, n));
const runs = [
  { at: day(5), before: 0, after: 400 },
  { at: day(9), before: 400, after: 900 },
];

describe("the life strip", () => {
  const strip = lifeStrip(
    day(1),
    runs,
    [day(12)],
    day(20),
    { from: 0, left: [100, 500, 900] },
    1000,
    100,
  );

  it("runs from arrival to now, then the fan", () => {
    expect(strip.x(day(1))).toBe(0);
    expect(strip.x(day(20))).toBeCloseTo(840);
    expect(strip.fan).toContain("1000");
  });

  it("climbs with metres", () => {
    expect(strip.y(900)).toBeLessThan(strip.y(400));
    expect(strip.y(0)).toBe(100);
  });

  it("falls back to nothing when sharpened", () => {
    const after = strip.path.split("L").at(-1);
    expect(after?.endsWith(",100")).toBe(true);
  });

  it("has no fan for a scrapped band", () => {
    expect(lifeStrip(day(1), runs, [], day(20), null, 1000, 100).fan).toBe("");
  });
});
