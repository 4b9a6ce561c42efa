import { render, screen } from "@testing-library/svelte";
import { beforeEach, describe, expect, it } from "vitest";

import { shop } from "../../../lib/shop.svelte";
import { REFERENCE, SAW, SETTINGS, TENSION } from "../../../tests/samples";
import { MEANS, type Means } from "../means";
import SawLoop from "./SawLoop.svelte";

const LOOP = { diameters: [400, 400], band_length_mm: 3360, show: "span" as const };

function drawn(means: Means, tension = TENSION, horizontal = false): string[] {
  render(SawLoop, { ...LOOP, tension, means, horizontal });
  return [...document.querySelectorAll("text")].map((t) => t.textContent.trim());
}

beforeEach(() => {
  document.body.innerHTML = "";
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.saws = [SAW];
  shop.units = "metric";
});

describe("the free span, by the means in hand", () => {
  it.each([
    ["gauge", "65 µm", "over 100 mm"],
    ["pluck", "61.3 Hz", "B1 −12"],
    ["push", "24.5 N", "for 4 mm"],
    ["travel", "1.10 mm", "of the wheel from snug"],
  ] as const)("%s: says what to look for", (means, value, words) => {
    expect(drawn(means)).toEqual(["free span 1052 mm", value, words]);
    expect(document.querySelector("[data-means]")?.getAttribute("data-means")).toBe(means);
  });

  it("says the saw's scale is of no use until it is calibrated", () => {
    expect(drawn("scale")).toContain("scale not calibrated");
    document.body.innerHTML = "";
    const scale = { reading: 5.2, stress_uncertainty_MPa: 8, extrapolated: false, warning: "" };
    expect(drawn("scale", { ...TENSION, scale })).toContain("5.2");
  });

  it("draws the gauge as long as it is beside the span", () => {
    drawn("gauge");
    const gauge = Number(document.querySelector(".tool")?.getAttribute("height"));
    const [, half = "0"] =
      /^M46 -([\d.]+)V/.exec(document.querySelector(".say")?.getAttribute("d") ?? "") ?? [];
    expect(gauge / (2 * Number(half))).toBeCloseTo(100 / 1052, 2);
  });

  it("lays a mill's strand down, its words upright inside the loop", () => {
    drawn("pluck", TENSION, true);
    const place = document.querySelector("[data-means]")?.getAttribute("transform") ?? "";
    expect(place).toContain("rotate(-90)");
    const ys = [...document.querySelectorAll("text")].map((t) => Number(t.getAttribute("y")));
    const [, strand = 0] = (/translate\(([\d.]+) ([\d.]+)\)/.exec(place) ?? [])
      .slice(1)
      .map(Number);
    expect(Math.min(...ys)).toBeGreaterThan(strand);
    expect(Math.max(...ys)).toBeLessThan(strand + 120);
  });

  it.each([...MEANS])("%s: a saw whose span is not known says so", (means) => {
    const unknown = {
      ...TENSION,
      free_span_mm: null,
      note_Hz: null,
      note_name: null,
      side_push: null,
      wheel_travel_mm: null,
    };
    const words = drawn(means, unknown).join(" ");
    expect(words).not.toMatch(/NaN|null|undefined/);
    expect(screen.getByRole("img").innerHTML).not.toContain("NaN");
  });
});
