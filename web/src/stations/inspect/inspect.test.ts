import { fireEvent, render, screen, waitFor, within } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { FaceAnswer, FacePage } from "../../api/schema";
import { notice } from "../../lib/notice.svelte";
import { shop } from "../../lib/shop.svelte";
import { REFERENCE, SETTINGS } from "../../tests/samples";
import { server } from "../../tests/server";
import Inspect from "./Inspect.svelte";

const FACE: FaceAnswer = {
  roughness: null,
  ridge_mm: null,
  ridges: null,
  ridge_words: "",
  stops: [],
  trial: "",
  trial_name: "",
  guided: "",
  moved: null,
  edge_moved: null,
  judgement: null,
  id: 4,
  at: "2026-11-20T10:00:00Z",
  who: "Odda",
  piece: "board 2",
  simulated: false,
  job_id: 5,
  band_id: 7,
  band_label: "K-07",
  saw_id: 2,
  saw_name: "Shop saw",
  readings: [
    [0, -1, 14.2],
    [0, 1, 14.1],
    [1, 0, 15.3],
  ],
  face: {
    map: {
      mean_mm: 14.5,
      taper_along_mm: 0.02,
      lean_mm: -0.1,
      barrel_mm: 1.2,
      residual_mm: 0.03,
      range_mm: 1.2,
    },
    parts: [
      {
        key: "barrel",
        amount_mm: 1.2,
        se_mm: 0.03,
        doubt_mm: 0.04,
        tolerance_share: 1.5,
        verdict: "over",
      },
      {
        key: "waves",
        amount_mm: 0.7,
        se_mm: 0.3,
        doubt_mm: 0.4,
        tolerance_share: 0.9,
        verdict: "cannot_tell",
      },
      {
        key: "lean",
        amount_mm: -0.1,
        se_mm: 0.04,
        doubt_mm: 0.05,
        tolerance_share: 0.1,
        verdict: "within",
      },
    ],
    readings: 9,
    spare: 5,
    worst_along: 0.5,
    words: "Over the tolerance.",
    relief_mm: [
      [0.1, 0.2],
      [-0.3, 0],
    ],
  },
  tolerance_mm: 0.8,
  feed_m_min: 1.6,
  feed_force_N: 60,
  advice: {
    part: "barrel",
    cause: "The push bows the band between its guides.",
    change: "Ease the feed from 1.6 m/min to 0.9 m/min.",
    feed_m_min: 0.9,
  },
  change_id: 12,
};
const PAGE: FacePage = {
  trend: null,
  tolerance_usual: false,
  proposal: null,
  job_id: 5,
  saw_id: 2,
  band_id: 7,
  why_not: "",
  tolerance_mm: 0.8,
  feed_m_min: 1.6,
  caliper: true,
  faces: [FACE],
  side: { factor: 1.4, low: 1.1, high: 1.8, faces: 2, doubted: 1 },
};
const JOB = { id: 5, name: "Strakes", material: "european_larch_dry", version: 1 };
const answers = (page: FacePage = PAGE) => ({
  "GET /api/jobs/5": JOB,
  "GET /api/jobs/5/faces": page,
  "POST /api/faces": FACE,
  "POST /api/jobs/5/probe": { value_mm: 14.237, simulated: true, instrument: "simulated caliper" },
  "DELETE /api/faces/4": { change_id: 13 },
});

beforeEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
  notice.close();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.units = "metric";
});

describe("a face", () => {
  it("tells its parts, how sure they are, and the one change", async () => {
    server(answers());
    render(Inspect, { params: { id: "5" } });
    expect(await screen.findByText("Ease the feed from 1.6 m/min to 0.9 m/min.")).toBeTruthy();
    const barrel = screen.getByText("Barrel, middle to edges").closest("li") as HTMLElement;
    expect(within(barrel).getByText("over the tolerance")).toBeTruthy();
    expect(within(barrel).getByText("1.20 ± 0.04 mm")).toBeTruthy();
    expect(screen.getByText("cannot tell: read more points")).toBeTruthy();
    expect(screen.getByRole("img", { name: /14\.20, 14\.10, 15\.30/ })).toBeTruthy();
    expect(screen.getByText(/left out until others agree/)).toBeTruthy();
    expect(screen.getByText("1.4")).toBeTruthy();
  });

  it("says of a face without advice what the core says of all of it", async () => {
    const calm = { ...FACE, advice: null, face: { ...FACE.face, words: "What was read is fine." } };
    server(answers({ ...PAGE, faces: [calm] }));
    render(Inspect, { params: { id: "5" } });
    expect(await screen.findByText("What was read is fine.")).toBeTruthy();
  });

  it("is typed point by point and kept", async () => {
    const { sent } = server(answers());
    render(Inspect, { params: { id: "5" } });
    await fireEvent.click(await screen.findByLabelText("four corners"));
    const keep = () => screen.getByRole<HTMLButtonElement>("button", { name: "Keep the face" });
    for (const reading of ["14,2", "14.1", "14.3", "14.25"]) {
      expect(keep().disabled).toBe(true);
      await fireEvent.input(screen.getByLabelText(/^Thickness at/), { target: { value: reading } });
      await fireEvent.click(screen.getByRole("button", { name: "Next point" }));
    }
    await fireEvent.input(screen.getByLabelText("Which piece"), { target: { value: "board 3" } });
    await fireEvent.click(keep());
    await waitFor(() => expect(notice.text).toBe("The face is kept."));
    expect(await sent("POST")).toMatchObject([
      {
        job_id: 5,
        piece: "board 3",
        simulated: false,
        readings: [
          [0, -1, 14.2],
          [0, 1, 14.1],
          [1, -1, 14.3],
          [1, 1, 14.25],
        ],
      },
    ]);
  });

  it("reads a point with the caliper, goes to the next, and marks what a stand-in read", async () => {
    const { sent } = server(answers());
    render(Inspect, { params: { id: "5" } });
    await fireEvent.click(await screen.findByRole("button", { name: "Read with the caliper" }));
    expect(await screen.findByRole("button", { name: "Point start, bottom: 14.237" })).toBeTruthy();
    expect(screen.getByLabelText("Thickness at start, middle, mm")).toBeTruthy();
    expect(screen.getByText(/teaches nothing/)).toBeTruthy();
    expect(await sent("POST")).toEqual([{ along: 0, up: -1, board: 1 }]);
  });

  it("is taken back with what it taught", async () => {
    server(answers());
    render(Inspect, { params: { id: "5" } });
    await fireEvent.click(await screen.findByRole("button", { name: "Undo" }));
    await waitFor(() => expect(notice.undoable).toBe(true));
  });

  it("says what is missing before there is anything to inspect", async () => {
    server({
      ...answers({ ...PAGE, faces: [], side: null, why_not: "Plan it first." }),
      "GET /api/jobs": [],
    });
    render(Inspect, { params: { id: "5" } });
    expect(await screen.findByText("Plan it first.")).toBeTruthy();
  });
});
