import { fireEvent, render, screen } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { AtTheSaw, ChipsSay, SignEffect } from "../../api/schema";
import { shop } from "../../lib/shop.svelte";
import { REFERENCE, SETTINGS } from "../../tests/samples";
import ChipTaps from "./ChipTaps.svelte";
import { blankRun, motorOf, NO_MOTOR } from "./form";
import NailAhead from "./NailAhead.svelte";
import Preflight from "./Preflight.svelte";
import StopMarks from "./StopMarks.svelte";
import Symptoms from "./Symptoms.svelte";

const SAW: AtTheSaw = {
  break_in: null,
  signs: [],
  chips: [],
  scale: null,
  slow: { speed_m_s: 7, setting: "slowest of 2 steps", feed_m_min: 0.6 },
  stock_id: 3,
  stock_label: "B-07",
  stock_length_mm: 2400,
  zones: [{ from_mm: 825, to_mm: 975, marks: 1 }],
  strikes: 1,
};

beforeEach(() => {
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.units = "metric";
});

const TAPS = ["Push stick in reach", "Extraction on", "In- and outfeed clear", "Isolator"].map(
  (name, n) => ({
    key: ["hands", "extraction", "support", "isolator"][n] ?? "",
    when: "",
    name,
    why: "",
  }),
);

describe("before the start", () => {
  it("takes four taps, and says when all are done", async () => {
    const ondone = vi.fn();
    const { rerender } = render(Preflight, { all: TAPS, done: [], ondone });
    expect(screen.getAllByRole("button")).toHaveLength(4);
    await fireEvent.click(screen.getByRole("button", { name: /Extraction/ }));
    expect(ondone).toHaveBeenCalledWith(["extraction"]);
    await rerender({ all: TAPS, done: ["hands", "extraction", "support", "isolator"], ondone });
    expect(screen.getByText(/all four, for this lot/)).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: /Push stick/ }));
    expect(ondone).toHaveBeenLastCalledWith(["extraction", "support", "isolator"]);
  });
});

describe("chips", () => {
  const table: ChipsSay[] = (["small", "right", "large"] as const).map((by_feed) => ({
    chips: "dust",
    by_feed,
    bite: "small",
    agrees: by_feed === "small",
    words: `dust at a ${by_feed} feed`,
  }));

  it("are read beside where the feed stands", async () => {
    const props = { chosen: "dust" as const, table, onchips: vi.fn() };
    const { rerender } = render(ChipTaps, { ...props, place: "large" as const });
    expect(screen.getByText("dust at a large feed")).toBeTruthy();
    await rerender({ ...props, place: null });
    expect(screen.getByText(/dust at a right feed/)).toBeTruthy();
    expect(screen.getByText(/time it to be sure/)).toBeTruthy();
  });
});

describe("nail ahead", () => {
  it("tells the slow pass, and lets nobody go on before the teeth were looked at", async () => {
    const onstrike = vi.fn();
    render(NailAhead, { saw: SAW, strikes: 0, teeth_lost: 0, onstrike });
    expect(screen.getByText(/825 mm/)).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "Nail ahead" }));
    expect(screen.getByText("0.60 m/min")).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "It struck" }));
    expect(screen.getByText(/Look at every tooth and the weld/)).toBeTruthy();
    await fireEvent.input(screen.getByLabelText("Or so many are gone"), {
      target: { value: "3" },
    });
    expect(screen.getByText(/is not put back/)).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "3 gone" }));
    expect(onstrike).toHaveBeenCalledWith(3);
  });
});

describe("a stop mark", () => {
  it("needs a place on the piece", async () => {
    const onstops = vi.fn();
    render(StopMarks, { stops: [], length_mm: 3600, onstops });
    const why = screen.getByRole("button", { name: "a knot", hidden: true });
    await fireEvent.click(why);
    expect(onstops).not.toHaveBeenCalled();
    const along = screen.getByLabelText("How far along the piece");
    await fireEvent.input(along, { target: { value: "9000" } });
    expect(screen.getByText(/past the end; accepted: 0 to/)).toBeTruthy();
    await fireEvent.input(along, { target: { value: "900" } });
    await fireEvent.click(why);
    expect(onstops).toHaveBeenCalledWith([{ along_mm: 900, why: "knot" }]);
  });
});

describe("a sign", () => {
  const effect: SignEffect = {
    sign: "burn",
    dullness_before: 0.4,
    dullness_after: 0.7,
    do: "change",
    words: "Change the band.",
  };

  it("says what it did to the edge and what to do now", () => {
    render(Symptoms, { symptoms: ["burn"], effects: [effect], onsymptoms: vi.fn() });
    expect(screen.getByText("Change the band.", { exact: false })).toBeTruthy();
    expect(screen.getByText(/70 % used instead of 40 %/)).toBeTruthy();
  });
});

describe("the motor's part of a run", () => {
  it("is watts, or amps whole, or nothing", () => {
    const form = blankRun();
    expect(motorOf({ ...form, watts: 900 }, NO_MOTOR)).toEqual({});
    expect(motorOf({ ...form, watts: 900 }, { ...NO_MOTOR, watts: 200 })).toEqual({
      power_W: 900,
      idle_W: 200,
    });
    expect(motorOf({ ...form, amps: 6 }, { ...NO_MOTOR, amps: 3, phases: 3 })).toEqual({
      amps_A: 6,
      idle_A: 3,
      volts_V: 230,
      phases: 3,
    });
    expect(motorOf({ ...form, amps: 6 }, { ...NO_MOTOR, amps: 3, volts: null })).toEqual({});
  });
});
