import { describe, expect, it } from "vitest";

import type { BandAnswer } from "../../api/schema";
import { matches, SORTS } from "./sorting";

const band = (over: Partial<BandAnswer>): BandAnswer =>
  ({
    label: "K-07",
    width_mm: 19,
    tpi_lo: 2,
    form: "hook",
    steel: "silicon_steel",
    place: "by the door",
    note: "",
    state: "rack",
    edge: "keen",
    dullness: 0.1,
    length_mm: 3360,
    mounted_on: null,
    last_run_at: null,
    ...over,
  }) as BandAnswer;
const all = { saw: null, edge: null, gone: false };

describe("the rack's filter", () => {
  it("needs every word", () => {
    expect(matches(band({}), "hook 19", all, undefined)).toBe(true);
    expect(matches(band({}), "hook 25", all, undefined)).toBe(false);
    expect(matches(band({}), "silicon door", all, undefined)).toBe(true);
  });

  it("hides scrapped bands until asked", () => {
    const gone = band({ state: "scrapped" });
    expect(matches(gone, "", all, undefined)).toBe(false);
    expect(matches(gone, "", { ...all, gone: true }, undefined)).toBe(true);
  });

  it("takes a saw's length and an edge", () => {
    expect(matches(band({}), "", all, [3340, 3380])).toBe(true);
    expect(matches(band({}), "", all, [4000, 4100])).toBe(false);
    expect(matches(band({}), "", { ...all, edge: "spent" }, undefined)).toBe(false);
  });
});

describe("the rack's order", () => {
  it("counts labels as numbers do", () => {
    const sorted = [band({ label: "K-10" }), band({ label: "K-2" })].sort(SORTS.label.by);
    expect(sorted.map((b) => b.label)).toEqual(["K-2", "K-10"]);
  });

  it("puts the keenest and the coarsest first, continuous edges last", () => {
    const dull = band({ label: "A", dullness: 0.8, tpi_lo: null });
    const keen = band({ label: "B", dullness: 0.1, tpi_lo: 3 });
    expect([dull, keen].sort(SORTS.edge.by)[0]?.label).toBe("B");
    expect([dull, keen].sort(SORTS.pitch.by)[0]?.label).toBe("B");
  });
});
