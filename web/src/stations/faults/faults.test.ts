import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { CauseNow, CheckNow as Check, TroubleAnswer } from "../../api/schema";
import Beforehand from "../../parts/Beforehand.svelte";
import { shop } from "../../lib/shop.svelte";
import { REFERENCE, SAW, SETTINGS } from "../../tests/samples";
import { server } from "../../tests/server";
import Bars from "./Bars.svelte";
import CheckNow from "./CheckNow.svelte";
import { placeOf } from "./known.svelte";
import Records from "./Records.svelte";
import Remedy from "./Remedy.svelte";
import Stops from "./Stops.svelte";

const CAUSE: CauseNow = {
  key: "weld_proud",
  name: "Weld proud or stepped",
  where: "band",
  harm: "stop",
  chance: 0.42,
  before: 0.2,
  words: "may well be",
  remedy: "Dress the weld flush.",
  remedy_minutes: 15,
  opens: "rack.weld",
  found_here: 2,
  spoke_for: [{ kind: "sign", key: "tick", words: "Tick each turn, clear", times: 30.6 }],
  against: [{ kind: "record", key: "runs", words: "23 runs since it was welded", times: 0.5 }],
};
const CHECK: Check = {
  key: "feed_time",
  do: "Time the feed over a marked length.",
  minutes: 3,
  needs: "rule",
  isolate: false,
  runs: true,
  opens: "plan.feed",
  outcomes: [
    { key: "inside", words: "inside the window", chance: 0.6 },
    { key: "over", words: "over the ceiling", chance: 0.4 },
  ],
  figures: [
    { key: "length_mm", label: "Marked length", kind: "length", low: 20, high: 20000 },
    { key: "time_s", label: "Seconds", kind: "plain", low: 0.2, high: 36000 },
  ],
  looked_up: false,
  why: ["It tells most for its minutes."],
  asked_of: "Burn marks",
  cautions: ["Push stick within reach before starting."],
};
const TROUBLE: TroubleAnswer = {
  id: 7,
  saw_id: 1,
  saw: "Shop saw",
  band_id: 1,
  band: "K-07",
  job_id: 3,
  job: "Strakes",
  began: "run",
  opened_at: "2026-05-01T09:00:00+00:00",
  state: "open",
  symptoms: [{ key: "tick", name: "Tick each turn", degree: "clear" }],
  stops: [],
  acknowledged: {},
  causes: [CAUSE],
  others: Array.from({ length: 20 }, (_, i) => ({
    key: `c${i}`,
    name: `Cause ${i}`,
    chance: 0.004,
    words: "hardly",
  })),
  none_listed: 0.004,
  acting: {
    cause: "weld_proud",
    chance: 0.42,
    remedy: "Dress the weld flush.",
    minutes: 15,
    opens: "rack.weld",
    wrong_costs_min: 8.7,
    act: true,
    words: "Good enough to act",
  },
  clears: ["Tick each turn"],
  check: CHECK,
  other_checks: [
    {
      key: "swap_band",
      do: "Fit a known good band.",
      minutes: 12,
      why_not: "needs the gloves",
      may: false,
    },
    { key: "pluck", do: "Pluck the free span.", minutes: 3, why_not: "skipped", may: true },
  ],
  withheld: false,
  readings: [
    {
      reads: "dullness",
      words: "The rack card puts the dullness at 0.6",
      source: "rack, K-07",
      at: "",
      aside: false,
      cause: "Dull edge",
      times: 2.4,
      moves: true,
    },
    {
      reads: "fouling",
      words: "The rack card puts the fouling at 0.1",
      source: "rack, K-07",
      at: "",
      aside: true,
      cause: "Gummed edge",
      times: 0.4,
      moves: true,
    },
  ],
  path: [],
  remedy: "",
  remedied_at: null,
  ran_since: false,
  found: [],
  closed_at: null,
  minutes: 4,
  money: 2.67,
  note: "",
  who: "Odda",
  version: 1,
  change_id: null,
};

beforeEach(() => {
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.saws = [SAW];
  shop.units = "metric";
  localStorage.clear();
});

describe("a chance", () => {
  it("is whole per cent, and never certain or nothing", () => {
    expect([
      shop.chance(0.424),
      shop.chance(0.004),
      shop.chance(0.996),
      shop.chance(0),
      shop.chance(1),
    ]).toEqual(["42 %", "under 1 %", "over 99 %", "under 1 %", "over 99 %"]);
  });
});

describe("a place", () => {
  it("is where the remedy is done, or nowhere of ours", () => {
    const ids = { saw: 4, band: 9, job: 2 };
    expect(placeOf("rack.sharpen", ids)?.href).toBe("#/rack/9");
    expect(placeOf("plan.feed", { ...ids, job: null })?.href).toBe("#/plan");
    expect(placeOf("saw.tyre", ids)?.href).toBe("#/shop/saws/4/upkeep");
    expect(placeOf("electrician", ids)?.name).toBe("a licensed electrician");
    expect(placeOf("", ids)).toBeNull();
  });
});

describe("bars", () => {
  it("show the chance, where it was, and what spoke", () => {
    render(Bars, { causes: [CAUSE], none: 0.004 });
    expect(screen.getByText("42 %")).toBeTruthy();
    expect(screen.getByText(", was 20 %")).toBeTruthy();
    expect(screen.getByText("×31")).toBeTruthy();
    expect(screen.getByText("÷2.0")).toBeTruthy();
    expect(screen.getByText(/Found here 2 times/)).toBeTruthy();
    expect(screen.getByText(/None of the listed: under 1 %/)).toBeTruthy();
  });
});

describe("the check now", () => {
  it("says what it needs and how the saw stands, and takes an answer", async () => {
    const onanswer = vi.fn();
    render(CheckNow, { trouble: TROUBLE, check: CHECK, busy: false, onanswer });
    expect(screen.getByText("the saw runs: doors shut, guard down")).toBeTruthy();
    expect(screen.getByText("Push stick within reach before starting.")).toBeTruthy();
    expect(screen.getByText(/Answer it for “Burn marks” alone/)).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "over the ceiling" }));
    await fireEvent.click(screen.getByRole("button", { name: "Could not tell" }));
    await fireEvent.click(screen.getByRole("button", { name: "Skip this one" }));
    expect(onanswer.mock.calls).toEqual([["over"], ["could_not_tell"], ["skip"]]);
  });

  it("marks the answer that was measured, and forgets it when a figure changes", async () => {
    const { sent } = server({
      "POST /api/faults/7/measure": { outcome: "over", words: "Over the window." },
    });
    render(CheckNow, { trouble: TROUBLE, check: CHECK, busy: false, onanswer: vi.fn() });
    await fireEvent.input(screen.getByLabelText("Marked length"), { target: { value: "500" } });
    await fireEvent.input(screen.getByLabelText("Seconds"), { target: { value: "9" } });
    await fireEvent.click(screen.getByRole("button", { name: "Which is it?" }));
    await waitFor(() => expect(screen.getByText("as measured")).toBeTruthy());
    expect(await sent("POST")).toEqual([
      { check: "feed_time", figures: { length_mm: 500, time_s: 9 } },
    ]);
    await fireEvent.input(screen.getByLabelText("Seconds"), { target: { value: "12" } });
    expect(screen.queryByText("as measured")).toBeNull();
  });

  it("is not asked while a figure cannot be read: the one before must not stand for it", async () => {
    server({ "POST /api/faults/7/measure": { outcome: "over", words: "Over the window." } });
    render(CheckNow, { trouble: TROUBLE, check: CHECK, busy: false, onanswer: vi.fn() });
    const length = screen.getByLabelText("Marked length");
    await fireEvent.input(length, { target: { value: "500" } });
    await fireEvent.input(screen.getByLabelText("Seconds"), { target: { value: "9" } });
    const which = screen.getByRole<HTMLButtonElement>("button", { name: "Which is it?" });
    await waitFor(() => expect(which.disabled).toBe(false));
    await fireEvent.click(which);
    await waitFor(() => expect(screen.getByText("as measured")).toBeTruthy());
    await fireEvent.input(length, { target: { value: "5 oo" } });
    await waitFor(() => expect(which.disabled).toBe(true));
    expect(screen.queryByText("as measured")).toBeNull();
  });

  it("fills seconds from its stopwatch", async () => {
    const clock = vi.spyOn(performance, "now").mockReturnValue(1000);
    render(CheckNow, { trouble: TROUBLE, check: CHECK, busy: false, onanswer: vi.fn() });
    await fireEvent.click(screen.getByRole("button", { name: "Start the stopwatch" }));
    clock.mockReturnValue(8400);
    await fireEvent.click(screen.getByRole("button", { name: "Stop the stopwatch" }));
    expect(screen.getByLabelText<HTMLInputElement>("Seconds").value).toBe("7.4");
    clock.mockRestore();
  });
});

describe("what the records say", () => {
  it("is set aside and counted again", async () => {
    const onaside = vi.fn();
    const onask = vi.fn();
    render(Records, { trouble: TROUBLE, onaside, onask });
    await fireEvent.click(screen.getByRole("button", { name: "Not so" }));
    await fireEvent.click(screen.getByRole("button", { name: "Count it" }));
    expect(onaside.mock.calls).toEqual([[["fouling", "dullness"]], [[]]]);
    expect(screen.getByText(/needs the gloves/)).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "Do this one" }));
    expect(onask).toHaveBeenCalledWith("pluck");
    expect(screen.getByText(/and 8 more/)).toBeTruthy();
  });
});

describe("a stop", () => {
  it("wants a name before it is acknowledged", async () => {
    const stop = { key: "sparks", title: "Sparks fly", do: "Stop and isolate." };
    const { sent } = server({ "POST /api/faults/7/stop": TROUBLE });
    const ondone = vi.fn();
    shop.settings = { ...SETTINGS, people: [] };
    render(Stops, { trouble: { ...TROUBLE, stops: [stop] }, ondone });
    const stands = screen.getByRole<HTMLButtonElement>("button", { name: "It stands, isolated" });
    expect(stands.disabled).toBe(true);
    await fireEvent.input(screen.getByLabelText("Who stopped and isolated it"), {
      target: { value: "Odda" },
    });
    await fireEvent.click(stands);
    await waitFor(() => expect(ondone).toHaveBeenCalled());
    expect(await sent("POST")).toEqual([{ stop: "sparks", who: "Odda" }]);
  });
});

describe("a remedy", () => {
  it("is done for the likeliest cause, and says what should go with it", async () => {
    const { sent } = server({ "POST /api/faults/7/remedy": { ...TROUBLE, state: "watching" } });
    const ondone = vi.fn();
    render(Remedy, { trouble: TROUBLE, ondone });
    expect(screen.getByText("Should go with it: tick each turn.")).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "Done" }));
    await waitFor(() => expect(ondone).toHaveBeenCalled());
    expect(await sent("POST")).toMatchObject([{ cause: "weld_proud", minutes: null }]);
  });

  it("went: it is closed with what was mended; by itself, with nothing", async () => {
    const { sent } = server({ "POST /api/faults/7/close": { ...TROUBLE, state: "closed" } });
    const watching = { ...TROUBLE, state: "watching", remedy: "weld_proud" };
    const { unmount } = render(Remedy, { trouble: watching, ondone: vi.fn() });
    await fireEvent.click(screen.getByRole("button", { name: "It went" }));
    await fireEvent.click(screen.getByRole("button", { name: "Close it" }));
    await waitFor(async () => expect(await sent("POST")).toHaveLength(1));
    expect(await sent("POST")).toMatchObject([{ causes: ["weld_proud"], gone: true }]);
    unmount();
    render(Remedy, { trouble: TROUBLE, ends: true, ondone: vi.fn() });
    expect(screen.getByRole("button", { name: "Close it: it went by itself" })).toBeTruthy();
  });
});

describe("before a job", () => {
  it("a line of the book stands, and a remedy is asked about", async () => {
    const { sent } = server({
      "GET /api/faults/before": {
        line: "Gone wrong on this saw with resaw, in two years: dull edge twice.",
        open: [],
        asks: [
          {
            id: 7,
            sign: "drifts one way",
            cause: "fence_off_drift",
            remedy: "fence not set",
            ran: true,
          },
        ],
      },
      "POST /api/faults/7/close": { ...TROUBLE, change_id: null },
    });
    render(Beforehand, { job_id: 3, asks: true });
    await waitFor(() => expect(screen.getByText(/dull edge twice/)).toBeTruthy());
    await fireEvent.click(screen.getByRole("button", { name: "It went" }));
    await waitFor(async () => expect(await sent("POST")).toHaveLength(1));
    expect(await sent("POST")).toEqual([{ causes: ["fence_off_drift"] }]);
  });
});
