import { afterEach, expect, test, vi } from "vitest";

import reference from "../../tests/reference.json";
import type { WrittenRules } from "../../api/schema";

afterEach(() => {
  vi.unstubAllGlobals();
  vi.resetModules();
});

/** The units as a reader of a language has them, with the core's own rules of writing. */
async function readBy(language: string) {
  vi.stubGlobal("navigator", { languages: [language] });
  vi.resetModules();
  const { takeRules } = await import("./written");
  takeRules((reference as unknown as { written: WrittenRules }).written);
  return import("./units");
}

test("a figure has the decimal sign of its reader, in words, ranges, doubts and money", async () => {
  const units = await readBy("de-DE");
  expect(units.quantity(12.7, "length", "metric")).toBe("12,7 mm");
  expect(units.span(1.2, 1.8, "feed", "metric")).toBe("1,2–1,8");
  expect(units.withDoubt(5.31, 0.27, "length", "metric")).toBe("5,3 ± 0,3 mm");
  expect(units.money(3.5, "EUR")).toBe("EUR\u00a03,50");
  expect(units.number(1200, "length", "metric")).toBe("1200");
  expect((await readBy("en-GB")).quantity(12.7, "length", "metric")).toBe("12.7 mm");
});

test("what stands in a field is read back as it is, whatever the reader's sign", async () => {
  const units = await readBy("de-DE");
  for (const value of [0.635, 1.235, 12.5, 3360, 0.05]) {
    const shown = units.fieldNumber(value, "plain", "metric");
    expect(units.readQuantity(shown, "plain", "metric")).toBeCloseTo(value, 2);
  }
  expect(units.fieldNumber(12.5, "length", "metric")).toBe("12,5");
  expect(units.fieldNumber(1.235, "stretch", "metric")).toBe("1,2");
});
