import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { ListenAnswer, SetupAnswer, TensionAnswer } from "../../api/schema";
import { notice } from "../../lib/notice.svelte";
import { shop } from "../../lib/shop.svelte";
import { BAND, REFERENCE, SAW, SETTINGS, STEP, TENSION } from "../../tests/samples";
import DriftTool from "./tools/DriftTool.svelte";
import Listen from "./tools/Listen.svelte";
import ReadingFields from "./ReadingFields.svelte";
import ShimsTool from "./tools/ShimsTool.svelte";
import StepCard from "./StepCard.svelte";
import StepRail from "./StepRail.svelte";
import TensionTool from "./tools/TensionTool.svelte";
import TickTool from "./tools/TickTool.svelte";
import StepDrawing from "./draw/StepDrawing.svelte";
import { SetupState } from "./setup.svelte";

const GUARD = { ...STEP, key: "guard", title: "Lower the guard", figure: "", readings: [] };
const ISOLATE = { ...STEP, key: "isolate", title: "Isolate", figure: "", readings: [] };
const GUIDES = {
  side_gap_mm: 0.1,
  thrust_gap_mm: 0.3,
  behind_gullet_mm: 4.3,
  guard_gap_mm: 10,
  guard_height_mm: 195,
  roller_press_mm: null,
  flange_gap_mm: 3,
};

const POSITION = {
  place: "centred",
  toothed_edge_mm: 4.5,
  tyre_width_mm: 28,
  tyre_width_known: true,
  words: "centred on the crown",
};

function setupOf(changed: Partial<SetupAnswer> = {}): SetupAnswer {
  const plain = {
    id: 4,
    job_id: 1,
    job_name: "Strakes",
    saw_id: 2,
    saw_name: "Shop saw",
    band_id: 7,
    band_label: "K-07",
    card: {
      tension: TENSION,
      guides: GUIDES,
      speed_m_s: 14.5,
      band_position: POSITION,
      steps: [ISOLATE, STEP, GUARD],
    },
    option: { band: BAND, speed_off_target: 0 },
    steps: {},
    still_good: {},
    compared: [],
    last: null,
    reserved: [],
    authorised: [],
    instruments: {},
    fittings: { fence: "fence", knob: "unknown" },
    explained: {},
    open_stops: [],
    cautions: [],
    acknowledged: [],
    means: [],
  };
  return { ...plain, ...changed } as unknown as SetupAnswer;
}

const STATE = {
  done: true,
  found: {},
  left: { stress_MPa: 130 },
  means: "gauge" as const,
  note: "",
  skipped: "",
  who: "Brill",
  authorised_by: "",
  allowed_by: "",
  allowed_why: "",
  check_again: "",
  asks_defect: "",
  out: [],
  still_good: false,
  at: "2026-11-20T10:00:00Z",
};

function cardOf(setup: SetupAnswer): SetupState {
  const card = new SetupState();
  card.answer = setup;
  return card;
}

/** What was sent with a body, oldest first. */
const bodies = () =>
  Promise.all(
    vi
      .mocked(fetch)
      .mock.calls.map(([request]) => request as Request)
      .filter((request) => request.method !== "GET")
      .map((request) => request.clone().json() as Promise<unknown>),
  );

function server(answer: unknown, status = 200): void {
  const type = status >= 400 ? "application/problem+json" : "application/json";
  vi.spyOn(globalThis, "fetch").mockImplementation((request) => {
    const saws = new URL((request as Request).url).pathname === "/api/saws";
    const init = saws ? {} : { status, headers: { "content-type": type } };
    return Promise.resolve(new Response(JSON.stringify(saws ? [SAW] : answer), init));
  });
}

beforeEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.saws = [SAW];
  shop.units = "metric";
  notice.close();
});

describe("a step of the card", () => {
  it("shows its figure largest, in the shop's units", () => {
    shop.units = "inch";
    const setup = setupOf();
    render(StepCard, { card: cardOf(setup), setup, step: STEP });
    expect(document.querySelector(".value")?.textContent).toBe("19500 psi");
  });

  it("records figures as found and as left, by name, and goes on to the next", async () => {
    const setup = setupOf({ steps: { isolate: STATE } });
    const card = cardOf(setup);
    card.who = "Odda";
    server({ ...setup, steps: { isolate: STATE, tension: STATE } });
    render(StepCard, { card, setup, step: STEP });
    await fireEvent.input(screen.getByLabelText("As found, stress"), { target: { value: "90" } });
    await fireEvent.input(screen.getByLabelText("As left, stress"), { target: { value: "134,5" } });
    await fireEvent.click(screen.getByRole("button", { name: "Done" }));
    await waitFor(() => expect(card.current?.key).toBe("guard"));
    expect(await bodies()).toContainEqual(
      expect.objectContaining({
        key: "tension",
        done: true,
        who: "Odda",
        found: { stress_MPa: 90 },
        left: { stress_MPa: 134.5 },
      }),
    );
  });

  it("is skipped only with a reason, and isolating never", async () => {
    const setup = setupOf();
    const card = cardOf(setup);
    server(setup);
    const { unmount } = render(StepCard, { card, setup, step: STEP });
    await fireEvent.click(screen.getByRole("button", { name: "Skip …" }));
    const skip = screen.getByRole<HTMLButtonElement>("button", { name: "Skip" });
    expect(skip.disabled).toBe(true);
    await fireEvent.input(screen.getByLabelText("Why skip it"), { target: { value: "still on" } });
    await fireEvent.click(skip);
    await waitFor(async () =>
      expect(await bodies()).toContainEqual(
        expect.objectContaining({ skipped: "still on", done: false }),
      ),
    );
    unmount();
    render(StepCard, { card, setup, step: ISOLATE });
    expect(screen.queryByRole("button", { name: "Skip …" })).toBeNull();
  });

  it("offers what is still good, and asks an authorised name where it is reserved", async () => {
    const good = {
      setup_id: 3,
      at: "2026-11-20T09:30:00Z",
      hours_left: 5,
      left: {},
      means: null,
      who: "Senn",
      words: "Done … good for 5 h more.",
    };
    const setup = setupOf({
      still_good: { tension: good },
      reserved: ["band_change"],
      authorised: ["Brill"],
    });
    const card = cardOf(setup);
    server(setup);
    render(StepCard, { card, setup, step: { ...STEP, reserve: "band_change" } });
    await fireEvent.change(screen.getByLabelText("Authorised person"), {
      target: { value: "Brill" },
    });
    await fireEvent.click(screen.getByRole("button", { name: "Leave it as it is" }));
    await waitFor(async () =>
      expect(await bodies()).toContainEqual(
        expect.objectContaining({ still_good: true, authorised_by: "Brill" }),
      ),
    );
  });

  it("shows a refused figure beside its field and keeps what was typed", async () => {
    const setup = setupOf();
    const card = cardOf(setup);
    const errors = [{ path: "left.stress_MPa", message: "9000 is out of range" }];
    server(
      {
        type: "urn:jade-ribbon:problem:input",
        code: "input",
        detail: "left.stress_MPa 9000 is out of range",
        errors,
      },
      422,
    );
    render(StepCard, { card, setup, step: STEP });
    const field = screen.getByLabelText<HTMLInputElement>("As left, stress");
    await fireEvent.input(field, { target: { value: "9000" } });
    await fireEvent.click(screen.getByRole("button", { name: "Done" }));
    expect(await screen.findByText("9000 is out of range")).toBeTruthy();
    expect(card.draft("tension").left.stress_MPa).toBe(9000);
    expect(localStorage.getItem("jade-ribbon.setup.4") ?? "").toContain("9000");
  });
});

describe("the rail", () => {
  it("marks what is done, skipped and still good, and opens any step", async () => {
    const setup = setupOf({
      steps: { isolate: STATE, tension: { ...STATE, still_good: true } },
    });
    const card = cardOf(setup);
    render(StepRail, { card });
    expect(screen.getByRole("button", { name: /Isolate.*done/ })).toBeTruthy();
    expect(screen.getByRole("button", { name: /Tension.*still good/ })).toBeTruthy();
    expect(card.current?.key).toBe("guard");
    await fireEvent.click(screen.getByRole("button", { name: /Isolate/ }));
    expect(card.current?.key).toBe("isolate");
  });
});

describe("readings", () => {
  const left = { tension: { handle_turns: 6 } };
  const last = { setup_id: 3, at: "2026-11-17T10:00:00Z", left, notes: {}, means: null };

  it("say what was left last time, take it over, and how this time differs", async () => {
    const compared = [
      {
        step: "tension",
        reading: "handle_turns",
        label: "turns of the handle",
        kind: "plain" as const,
        last: 6,
        now: 7.5,
        difference: 1.5,
      },
    ];
    const setup = setupOf({ last, compared });
    const card = cardOf(setup);
    render(ReadingFields, { card, setup, step: STEP });
    expect(screen.getByText("last time 6")).toBeTruthy();
    expect(screen.getByText(/turns of the handle: 1.5 more than last time/)).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "As last time" }));
    expect(card.draft("tension").left.handle_turns).toBe(6);
  });

  it("are taken over from last time all at once", async () => {
    const both = { tension: { handle_turns: 6, stress_MPa: 146 } };
    const setup = setupOf({ last: { ...last, left: both } });
    const card = cardOf(setup);
    render(ReadingFields, { card, setup, step: STEP });
    await fireEvent.click(screen.getByRole("button", { name: "All as last time" }));
    expect(card.draft("tension").left).toEqual({ handle_turns: 6, stress_MPa: 146 });
    expect(screen.queryByRole("button", { name: "As last time" })).toBeNull();
  });

  it("go on to the next field at Enter, as a caliper on a cable types it", async () => {
    const setup = setupOf();
    render(ReadingFields, { card: cardOf(setup), setup, step: STEP });
    const first = screen.getByLabelText("As found, stress");
    first.focus();
    await fireEvent.keyDown(first, { key: "Enter" });
    expect(document.activeElement).toBe(screen.getByLabelText("As left, stress"));
  });

  it("read an instrument only where a stand-in is chosen, and say it is simulated", async () => {
    const step = {
      ...STEP,
      readings: [
        { key: "height_mm", kind: "length" as const, label: "height", instrument: "caliper" },
      ],
    };
    const setup = setupOf({ instruments: { caliper: "simulated" } });
    const card = cardOf(setup);
    server({ value: 194.8, unit: "mm", simulated: true, instrument: "simulated caliper" });
    render(ReadingFields, { card, setup, step });
    await fireEvent.click(screen.getByRole("button", { name: "Read caliper simulated" }));
    await waitFor(() => expect(card.draft("tension").found.height_mm).toBe(194.8));
    expect(notice.text).toContain("simulated caliper");
  });
});

const HEARD = {
  frequency_Hz: 61.2,
  confidence: 0.9,
  note: "B1",
  partials_Hz: [61.2],
  spectrum_Hz: [10, 60, 120],
  spectrum: [0.1, 1, 0.4],
  onset_s: 0.3,
  length_s: 2,
};

describe("listening", () => {
  it("sends a chosen recording, shows what it heard and hands the note on", async () => {
    const answer = {
      heard: HEARD,
      wanted_Hz: 61.3,
      wanted_note: "B1",
      reading: { stress_MPa: 134 },
      why_no_stress: "",
    } as unknown as ListenAnswer;
    server(answer);
    const onheard = vi.fn();
    render(Listen, { setup: setupOf(), simulated: false, onheard });
    const file = new File([new Uint8Array(10)], "pluck.wav", { type: "audio/wav" });
    await fireEvent.change(screen.getByLabelText("A recording (WAV)"), {
      target: { files: [file] },
    });
    await screen.findByText("61.2 Hz");
    expect(onheard).toHaveBeenCalledWith(61.2);
    const [request] = vi.mocked(fetch).mock.calls[0] ?? [];
    expect((request as Request).headers.get("content-type")).toBe("audio/wav");
    expect(screen.getByRole("img", { name: /heard 61.2 Hz/ })).toBeTruthy();
  });

  it("says what to do when there was no pluck, or no microphone", async () => {
    server(
      {
        type: "urn:jade-ribbon:problem:input",
        code: "input",
        detail: "recording has no pluck in it: …",
        errors: [],
      },
      422,
    );
    render(Listen, { setup: setupOf(), simulated: true, onheard: vi.fn() });
    await fireEvent.click(screen.getByRole("button", { name: "Simulated pluck" }));
    expect((await screen.findByRole("alert")).textContent).toContain("no pluck in it");
    await fireEvent.click(screen.getByRole("button", { name: "Listen" }));
    await waitFor(() => expect(screen.getByRole("alert").textContent).not.toContain("no pluck"));
  });
});

describe("measuring tension", () => {
  const answer = {
    reading: {
      means: "gauge" as const,
      stress_MPa: 133.9,
      uncertainty_MPa: 5.8,
      wheel_force_N: 3190,
      frame_share: 0.997,
      warnings: ["push less far"],
    },
    least_MPa: 124.4,
    most_MPa: 143.4,
    agreement: "",
    verdict: "on_target" as const,
    target_MPa: 134.5,
    low_MPa: 110,
    high_MPa: 200,
    words: "On target: 0.60 MPa more would be the middle.",
    plucks: null,
  } as unknown as TensionAnswer;

  it("turns a reading into stress with its uncertainty, and keeps it as left", async () => {
    const setup = setupOf();
    const card = cardOf(setup);
    server(answer);
    render(TensionTool, { card, setup });
    const field = screen.getByLabelText("Stretch on the gauge");
    await fireEvent.input(field, { target: { value: "65" } });
    await fireEvent.click(screen.getByRole("button", { name: "What stress is it?" }));
    expect(await screen.findByText("124 to 143 MPa, nine times in ten")).toBeTruthy();
    expect(screen.getByText("push less far")).toBeTruthy();
    expect(card.draft("tension")).toMatchObject({
      means: "gauge" as const,
      left: { stress_MPa: 133.9 },
    });
  });

  it("keeps plucks on the card and forgets them when told", async () => {
    const setup = setupOf();
    server({ ...answer, plucks: { median_Hz: 61, spread_share: 0.01, count: 1 } });
    render(TensionTool, { card: cardOf(setup), setup });
    await fireEvent.click(screen.getByRole("button", { name: "note" }));
    await fireEvent.input(screen.getByLabelText("Note, Hz"), { target: { value: "61" } });
    await fireEvent.click(screen.getByRole("button", { name: "What stress is it?" }));
    expect(await screen.findByText("61 Hz")).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "Forget them" }));
    expect(screen.queryByText("61 Hz")).toBeNull();
  });
});

describe("the small tools", () => {
  it("count slips for both gaps", async () => {
    server({ layers: 3, each_mm: 0.1, makes_mm: 0.3, off_mm: 0, words: "3 of these, 0.30 mm." });
    render(ShimsTool, { guides: GUIDES });
    await fireEvent.click(screen.getByRole("button", { name: "How many make the gap?" }));
    expect(await screen.findAllByText("3 of these, 0.30 mm.")).toHaveLength(2);
    expect(await bodies()).toContainEqual({ gap_mm: 0.1, stack_mm: 1 });
  });

  it("name a tick by its count", async () => {
    server({ rate_Hz: 4.3, key: "weld", words: "4.3 a second is the weld.", turners: [] });
    render(TickTool, { setup: setupOf() });
    await fireEvent.input(screen.getByLabelText("Ticks heard"), { target: { value: "43" } });
    await fireEvent.click(screen.getByRole("button", { name: "What ticks?" }));
    expect(await screen.findByText("4.3 a second is the weld.")).toBeTruthy();
  });

  it("stop at a drift over two degrees", async () => {
    const verdict = {
      angle_deg: 2.9,
      fence_shift_mm: null,
      uncertainty_deg: 0.1,
      stop: true,
      words: "2.9° is over 2°: stop and look for the cause.",
      trend_deg: null,
      trend_words: "",
    };
    server({ verdict, earlier: [], kept_id: null, change_id: null });
    const setup = setupOf();
    const card = cardOf(setup);
    card.setFigure("drift", "left", "offset_mm", 15);
    render(DriftTool, { card, setup });
    await fireEvent.click(screen.getByRole("button", { name: "What does it say?" }));
    const words = await screen.findByText(/stop and look for the cause/);
    expect(words.closest("[data-stop]")?.getAttribute("data-stop")).toBe("true");
  });
});

describe("the drawing of a step", () => {
  it.each([
    "isolate",
    "inspect",
    "guides_back",
    "mount",
    "rough_track",
    "tension",
    "fine_track",
    "guides_upper",
    "guides_lower",
    "guard",
    "table",
    "table_pin",
    "speed",
    "start",
    "drift",
    "trial",
  ])("stands beside %s, to numbers that are numbers", (step) => {
    render(StepDrawing, { setup: setupOf(), step });
    const drawing = screen.getByRole("img");
    expect(drawing.getAttribute("aria-label")).not.toBe("");
    expect(drawing.innerHTML).not.toMatch(/NaN|undefined/);
  });

  it.each([
    ["guides_back", "movable arm: apart"],
    ["guard", "clear of the work"],
    ["table", "the same at both ends,"],
  ])("%s on a saw lying down shows its arms and bed", (step, words) => {
    shop.saws = [{ ...SAW, saw: { ...SAW.saw, orientation: "horizontal" } }] as typeof shop.saws;
    render(StepDrawing, { setup: setupOf({ saw_id: SAW.id }), step });
    const said = [...screen.getByRole("img").querySelectorAll("text")].map((t) => t.textContent);
    expect(said).toContain(words);
    expect(screen.getByRole("img").innerHTML).not.toMatch(/NaN|undefined/);
  });
});

describe("a reading out of its limits", () => {
  const OUT = { ...STATE, out: ["Stress: 56 MPa left, 70 to 130 MPa wanted"] };

  it("keeps the step open, marks the rail, and asks for a name and a reason", async () => {
    const setup = setupOf({ steps: { tension: OUT } });
    const card = cardOf(setup);
    expect(card.settled("tension")).toBe(false);
    render(StepRail, { card });
    expect(screen.getByText(/out of its limits/)).toBeTruthy();
    const step = setup.card.steps.find((s) => s.key === "tension");
    if (!step) throw new Error("no tension step in the sample");
    server(setup);
    render(StepCard, { card, setup, step });
    expect(screen.getByRole("alert").textContent).toContain("56 MPa left");
    const allow = screen.getByRole("button", { name: "Let it stay" });
    expect(allow.hasAttribute("disabled")).toBe(true);
    await fireEvent.change(screen.getByLabelText("Who lets it stay"), {
      target: { value: "Odda" },
    });
    await fireEvent.input(screen.getByLabelText("Why"), { target: { value: "once" } });
    await fireEvent.click(allow);
    await waitFor(async () =>
      expect(await bodies()).toContainEqual(
        expect.objectContaining({ key: "tension", allowed_by: "Odda", allowed_why: "once" }),
      ),
    );
  });

  it("is settled once somebody answers for it", () => {
    const allowed = { ...OUT, allowed_by: "Odda", allowed_why: "once" };
    expect(cardOf(setupOf({ steps: { tension: allowed } })).settled("tension")).toBe(true);
  });
});
