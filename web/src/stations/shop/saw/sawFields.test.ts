import { describe, expect, it } from "vitest";

import type { FormField, SawInput } from "../../../api/schema";
import { REFERENCE } from "../../../tests/samples";
import { assumedName, valueOf, withValue } from "./sawFields";

const SAW_FIELDS = REFERENCE.fields.filter((f) => f.form === "saw");
const SHOP_SAW = REFERENCE.saw_kinds.find((k) => k.key === "shop");
const BLANK_SAW = SHOP_SAW?.saw as SawInput;

const field = (key: string, at: number | null = null) =>
  SAW_FIELDS.find((f) => f.key === key && f.at === at) as FormField;

describe("a saw's figures", () => {
  it("set one wheel and leave the others", () => {
    const saw = withValue(BLANK_SAW, field("wheel_diameters_mm", 1), 420);
    expect(saw.wheel_diameters_mm).toEqual([400, 420]);
    expect(BLANK_SAW.wheel_diameters_mm).toEqual([400, 400]);
  });

  it("take a third wheel in and out", () => {
    const third = field("wheel_diameters_mm", 2);
    const three = withValue(BLANK_SAW, third, 200);
    expect(valueOf(three, third)).toBe(200);
    expect(withValue(three, third, null).wheel_diameters_mm).toHaveLength(2);
  });

  it("say what is assumed for each figure that may be unknown", () => {
    const names = SAW_FIELDS.map(assumedName);
    expect(Object.keys(REFERENCE.assumed).length).toBeGreaterThan(5);
    for (const name of Object.keys(REFERENCE.assumed)) expect(names).toContain(name);
    expect(new Set(SAW_FIELDS.map(assumedName)).size).toBe(SAW_FIELDS.length);
  });
});
