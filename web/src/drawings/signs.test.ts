import { describe, expect, it } from "vitest";

import { checkMarks, HIGH as CHECK_HIGH, turningMarks, WIDE as CHECK_WIDE } from "./checks";
import { along, arrow, band, box, line, ring, turn } from "./marks";
import { HIGH, SIGNS, signMarks, WIDE } from "./signs";

/** Every point that a path goes to by lines. */
function points(d: string): [number, number][] {
  return [...d.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]);
}

describe("signs", () => {
  it("are forty and one, each drawn within its frame, no two alike", () => {
    const drawn = Object.keys(SIGNS).map((key) => {
      const marks = signMarks(key);
      expect(marks.length, key).toBeGreaterThan(1);
      for (const [x, y] of marks.flatMap((m) => points(m.d))) {
        expect(x, key).toBeGreaterThanOrEqual(-1);
        expect(x, key).toBeLessThanOrEqual(WIDE + 1);
        expect(y, key).toBeGreaterThanOrEqual(-1);
        expect(y, key).toBeLessThanOrEqual(HIGH + 1);
      }
      return JSON.stringify(marks);
    });
    expect(drawn).toHaveLength(41);
    expect(new Set(drawn).size).toBe(41);
  });

  it("keep vermilion for what stops", () => {
    const red = Object.keys(SIGNS).filter((key) => signMarks(key).some((m) => m.as === "stop"));
    expect(red.sort()).toEqual(
      ["gullet_cracks", "smoke", "snaps_body", "snaps_weld", "sparks", "teeth_stripped"].sort(),
    );
  });

  it("are nothing for what nobody knows", () => {
    expect(signMarks("tock")).toEqual([]);
  });
});

describe("checks", () => {
  it("ring their place on the saw, or show a card for what is made away from it", () => {
    expect(checkMarks("wheel_plane").some((m) => m.as === "mark")).toBe(true);
    expect(checkMarks("when_began").some((m) => m.as === "mark")).toBe(false);
    for (const key of ["pluck", "drift_line", "walk_round"]) {
      for (const [x, y] of checkMarks(key).flatMap((m) => points(m.d))) {
        expect(x).toBeLessThanOrEqual(CHECK_WIDE);
        expect(y).toBeLessThanOrEqual(CHECK_HIGH);
      }
    }
  });
});

describe("what turns", () => {
  it("is ringed on the saw, every wheel as a wheel", () => {
    expect(turningMarks("wheel_2")).toEqual(turningMarks("wheel_1"));
    const rings = ["weld", "wheel_1", "motor"].map((s) => turningMarks(s).at(-1)?.d);
    expect(new Set(rings).size).toBe(3);
    expect(turningMarks("").some((m) => m.as === "mark")).toBe(false);
  });
});

describe("marks", () => {
  it("are paths of whole tenths", () => {
    expect(line([0, 0.04], [1.25, 2])).toBe("M0 0L1.3 2");
    expect(box(1, 2, 3, 4)).toBe("M1 2L4 2L4 6L1 6Z");
    expect(ring(5, 5, 2)).toContain("a2 2 0 1 0 4 0");
  });

  it("go along with as many steps as asked", () => {
    expect(along(0, 10, (x) => 2 * x, 5)).toHaveLength(6);
    expect(along(0, 10, (x) => 2 * x, 5).at(-1)).toEqual([10, 20]);
  });

  it("end arrows and turns with a head", () => {
    expect(arrow([0, 0], [10, 0]).match(/M/g)).toHaveLength(2);
    expect(turn(0, 0, 10, 0, 90).match(/M/g)).toHaveLength(2);
  });

  it("leave out the teeth that are gone", () => {
    const whole = points(band(0, 0, 45)).filter(([x]) => x === 0).length;
    const stripped = points(band(0, 0, 45, { gone: [1, 2] })).filter(([x]) => x === 0).length;
    expect(whole - stripped).toBe(2);
  });
});
