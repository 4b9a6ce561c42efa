import { describe, expect, it } from "vitest";

import {
  about,
  duration,
  inchFraction,
  quantity,
  readNumber,
  readQuantity,
  say,
  type Said,
  significant,
  span,
  withDoubt,
} from "./units";
import SAID from "../../../../tests/data/said.json";

describe("reading what people write", () => {
  it.each([
    ["3/8", 0.375],
    ["1 1/4", 1.25],
    ["1-1/4", 1.25],
    ["12,7", 12.7],
    ["12.7", 12.7],
    [".5", 0.5],
  ])("reads %s", (text, value) => expect(readNumber(text)).toBeCloseTo(value, 12));

  it.each(["", "abc", "1/0", "1/2/3", "12.7.1", "--4"])("refuses %s", (text) =>
    expect(readNumber(text)).toBeNull(),
  );

  it("takes the shop's unit when none is written, and the written one otherwise", () => {
    expect(readQuantity("3/4", "length", "inch")).toBeCloseTo(19.05);
    expect(readQuantity("19", "length", "metric")).toBe(19);
    expect(readQuantity('3/4"', "length", "metric")).toBeCloseTo(19.05);
    expect(readQuantity("12,7 mm", "length", "inch")).toBeCloseTo(12.7);
    expect(readQuantity("3000 ft/min", "speed", "metric")).toBeCloseTo(15.24);
    expect(readQuantity("20000 psi", "stress", "metric")).toBeCloseTo(137.895, 2);
  });

  it("refuses a unit of another kind", () => {
    expect(readQuantity("12 psi", "length", "metric")).toBeNull();
    expect(readQuantity("12 m/min", "length", "metric")).toBeNull();
  });
});

describe("showing", () => {
  it("writes fractions only where they are exact enough", () => {
    expect(inchFraction(0.75)).toBe("3/4");
    expect(inchFraction(7.25)).toBe("7 1/4");
    expect(inchFraction(7.283)).toBeNull();
  });

  it("says a figure to the first digit of its doubt", () => {
    expect(withDoubt(5.3312, 0.27, "thin", "metric")).toBe("5.3 ± 0.3 mm");
    expect(withDoubt(134.5, 12, "stress", "metric")).toBe("135 ± 12 MPa");
    expect(withDoubt(0.4512, 0.08, "plain", "metric")).toBe("0.45 ± 0.08");
  });

  it("says a range no finer than it is wide", () => {
    expect(span(1.234, 1.834, "feed", "metric")).toBe("1.2–1.8");
    expect(span(20.1, 46.9, "force", "metric")).toBe("20–47");
    expect(span(1210, 4890, "force", "metric")).toBe("1200–4900");
    expect(span(2.71, 2.71, "plain", "metric")).toBe("2.71");
    expect(span(2.7131, 2.7392, "plain", "metric")).toBe("2.71–2.74");
  });

  it("keeps significant digits without exponents", () => {
    expect(significant(0.02987, 2)).toBe("0.03");
    expect(significant(134.54, 3)).toBe("135");
    expect(significant(2.03, 2)).toBe("2");
    expect(significant(19_500, 3)).toBe("19500");
    expect(significant(0, 3)).toBe("0");
  });

  it("inverts reading for both systems", () => {
    for (const units of ["metric", "inch"] as const) {
      for (const mm of [12.7, 185, 3600]) {
        const back = readQuantity(quantity(mm, "length", units), "length", "metric");
        expect(Math.abs((back ?? 0) - mm) / mm).toBeLessThan(0.002);
      }
    }
  });

  it("claims no more digits than it knows", () => {
    expect(about(6331, 2)).toBe("6300");
    expect(about(14_795, 2)).toBe("15000");
    expect(about(0.0347, 2)).toBe("0.035");
    expect(about(0, 2)).toBe("0");
  });

  it("says times as people do", () => {
    expect(duration(744)).toBe("12 min 24 s");
    expect(duration(59.6)).toBe("1 min");
    expect(duration(3660)).toBe("1 h 1 min");
  });
});

describe("a sentence with open quantities", () => {
  // The same cases are run against the core, whose sheets are printed with them.
  it.each(SAID)("$metric", ({ parts, metric, inch }) => {
    const text = parts as Said;
    expect(say(text, "metric")).toBe(metric);
    expect(say(text, "inch")).toBe(inch);
  });
});
