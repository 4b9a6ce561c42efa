import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it } from "vitest";

import type { SawInput } from "../../../api/schema";
import { shop } from "../../../lib/shop.svelte";
import { currentJob } from "../../../lib/currentJob.svelte";
import { REFERENCE, SAW, SETTINGS } from "../../../tests/samples";
import { server } from "../../../tests/server";
import SawForm from "./SawForm.svelte";
import { unfold } from "../../../tests/unfold";

const SAVED = { ...SAW, id: 3 };
const WORKED_OUT = {
  speed_m_s: 14.45,
  speed_words: "π × 400 mm × 690 turns a minute.",
  length_mm: { low: 3336.6, high: 3376.6 },
  length_words: "Two straight strands and half of each wheel: 3357 mm, and 20 mm either way.",
  force_N: 1873,
  force_words: "A light frame holds about 1873 N.",
};

beforeEach(() => {
  localStorage.clear();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.units = "metric";
  shop.saws = [SAW];
  currentJob.startNew(2);
});

function opened(answers: Record<string, unknown> = {}) {
  const told = server({
    "POST /api/saws": SAVED,
    "GET /api/saws": [SAW, SAVED],
    "POST /api/saws/work-out": WORKED_OUT,
    ...answers,
  });
  render(SawForm, { params: { id: "new" } });
  return told;
}

async function saved(told: ReturnType<typeof opened>): Promise<SawInput> {
  await fireEvent.click(screen.getByRole("button", { name: "Save saw" }));
  let bodies: unknown[] = [];
  await waitFor(async () => {
    bodies = (await told.sent("POST")).filter((b) => (b as SawInput).name);
    expect(bodies.length).toBeGreaterThan(0);
  });
  return bodies.at(-1) as SawInput;
}

const choose = (name: RegExp) => fireEvent.click(screen.getByRole("button", { name }));

describe("a new saw", () => {
  it("asks for its kind first, and shows no figure that nobody gave", () => {
    opened();
    expect(screen.queryByLabelText("Motor")).toBeNull();
    expect(screen.getAllByRole("button", { name: /under the guides/ })).toHaveLength(5);
  });

  it("takes a kind's figures as assumed, all of them, with its name", async () => {
    const told = opened();
    await choose(/^Shop saw/);
    const body = await saved(told);
    expect(body.name).toBe("Shop saw");
    expect(body.motor_kW).toBe(1.5);
    expect(body.assumed).toContain("motor_kW");
    expect(body.assumed).toContain("drive");
  });

  it("keeps what was typed or said to be so, and no longer assumes it", async () => {
    const told = opened();
    await choose(/^Shop saw/);
    await unfold("Details");
    await fireEvent.input(screen.getByLabelText("Motor"), { target: { value: "2 hp" } });
    await fireEvent.click(screen.getByRole("button", { name: "Confirm Throat" }));
    await fireEvent.click(screen.getByRole("button", { name: "Confirm Tyres" }));
    const body = await saved(told);
    expect(body.motor_kW).toBeCloseTo(1.491, 3);
    for (const name of ["motor_kW", "throat_mm", "tyre"]) expect(body.assumed).not.toContain(name);
    expect(body.assumed).toContain("guides");
  });

  it("keeps a typed name when another kind is chosen, and not the kind's", async () => {
    const told = opened();
    await choose(/^Shop saw/);
    await choose(/^Bench saw/);
    expect(screen.getByLabelText<HTMLInputElement>(/^Name/).value).toBe("Bench saw");
    await fireEvent.input(screen.getByLabelText(/^Name/), { target: { value: "Old Tom" } });
    await choose(/^Resaw/);
    expect((await saved(told)).name).toBe("Old Tom");
  });

  it("from blanks has empty fields and assumes only what is said to be unknown", async () => {
    const told = opened();
    await choose(/^From blanks/);
    expect(screen.getByLabelText<HTMLInputElement>("Motor").value).toBe("");
    await fireEvent.input(screen.getByLabelText(/^Name/), { target: { value: "Bench" } });
    await fireEvent.click(screen.getAllByLabelText("don’t know")[0] as HTMLElement);
    const body = await saved(told);
    expect(body.assumed).toEqual(["band_width_mm.0"]);
    expect(body.band_width_mm[0]).toBe(3);
    expect(body.motor_kW).toBeNull();
  });

  it("takes several speeds, as people write them, and an inverter", async () => {
    const told = opened();
    await choose(/^From blanks/);
    await fireEvent.input(screen.getByLabelText(/^Name/), { target: { value: "Steps" } });
    await fireEvent.input(screen.getByLabelText("Band speed"), { target: { value: "7" } });
    await fireEvent.click(screen.getByRole("button", { name: "Another step" }));
    await fireEvent.input(screen.getByLabelText("Band speed, step 2"), {
      target: { value: "3000 ft/min" },
    });
    const body = await saved(told);
    expect(body.drive).toEqual({ kind: "fixed", speeds_m_s: [7, 15.24] });
    await fireEvent.click(screen.getByLabelText("inverter"));
    expect(screen.getByLabelText("Base frequency, Hz")).toBeTruthy();
  });

  it("works out speed and length, which are then no longer assumed", async () => {
    const told = opened();
    await choose(/^Shop saw/);
    await unfold("Details");
    await fireEvent.input(screen.getByLabelText("Turns of the wheel a minute"), {
      target: { value: "690" },
    });
    await fireEvent.click(await screen.findByRole("button", { name: /^Take 14.4/ }));
    await fireEvent.click(await screen.findByRole("button", { name: /^Take 3/ }));
    const body = await saved(told);
    expect(body.drive.speeds_m_s).toEqual([14.45]);
    expect(body.band_length_mm).toEqual([3337, 3377]);
    expect(body.assumed).not.toContain("drive");
    expect(body.assumed).not.toContain("band_length_mm.1");
    expect(body.assumed).toContain("band_width_mm.1");
  });
});

describe("the photograph of a plate", () => {
  it("stands beside the fields, and one that is no picture is said to be none", async () => {
    opened();
    await choose(/^Shop saw/);
    await unfold("Details");
    const file = new File(["x"], "plate.jpg", { type: "image/jpeg" });
    const input = screen.getByLabelText("A photograph of its plate");
    Object.defineProperty(input, "files", { value: [file] });
    await fireEvent.change(input);
    const picture = await screen.findByAltText(/The saw’s plate/);
    expect(picture.getAttribute("src")).toMatch(/^data:image\/jpeg/);
    await fireEvent.error(picture);
    expect(await screen.findByText("That file is no picture.")).toBeTruthy();
  });
});
