import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { CutListQuestion, YieldAnswer } from "../../api/schema";
import { unsaved } from "../../lib/edit.svelte";
import { shop } from "../../lib/shop.svelte";
import { REFERENCE, SETTINGS } from "../../tests/samples";
import { server } from "../../tests/server";
import CutList from "./CutList.svelte";

const PLAN: YieldAnswer = {
  billets: [
    {
      label: "A",
      thickness_mm: 60,
      height_mm: 185,
      length_mm: 3700,
      sections: [
        {
          from_mm: 20,
          to_mm: 3620,
          thickness_mm: 59,
          bow_mm: 0,
          slices: [
            { piece: 0, number: 1, from_mm: 0, to_mm: 15, low_mm: 0, high_mm: 90 },
            { piece: 0, number: 2, from_mm: 0, to_mm: 15, low_mm: 91.4, high_mm: 181.4 },
            { piece: 0, number: 3, from_mm: 16.4, to_mm: 31.4, low_mm: 0, high_mm: 180 },
          ],
        },
      ],
    },
    { label: "B", thickness_mm: 30, height_mm: 90, length_mm: 900, sections: [] },
  ],
  made: { strake: 3 },
  value: 25,
  left_over: [{ billet: 0, thickness_mm: 27.6, height_mm: 185, length_mm: 3600 }],
  kerf_m3: 0.0019,
  waste_m3: 0.0042,
  best: true,
  at_most: 25,
  looks_left: 0,
};

beforeEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.units = "metric";
});

describe("a cut list", () => {
  it("draws the plan with every slice numbered, and what is left", async () => {
    server({ "POST /api/yield": PLAN });
    render(CutList);
    expect(await screen.findByText("no plan makes more")).toBeTruthy();
    expect(screen.getByRole("img", { name: "Billet A: 3.6 m into 2" })).toBeTruthy();
    expect(screen.getByText(/^1 \+ 2 /)).toBeTruthy();
    expect(screen.getByText(/^3 /)).toBeTruthy();
    expect(screen.getByText(/not needed/)).toBeTruthy();
    expect(screen.getByText(/Dust 1\.9 l, lost otherwise 4\.2 l/)).toBeTruthy();
  });

  it("plans anew as it is typed, in the units shown, and keeps what was typed", async () => {
    const { sent } = server({ "POST /api/yield": PLAN });
    render(CutList);
    await screen.findByText("no plan makes more");
    await fireEvent.click(screen.getByRole("button", { name: "Another billet" }));
    await fireEvent.input(screen.getByLabelText("Thick of B"), { target: { value: "75,5" } });
    await waitFor(async () => {
      const bodies = (await sent("POST")) as CutListQuestion[];
      expect(bodies.at(-1)?.billets).toMatchObject([
        { label: "A" },
        { label: "B", thickness_mm: 75.5, bow_mm: 0 },
      ]);
    });
    expect(unsaved().map(([key]) => key)).toEqual(["cutlist"]);
    await fireEvent.click(screen.getByRole("button", { name: "Remove B" }));
    expect(screen.queryByLabelText("Thick of B")).toBe(null);
  });

  it("says what is missing where nothing can be made, and marks the field", async () => {
    vi.spyOn(globalThis, "fetch").mockImplementation(() =>
      Promise.resolve(
        new Response(
          JSON.stringify({
            type: "urn:jade-ribbon:problem:input",
            code: "input",
            detail: "No billet is long enough for any piece.",
            errors: [{ path: "pieces.0.length_mm", message: "x" }],
          }),
          { status: 422, headers: { "content-type": "application/problem+json" } },
        ),
      ),
    );
    render(CutList);
    expect((await screen.findByRole("alert")).textContent).toContain("long enough");
    const field = screen.getAllByLabelText(/^Long of/)[1];
    expect(field?.getAttribute("aria-invalid")).toBe("true");
  });
});
