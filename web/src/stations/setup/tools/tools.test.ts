import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { AlignmentAnswer, SetupAnswer } from "../../../api/schema";
import { notice } from "../../../lib/notice.svelte";
import { shop } from "../../../lib/shop.svelte";
import { currentJob } from "../../../lib/currentJob.svelte";
import { BAND, REFERENCE, SAW, SETTINGS } from "../../../tests/samples";
import BandSetUps from "../../rack/band/BandSetUps.svelte";
import FittingsForm from "../../shop/saw/FittingsForm.svelte";
import ScalePage from "../../shop/saw/ScalePage.svelte";
import SettingUpForm from "../../shop/settings/SettingUpForm.svelte";
import Stand from "../../shop/saw/Stand.svelte";
import AlignmentCoach from "./AlignmentCoach.svelte";
import SpeedTool from "./SpeedTool.svelte";
import TrackTool from "./TrackTool.svelte";
import TyreTool from "./TyreTool.svelte";
import VibrationTool from "./VibrationTool.svelte";
import { SetupState } from "../setup.svelte";

const SETUP = {
  id: 4,
  saw_id: 2,
  card: { speed_m_s: 14.5 },
  option: { band: BAND, speed_off_target: 0 },
  fittings: { fence: "fence", knob: "unknown" },
  steps: {},
} as unknown as SetupAnswer;

/** Answers by "METHOD path"; saws and truings are lists unless said otherwise. */
function server(answers: Record<string, unknown>): void {
  const usual = {
    "GET /api/saws": [SAW],
    "GET /api/saws/2/alignments": [],
    "GET /api/saws/2/scale": { points: [], fit: null, why_not: "no point yet", marks: [] },
  };
  const all: Record<string, unknown> = { ...usual, ...answers };
  vi.spyOn(globalThis, "fetch").mockImplementation((input) => {
    const request = input as Request;
    const body = all[`${request.method} ${new URL(request.url).pathname}`] ?? {};
    return Promise.resolve(answerOf(body));
  });
}

function answerOf(body: unknown): Response {
  const headers = { "content-type": "application/json" };
  return new Response(JSON.stringify(body), { headers });
}

/** The next request is answered so. */
function once(body: unknown): void {
  vi.mocked(fetch).mockImplementationOnce(() => Promise.resolve(answerOf(body)));
}

function refuse(detail: string, path = "x"): void {
  const body = JSON.stringify({
    type: "urn:jade-ribbon:problem:input",
    code: "input",
    detail,
    errors: [{ path, message: detail }],
  });
  const headers = { "content-type": "application/problem+json" };
  vi.mocked(fetch).mockImplementationOnce(() =>
    Promise.resolve(new Response(body, { status: 422, headers })),
  );
}

async function sent(method: string): Promise<unknown[]> {
  const requests = vi.mocked(fetch).mock.calls.map(([request]) => request as Request);
  return Promise.all(
    requests.filter((r) => r.method === method).map((r) => r.clone().json() as Promise<unknown>),
  );
}

const type = (label: string, value: string) =>
  fireEvent.input(screen.getByLabelText(label), { target: { value } });
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

beforeEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.saws = [SAW];
  shop.units = "metric";
  currentJob.startNew(2);
  notice.close();
});

describe("tracking", () => {
  it("asks for where it stands and what it crept, says which way, and keeps both", async () => {
    server({ "POST /api/setups/4/track": { words: "It creeps: bring it back." } });
    const card = new SetupState();
    card.answer = SETUP;
    render(TrackTool, { card, setup: SETUP, step: "fine_track" });
    await type("Stands off its place", "2");
    await type("Crept", "-1,5");
    await press("Which way?");
    expect(await screen.findByText("It creeps: bring it back.")).toBeTruthy();
    expect(await sent("POST")).toContainEqual({ position_mm: 2, creep_mm: -1.5, turns: 10 });
    expect(card.draft("fine_track").left).toMatchObject({ position_mm: 2, creep_mm: -1.5 });
    expect(screen.getByText(/is not recorded/)).toBeTruthy();
  });

  it("knows a tyre by its light, and shows a refusal in words", async () => {
    server({ "POST /api/saws/2/tyre": { words: "Crowned, 0.40 mm: it holds a band." } });
    render(TyreTool, { saw_id: 2 });
    await type("Light at the front", "0.4");
    await type("Light at the back", "0.4");
    await press("What tyre is it?");
    expect(await screen.findByText(/Crowned, 0.40 mm/)).toBeTruthy();
    refuse("front_gap_mm 40 is out of range");
    await press("What tyre is it?");
    expect((await screen.findByRole("alert")).textContent).toContain("out of range");
  });
});

const BEGUN = {
  id: 9,
  axis: "tilt",
  wheel: "upper",
  read: "Straightedge upright",
  bolt: "Upper shaft, bolt at 6 o'clock",
  oclock: 6,
  turn_words: "3/4 turn clockwise",
  start_mm: 1.9,
  moves: [],
  acts: true,
  acts_words: "1.9 mm is over the 1 mm this saw stands.",
  advice: {
    state: "turn",
    turns: 0.75,
    words: "3/4 turn clockwise.",
    gap_mm: 1.9,
    gap_spread_mm: 0.08,
  },
  known_words: "Not known yet.",
  second_band: "One band has shown it so far.",
  band_label: "K-07",
  who: "Brill",
  at: "2026-11-20T10:00:00Z",
  finished_at: null,
} as unknown as AlignmentAnswer;

const coach = (truings: unknown[], wheels = ["upper", "lower"]) => ({
  wheels,
  axes: [
    { key: "tilt", name: "leans: gap at top or bottom" },
    { key: "toe", name: "toes in or out: gap at one side" },
    { key: "offset", name: "stands in front or behind" },
  ],
  how: ["Each turn is at most one, or ", { value: 2, kind: "length" }, " of the wheel."],
  truings,
});

describe("the alignment coach", () => {
  it("begins from a gap, tells bolt and turn, and takes the reading after it", async () => {
    const moved = { ...BEGUN, moves: [{ turns: 0.75, gap_mm: 0.6 }] };
    server({ "GET /api/saws/2/alignments": coach([moved]), "POST /api/alignments/9/moves": moved });
    once(coach([]));
    render(AlignmentCoach, { saw_id: 2, who: "Brill" });
    await type("Gap under the straightedge", "1.9");
    once(BEGUN);
    once(coach([BEGUN]));
    await press("Next turn?");
    expect(await screen.findByText("3/4 turn clockwise.")).toBeTruthy();
    expect(screen.getByText(/bolt at 6 o'clock/)).toBeTruthy();
    expect(await sent("POST")).toContainEqual(
      expect.objectContaining({ axis: "tilt", wheel: "upper", gap_mm: 1.9, who: "Brill" }),
    );
    await type("Gap read after it", "0.6");
    await press("Turned and read");
    await waitFor(async () =>
      expect(await sent("POST")).toContainEqual({ turns: 0.75, gap_mm: 0.6 }),
    );
  });

  it("draws the gap and the bolt on the clock with the way to turn it", async () => {
    server({ "GET /api/saws/2/alignments": coach([BEGUN]) });
    render(AlignmentCoach, { saw_id: 2, who: "Brill" });
    const drawing = await screen.findByRole("img", { name: /upper wheel, gap 1.9/ });
    expect(drawing.getAttribute("aria-label")).toContain("3/4 turn clockwise");
    expect(drawing.querySelector(".bolt")?.parentElement?.getAttribute("transform")).toMatch(
      /^translate\(0?-?[\d.e-]+ 37/,
    );
    expect(drawing.innerHTML).not.toMatch(/NaN|undefined/);
  });

  it("keeps its last words until another gap is read", async () => {
    const advice = { ...BEGUN.advice, state: "done", turns: 0, words: "Within tolerance: lock it" };
    const done = { ...BEGUN, advice, turn_words: "", finished_at: "2026-11-20T10:20:00Z" };
    server({ "GET /api/saws/2/alignments": coach([done]), "POST /api/alignments/9/moves": done });
    once(coach([BEGUN]));
    render(AlignmentCoach, { saw_id: 2, who: "Brill" });
    await type(
      "Gap read after it",
      await screen.findByText("3/4 turn clockwise.").then(() => "0.1"),
    );
    await press("Turned and read");
    expect(await screen.findByText("Within tolerance: lock it")).toBeTruthy();
    expect(screen.queryByLabelText("Gap read after it")).toBeNull();
    await press("Read another gap");
    expect(screen.getByLabelText("Gap under the straightedge")).toBeTruthy();
  });

  it.each([
    ["a mill", ["left", "right"]],
    ["three wheels", ["upper", "lower", "third"]],
  ])("%s: asks which of its own wheels", async (_, wheels) => {
    server({ "GET /api/saws/2/alignments": coach([], wheels) });
    render(AlignmentCoach, { saw_id: SAW.id, who: "" });
    expect(await screen.findByText(/at most one, or 2 mm of the wheel/)).toBeTruthy();
    const which = screen.getByRole("group", { name: "Which" });
    expect([...which.querySelectorAll("label")].map((l) => l.textContent.trim())).toEqual(wheels);
  });
});

describe("speed", () => {
  const SETTINGS_OF = {
    target_m_s: 14.5,
    settings: [
      { name: "slowest", speed_m_s: 7, off_share: -0.52, chosen: false },
      { name: "fastest", speed_m_s: 14.5, off_share: 0, chosen: true },
    ],
    pulleys: { needed: true, words: "A motor pulley of 90 mm in place of 80" },
    why_no_pulleys: "",
  };

  it("lists the settings, measures by counted turns, and corrects the record when told", async () => {
    const measured = {
      speed_m_s: 13.82,
      uncertainty_m_s: 0.3,
      words: "13.8 m/s, −4.7 % against the record: correct it.",
      change_id: null,
    };
    server({
      "GET /api/saws/2/speeds": SETTINGS_OF,
      "POST /api/saws/2/speeds": measured,
    });
    const card = new SetupState();
    card.answer = SETUP;
    render(SpeedTool, { card, setup: SETUP });
    expect(await screen.findByText("set this")).toBeTruthy();
    expect(screen.getByText(/motor pulley of 90 mm/)).toBeTruthy();
    await type("Wheel turns counted", "220");
    await press("What speed is it?");
    expect(await screen.findByText(measured.words)).toBeTruthy();
    expect(card.draft("speed").left.speed_m_s).toBe(13.82);
    await press("Correct the saw’s record");
    await waitFor(async () =>
      expect(await sent("POST")).toContainEqual({
        nominal_m_s: 14.5,
        turns: 220,
        seconds: 20,
        keep: true,
      }),
    );
  });
});

describe("what shakes", () => {
  it("is told with what would clear it", async () => {
    const meeting = {
      source: { key: "wheel", name: "4 × wheel turns", hertz: 46 },
      note: { key: "free", name: "the free span", hertz: 47 },
      apart_share: -0.02,
    };
    server({
      "GET /api/setups/4/vibration": {
        speed_m_s: 14.5,
        guide_span_mm: 255,
        verdict: "4 × wheel turns at 46 Hz meets the free span at 47 Hz.",
        remedies: ["3 % slower, 14.1 m/s, clears it"],
        card: {
          wheel_Hz: 11.5,
          band_Hz: 4.3,
          tooth_Hz: null,
          free_still_Hz: 61,
          free_running_Hz: 60,
          guide_bending_Hz: [200],
          guide_twisting_Hz: [300],
          meetings: [meeting],
        },
      },
    });
    render(VibrationTool, { setup: SETUP });
    expect(await screen.findByText(/meets the free span at 47 Hz/)).toBeTruthy();
    expect(screen.getByText(/3 % slower/)).toBeTruthy();
    expect(screen.getByText("–")).toBeTruthy();
  });
});

describe("the saw as it stands", () => {
  const WAY = {
    band_label: "K-07",
    able: true,
    words: "within every limit",
    minutes: 40,
    change_minutes: 0,
    money: 31.5,
    finish: "plane",
    edge_after: 0.3,
  };
  const STAND = {
    saw: SAW,
    speed_set_m_s: 14.5,
    last: null,
    setups: [],
    guides: [
      {
        key: "guides_upper",
        name: "upper guides",
        set_at: "2026-11-17T10:00:00Z",
        who: "Senn",
        hours_since: 4.5,
        notes: [{ at: "2026-11-17T10:00:00Z", who: "Senn", text: "blocks dressed" }],
      },
      {
        key: "guides_lower",
        name: "lower guides",
        set_at: null,
        who: "",
        hours_since: null,
        notes: [],
      },
    ],
    defects: [{ id: 5, text: "Door catch", stops: true, at: "2026-11-20T10:00:00Z", who: "Senn" }],
    verdict: {
      state: "not_ready",
      words: "A defect stops it: Door catch",
      against: ["A defect stops it: Door catch", "Its wheels were out of plane: true them."],
      not_looked_at: ["table pin in"],
    },
    fittings: { fence: "fence", knob: "unknown", printed_marks: [], good_for_h: {} },
    next_job: {
      job_id: 1,
      job_name: "Strakes",
      as_it_is: WAY,
      changed: { ...WAY, band_label: "K-11", change_minutes: 12, money: 29 },
      words: "Change: K-11 saves € 2.50 over the job.",
    },
  };

  it("says why it is not ready, what the next job gains by a change, and closes a defect", async () => {
    server({
      "GET /api/saws/2/stand": STAND,
      "GET /api/upkeep": [],
      "POST /api/defects/5/close": { change_id: 8 },
      "POST /api/saws/2/defects": {},
    });
    render(Stand, { params: { id: "2" } });
    expect(await screen.findByText("A defect stops it: Door catch")).toBeTruthy();
    expect(screen.getByText(/K-11 saves € 2.50/)).toBeTruthy();
    expect(screen.getByText(/by Senn; 4 h 30 min sawn since/)).toBeTruthy();
    expect(screen.getByText(/blocks dressed, Senn/)).toBeTruthy();
    expect(screen.getByText("no card has set them yet")).toBeTruthy();
    expect(screen.getByRole("row", { name: /changed, K-11/ })).toBeTruthy();
    await type("What is wrong", "Belt frays");
    await press("Note it");
    await waitFor(async () =>
      expect(await sent("POST")).toContainEqual({ text: "Belt frays", stops: false, who: "" }),
    );
    await press("Closed");
    await waitFor(() => expect(notice.undoable).toBe(true));
  });

  it("says so when there is no such saw", async () => {
    server({});
    refuse("There is no saw 7.");
    render(Stand, { params: { id: "7" } });
    expect(await screen.findByRole("heading", { name: "There is no saw 7." })).toBeTruthy();
  });

  it("keeps what is known of its fittings, lines read as pairs", async () => {
    server({ "PATCH /api/saws/2/fittings": { change_id: 3 } });
    const onsaved = vi.fn();
    const fittings = {
      fence: "fence",
      knob: "unknown",
      printed_marks: [],
      good_for_h: {},
    } as never;
    render(FittingsForm, { saw_id: 2, version: 4, fittings, onsaved });
    await type("Tyre width", "28");
    await fireEvent.input(screen.getByLabelText(/Marks printed/), {
      target: { value: "13: 2\n19: 3,5" },
    });
    await fireEvent.input(screen.getByLabelText(/stays good/), {
      target: { value: "tension: 8" },
    });
    await press("Save");
    await waitFor(() => expect(onsaved).toHaveBeenCalled());
    expect(await sent("PATCH")).toContainEqual(
      expect.objectContaining({
        version: 4,
        tyre_width_mm: 28,
        printed_marks: [
          { width_mm: 13, reading: 2 },
          { width_mm: 19, reading: 3.5 },
        ],
        good_for_h: { tension: 8 },
      }),
    );
  });

  it("shows its scale's points and line, and what its printed marks really give", async () => {
    const point = {
      id: 1,
      at: "",
      band_label: "K-07",
      width_mm: 19,
      reading: 4,
      stress_MPa: 66,
      force_N: 1570,
      residual_N: -12,
      means: "gauge",
      who: "",
    };
    const fit = { offset_N: 0, slope_N: 390, lowest: 4, highest: 9, spread_N: 40, count: 3 };
    const marks = [{ width_mm: 19, reading: 3, stress_MPa: 80, target_MPa: 100 }];
    const scale = { points: [point], fit, why_not: "", marks, change_id: null };
    server({ "GET /api/saws/2/scale": scale, "POST /api/saws/2/scale": scale });
    render(ScalePage, { saw_id: 2 });
    expect(await screen.findByText(/20 %\s+slack/)).toBeTruthy();
    expect(screen.getByText(/−12.0 N off the line/)).toBeTruthy();
    await type("The scale reads", "6");
    await type("Measured stress", "99");
    await press("Keep the point");
    await waitFor(async () =>
      expect(await sent("POST")).toContainEqual({
        reading: 6,
        stress_MPa: 99,
        travel_mm: null,
        note_Hz: null,
        means: "gauge",
      }),
    );
  });
});

describe("what a shop decides about setting up", () => {
  const KEPT = {
    reserved: ["wiring"],
    authorised: ["Brill"],
    instruments: { caliper: "by_hand" },
    holding: [],
    change_id: null,
  };

  it("reserves steps, names people and chooses instruments", async () => {
    server({ "GET /api/setting-up": KEPT, "PATCH /api/setting-up": KEPT });
    render(SettingUpForm);
    await fireEvent.click(await screen.findByLabelText("changing a band"));
    await fireEvent.change(screen.getByLabelText("caliper"), { target: { value: "simulated" } });
    await fireEvent.change(screen.getByLabelText("Authorised people, one a line"), {
      target: { value: "Brill\n\n Senn " },
    });
    await waitFor(async () => {
      const bodies = await sent("PATCH");
      expect(bodies).toContainEqual(
        expect.objectContaining({ reserved: ["wiring", "band_change"] }),
      );
      expect(bodies).toContainEqual(
        expect.objectContaining({ instruments: { caliper: "simulated" } }),
      );
      expect(bodies).toContainEqual(expect.objectContaining({ authorised: ["Brill", "Senn"] }));
    });
  });
});

describe("a band's own set-ups", () => {
  it("stand on its page with its drift", async () => {
    const kept = {
      id: 4,
      saw_name: "Shop saw",
      job_name: "Strakes",
      started_at: "2026-11-17T10:00:00Z",
      finished_at: "2026-11-17T11:00:00Z",
      stress_MPa: 130,
      means: "gauge",
    };
    const trials = [
      { id: 1, at: "", saw_name: "Shop saw", angle_deg: 0.3 },
      { id: 2, at: "", saw_name: "Shop saw", angle_deg: 0.6 },
    ];
    server({ "GET /api/bands/7/setups": [kept], "GET /api/bands/7/drift": trials });
    render(BandSetUps, { band_id: 7 });
    expect(await screen.findByText(/Shop saw, Strakes, 130 MPa by gauge/)).toBeTruthy();
    expect(screen.getByText(/0.3°, 0.6°/)).toBeTruthy();
  });
});
