import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { SheetLook } from "../../api/schema";
import { shop } from "../../lib/shop.svelte";
import { BAND_ANSWER, REFERENCE, SAW, SETTINGS } from "../../tests/samples";
import { server } from "../../tests/server";
import BandForm from "./BandForm.svelte";
import BringBands from "./BringBands.svelte";
import { unfold } from "../../tests/unfold";

const KNOWN = [
  { key: "label", name: "Label" },
  { key: "width_mm", name: "Width" },
];
const LOOK: SheetLook = {
  headings: ["tag", "w"],
  columns: { label: 0, width_mm: 1 },
  known: KNOWN,
  rows: [
    { line: 2, label: "A", words: "13 × 0.5 6 tpi hook", taken: "taken: steel carbon", faults: [] },
  ],
  good: 1,
  bad: 0,
};
const BAD: SheetLook = {
  ...LOOK,
  rows: [
    ...LOOK.rows,
    {
      line: 3,
      label: "B",
      words: "",
      taken: "",
      faults: [{ path: "width_mm", message: "'wide' cannot be read as a length", value: "wide" }],
    },
  ],
  bad: 1,
};

beforeEach(() => {
  localStorage.clear();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.saws = [SAW];
  shop.units = "metric";
});

const paste = (text: string) =>
  fireEvent.input(screen.getByLabelText("The list"), { target: { value: text } });

describe("bands from a list", () => {
  it("are shown with what was taken for them before any comes in", async () => {
    const told = server({
      "POST /api/bands/sheet/look": LOOK,
      "POST /api/bands/sheet": { added: 1 },
    });
    render(BringBands);
    await paste("tag\tw\nA\t13");
    expect(await screen.findByText(/13 × 0.5 6 tpi hook/)).toBeTruthy();
    expect(screen.getByText(/taken: steel carbon/)).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "Bring in 1 band" }));
    await waitFor(async () => expect((await told.sent("POST")).length).toBeGreaterThan(1));
    expect((await told.sent("POST")).at(-1)).toEqual({ text: "tag\tw\nA\t13", columns: null });
  });

  it("stay out while a line cannot be read, which is said beside it", async () => {
    server({ "POST /api/bands/sheet/look": BAD });
    render(BringBands);
    await paste("tag\tw\nA\t13\nB\twide");
    expect(await screen.findByText(/Line 3: 'wide' cannot be read/)).toBeTruthy();
    const bring = screen.getByRole<HTMLButtonElement>("button", { name: /^Bring in/ });
    expect(bring.disabled).toBe(true);
  });

  it("are looked at anew when a column is taken for another thing", async () => {
    const told = server({ "POST /api/bands/sheet/look": LOOK });
    render(BringBands);
    await paste("tag\tw\nA\t13");
    await fireEvent.change(await screen.findByLabelText("w"), { target: { value: "label" } });
    await waitFor(async () =>
      expect((await told.sent("POST")).at(-1)).toMatchObject({ columns: { label: 1 } }),
    );
    await fireEvent.change(screen.getByLabelText("tag"), { target: { value: "" } });
    await waitFor(async () =>
      expect((await told.sent("POST")).at(-1)).toMatchObject({ columns: { width_mm: 1 } }),
    );
  });
});

describe("a band that is no longer new", () => {
  it("comes with its looks, its day, and a label and length that were waiting", async () => {
    const told = server({
      "POST /api/bands": BAND_ANSWER,
      "GET /api/bands/next": { label: "K-08", length_mm: 3360 },
    });
    const ondone = vi.fn();
    render(BandForm, { ondone });
    await unfold("Details");
    await waitFor(() =>
      expect(screen.getByLabelText<HTMLInputElement>("Label").value).toBe("K-08"),
    );
    await fireEvent.input(screen.getByLabelText("Width"), { target: { value: "19" } });
    await fireEvent.input(screen.getByLabelText("Teeth per inch"), { target: { value: "3" } });
    await fireEvent.click(screen.getByLabelText(/^tired/));
    await fireEvent.input(screen.getByLabelText("In the shop since"), {
      target: { value: "2024-05-01" },
    });
    await fireEvent.click(screen.getByRole("button", { name: "Save band" }));
    await waitFor(() => expect(ondone).toHaveBeenCalled());
    expect((await told.sent("POST"))[0]).toMatchObject({
      label: "K-08",
      length_mm: 3360,
      thickness_mm: null,
      looks: "tired",
      since: "2024-05-01",
    });
  });
});
