import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { Compared, FeedFigures, Option, PlanAnswer } from "../api/schema";
import { notice } from "../lib/notice.svelte";
import { shop } from "../lib/shop.svelte";
import { currentJob, type Draft } from "../lib/currentJob.svelte";
import { BAND, BAND_ANSWER, REFERENCE, SAW, SETTINGS, TENSION, WINDOW } from "../tests/samples";
import Compare from "./plan/Compare.svelte";
import Jobs from "./plan/Jobs.svelte";
import LeansOn from "./plan/LeansOn.svelte";
import { PlanState } from "./plan/plan.svelte";
import RuleOverrides from "./plan/RuleOverrides.svelte";
import Sentence from "./plan/Sentence.svelte";
import { operations, partOf, sentenceOf, unsaid } from "./plan/sentences";
import BandForm from "./rack/BandForm.svelte";
import EventForm from "./rack/band/EventForm.svelte";
import Rack from "./rack/Rack.svelte";
import Shopping from "./rack/keeping/Shopping.svelte";
import Types from "./rack/Types.svelte";
import Stops from "./setup/Stops.svelte";
import TensionForms from "./setup/tools/TensionForms.svelte";
import { unfold } from "../tests/unfold";

const NO_SPARES = { lines: [], service: 0.9, lead_weeks: 2, words: "" };
const sent = () => vi.mocked(fetch).mock.calls.map(([request]) => request as Request);

function server(answers: Record<string, unknown>, status = 200): void {
  vi.spyOn(globalThis, "fetch").mockImplementation((request) => {
    const path = new URL((request as Request).url).pathname;
    const failed = status >= 400;
    const type = failed ? "application/problem+json" : "application/json";
    const listed = (request as Request).method === "GET" ? { "/api/saws": [SAW] } : {};
    const all: Record<string, unknown> = { ...answers, ...listed };
    const body = JSON.stringify(all[path] ?? all["*"] ?? {});
    return Promise.resolve(new Response(body, { status, headers: { "content-type": type } }));
  });
}

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

describe("what the choice leans on", () => {
  it("asks only when opened, and prices each rule beside it", async () => {
    const sway = {
      sways: [{ field: "height_mm", value: 200, band: "K-11", words: "At a height of 200 mm …" }],
      prices: [{ rule: "kerf", words: "costs 0.18 a piece against “slight”" }],
    };
    server({ "/api/plan/sway": sway });
    const rules = [{ rule: "kerf", choice: "material", why: "Set and kerf: by material." }];
    const answer = { best: {}, rules } as unknown as PlanAnswer;
    render(LeansOn, { plan: new PlanState(), answer });
    expect(sent()).toHaveLength(0);
    const details = document.querySelector("details");
    if (details) details.open = true;
    await fireEvent(details as Element, new Event("toggle"));
    await screen.findByText("At a height of 200 mm …");
    expect(screen.getByText(/Here: costs 0.18 a piece/)).toBeTruthy();
  });
});

describe("band types", () => {
  it("adds a type of the shop's own, a constant pitch said once", async () => {
    server({
      "/api/types": [],
      "/api/band-types": { id: 3, label: "20 × 0.6 3 tpi", change_id: 9 },
    });
    vi.mocked(fetch).mockImplementationOnce(() =>
      Promise.resolve(new Response("[]", { headers: { "content-type": "application/json" } })),
    );
    render(Types);
    await fireEvent.input(screen.getByLabelText("Width"), { target: { value: "20" } });
    await fireEvent.input(screen.getByLabelText("Thickness"), { target: { value: "0.6" } });
    await fireEvent.input(screen.getByLabelText("Teeth per inch"), { target: { value: "3" } });
    await fireEvent.click(screen.getByRole("button", { name: "Add the type" }));
    await waitFor(() => expect(sent().some((r) => r.method === "POST")).toBe(true));
    const body = (await sent()
      .find((r) => r.method === "POST")
      ?.json()) as Record<string, unknown>;
    expect(body).toMatchObject({ width_mm: 20, thickness_mm: 0.6, tpi_lo: 3, tpi_hi: 3 });
    expect(body.price_per_m).toBeNull();
  });
});

const nameOf = (key: Draft["operation"]) => sentenceOf(key)?.name ?? "";

describe("the sentence", () => {
  it("exists for every operation and has its material, saw and rules", () => {
    expect(operations().length).toBe(13);
    for (const { parts } of operations()) {
      const kinds = parts.map((bit) => partOf(bit)?.part);
      for (const part of ["operation", "material", "finish", "saw", "rules", "count"]) {
        expect(kinds).toContain(part);
      }
    }
  });

  it("opens a control for a part, edits, and closes with Escape", async () => {
    render(Sentence, { faults: [] });
    await fireEvent.click(screen.getByRole("button", { name: "185 mm" }));
    const input = screen.getByLabelText("Height in the cut");
    expect(document.activeElement).toBe(input);
    await fireEvent.input(input, { target: { value: "7 1/4 in" } });
    expect(currentJob.draft.height_mm).toBeCloseTo(184.15);
    await fireEvent.keyDown(input, { key: "Enter" });
    expect(screen.queryByLabelText("Height in the cut")).toBeNull();
    expect(currentJob.draft.height_mm).toBeCloseTo(184.15);
  });

  it("is as it was after Escape, also where the operation was changed", async () => {
    render(Sentence, { faults: [] });
    const before = currentJob.draft;
    await fireEvent.click(screen.getByRole("button", { name: "185 mm" }));
    const input = screen.getByLabelText("Height in the cut");
    await fireEvent.input(input, { target: { value: "120" } });
    await fireEvent.keyDown(input, { key: "Escape" });
    expect(currentJob.draft).toEqual(before);
    await fireEvent.click(screen.getByRole("button", { name: nameOf("resaw") }));
    const bar = screen.getByRole("radio", { name: nameOf("bar") });
    await fireEvent.click(bar);
    expect(currentJob.draft.operation).toBe("bar");
    await fireEvent.keyDown(bar, { key: "Escape" });
    expect(currentJob.draft).toEqual(before);
  });

  it("changes nothing when a part is opened; a step starts one that has no value yet", async () => {
    currentJob.change({ operation: "tube" });
    render(Sentence, { faults: [] });
    await fireEvent.click(screen.getByRole("button", { name: "?" }));
    expect(currentJob.draft.wall_mm).toBeNull();
    await fireEvent.click(screen.getByRole("button", { name: "More" }));
    expect(currentJob.draft.wall_mm).toBe(3);
  });

  it("says what is not as usual, and the rest on asking", async () => {
    render(Sentence, { faults: [] });
    expect(screen.queryByRole("button", { name: "any thickness" })).toBeNull();
    await fireEvent.click(screen.getByRole("button", { name: "more" }));
    expect(screen.getByRole("button", { name: "any thickness" })).toBeTruthy();
    currentJob.change({ billet_mm: 120 });
    await fireEvent.click(screen.getByRole("button", { name: "less" }));
    expect(await screen.findByRole("button", { name: "120 mm" })).toBeTruthy();
  });

  it("shows radius and diameter of a round blank, and takes either", async () => {
    currentJob.change({ operation: "circle", min_radius_mm: 150 });
    render(Sentence, { faults: [] });
    expect(screen.getByRole("button", { name: "150 mm" })).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "300 mm" }));
    const input = screen.getByLabelText("Diameter of the blank");
    await fireEvent.input(input, { target: { value: "250" } });
    expect(currentJob.draft.min_radius_mm).toBe(125);
  });

  it("lets stock stand on its end, and forgets it with another operation", async () => {
    currentJob.change({ operation: "rip" });
    render(Sentence, { faults: [] });
    await fireEvent.click(screen.getByRole("button", { name: "more" }));
    await fireEvent.click(screen.getByRole("button", { name: "lying along the table" }));
    await fireEvent.click(screen.getByRole("radio", { name: /stood on its end/ }));
    expect(currentJob.draft.stood_on_end).toBe(true);
    await fireEvent.click(screen.getByRole("button", { name: nameOf("rip") }));
    await fireEvent.click(screen.getByRole("radio", { name: nameOf("resaw") }));
    expect(currentJob.draft.stood_on_end).toBe(false);
  });

  it("empties what another operation's sentence does not say", async () => {
    currentJob.change({ operation: "wedge", angle_deg: 8, min_radius_mm: 90, round_stock: true });
    render(Sentence, { faults: [] });
    await fireEvent.click(screen.getByRole("button", { name: nameOf("wedge") }));
    await fireEvent.click(screen.getByRole("radio", { name: nameOf("mill") }));
    expect(currentJob.draft).toMatchObject({
      angle_deg: 0,
      min_radius_mm: null,
      round_stock: false,
    });
    expect(unsaid("block").min_radius_mm).toBeUndefined();
    expect(unsaid("tube")).not.toHaveProperty("wall_mm");
  });

  it("marks the part a fault belongs to and says it in its control", async () => {
    const faults = [{ path: "cut.height_mm", message: "does not go under the guides" }];
    render(Sentence, { faults });
    const part = screen.getByRole("button", { name: "185 mm" });
    expect(part.dataset.bad).toBe("true");
    await fireEvent.click(part);
    expect(screen.getByRole("alert").textContent).toContain("under the guides");
  });

  it("changes operation, finish and material through their lists", async () => {
    render(Sentence, { faults: [] });
    await fireEvent.click(screen.getByRole("button", { name: "to be planed" }));
    await fireEvent.click(screen.getByLabelText("left rough"));
    expect(currentJob.draft.finish).toBe("rough");
    await fireEvent.click(screen.getByRole("button", { name: "European larch (dry)" }));
    await fireEvent.click(screen.getByRole("button", { name: "HDPE" }));
    expect(currentJob.draft.material).toBe("hdpe");
    await fireEvent.click(screen.getByRole("button", { name: "Resaw" }));
    await fireEvent.click(screen.getByLabelText("Cut bar"));
    expect(currentJob.draft.operation).toBe("bar");
  });
});

describe("house rules of one job", () => {
  it("keep only what differs from the shop's, numbers as numbers", async () => {
    render(RuleOverrides);
    await fireEvent.change(screen.getByLabelText("Tension target"), { target: { value: "light" } });
    await fireEvent.change(screen.getByLabelText("Least teeth in the cut"), {
      target: { value: "4" },
    });
    expect(currentJob.draft.rules).toEqual({ tension: "light", least_teeth: 4 });
    await fireEvent.change(screen.getByLabelText("Tension target"), { target: { value: "full" } });
    expect(currentJob.draft.rules).toEqual({ least_teeth: 4 });
  });

  it("offers what can matter, and what the job has its own of, so that it can be put back", () => {
    currentJob.change({ rules: { least_teeth: 4 } });
    render(RuleOverrides, { offered: ["tension"] });
    expect(screen.getByLabelText("Tension target")).toBeTruthy();
    expect(screen.getByLabelText("Least teeth in the cut")).toBeTruthy();
    expect(screen.queryByLabelText("Steel")).toBe(null);
  });
});

const figures = { gullet_fill: 0.3, feed_m_min: 2, cost_total: 1.5 } as unknown as FeedFigures;
const option = {
  tight_radius_mm: 100,
  teeth_in_cut: 15,
  figures,
  spread: { cost: { low: 1.2, high: 1.9 } },
  stiffness_N_mm: 20,
  edge_slack_N: 90,
  bending_hours: 135,
  window: WINDOW,
} as unknown as Option;

describe("bands side by side", () => {
  it("mark the better one and say why another cannot", () => {
    const dear = { ...option, figures: { ...figures, cost_total: 3 } } as Option;
    const compared: Compared[] = [
      { band: BAND, option, reasons: [], life_m: 9000 },
      { band: { ...BAND, band_id: 8, label: "K-08" }, option: dear, reasons: [], life_m: 9000 },
      {
        band: { ...BAND, band_id: 9, label: "K-09" },
        option: null,
        reasons: [{ key: "dull", text: "Too dull: 0.9" }],
        life_m: 9000,
      },
    ];
    const { container } = render(Compare, { compared, onclose: vi.fn() });
    expect(screen.getByText("cannot: Too dull: 0.9")).toBeTruthy();
    expect(container.querySelectorAll('[data-best="true"]')).toHaveLength(1);
    expect(container.querySelector('[data-best="true"]')?.textContent).toContain("€ 1.2–1.9");
  });
});

describe("a stop", () => {
  const cautions = [{ key: "round_stock", level: "stop" as const, text: "Round stock turns." }];

  it("asks for a name, and takes none that is blank", async () => {
    const onacknowledge = vi.fn(() => Promise.resolve());
    render(Stops, { cautions, open: ["round_stock"], acknowledged: [], means: [], onacknowledge });
    const button = screen.getByRole<HTMLButtonElement>("button", { name: "I have seen to it" });
    expect(button.disabled).toBe(true);
    await fireEvent.change(screen.getByLabelText("Your name"), { target: { value: "Odda" } });
    await fireEvent.click(button);
    expect(onacknowledge).toHaveBeenCalledWith("round_stock", "Odda", "");
  });

  it("takes one tap where the shop has what answers it", async () => {
    const onacknowledge = vi.fn(() => Promise.resolve());
    const means = [
      { stop: "round_stock", key: "vee_cradle", title: "Vee cradle", owned: true },
      { stop: "round_stock", key: "sled", title: "Sled", owned: false },
    ];
    render(Stops, { cautions, open: ["round_stock"], acknowledged: [], means, onacknowledge });
    await fireEvent.click(screen.getByRole("button", { name: "Vee cradle: in use" }));
    expect(onacknowledge).toHaveBeenCalledWith("round_stock", "", "vee_cradle");
    expect(screen.queryByRole("button", { name: "Sled: in use" })).toBeNull();
  });

  it("names who saw to it", () => {
    const acknowledged = [
      { key: "round_stock", name: "Odda", means: "", at: "2026-01-01T00:00:00Z" },
    ];
    render(Stops, { cautions, open: [], acknowledged, means: [], onacknowledge: vi.fn() });
    expect(screen.getByText("Odda")).toBeTruthy();
    expect(screen.queryByRole("button")).toBeNull();
  });
});

describe("tension in every form", () => {
  it("says gauge, note, push, travel and force with how sure each is", () => {
    render(TensionForms, { card: TENSION });
    for (const words of ["65 µm", "61.3 Hz", "24.5 N", "1.10 mm", "3200 N"]) {
      expect(screen.getByText(words)).toBeTruthy();
    }
    expect(screen.getByText(/Good to: strain gauge 3 %, note 4 %/)).toBeTruthy();
  });

  it("leaves out what three wheels cannot have, and says an unknown limit", () => {
    const card = {
      ...TENSION,
      free_span_mm: null,
      note_Hz: null,
      note_name: null,
      side_push: null,
      wheel_travel_mm: null,
      frame_limit_N: null,
    };
    render(TensionForms, { card });
    expect(screen.queryByText("note")).toBeNull();
    expect(screen.getByText(/limit is not recorded/)).toBeTruthy();
  });
});

describe("the rack", () => {
  it("says where each band is and whether it is under tension", async () => {
    const bands = [
      { ...BAND_ANSWER, id: 1, label: "K-01", mounted_on: "Shop saw", tension_state: "slack" },
      { ...BAND_ANSWER, id: 2, label: "K-02", state: "out" },
      { ...BAND_ANSWER, id: 3, label: "K-03", state: "scrapped", scrap_reason: "crack" },
    ];
    server({ "/api/bands": bands });
    render(Rack);
    expect(await screen.findByText("on Shop saw, slack")).toBeTruthy();
    expect(screen.getByText("out for sharpening")).toBeTruthy();
    expect(screen.queryByText("K-03")).toBeNull();
    await fireEvent.click(screen.getByRole("button", { name: "scrapped too" }));
    expect(screen.getByText("scrapped: crack")).toBeTruthy();
  });

  it("tells an empty rack its first step", async () => {
    server({ "/api/bands": [] });
    render(Rack);
    expect(await screen.findByText(/The rack is empty/)).toBeTruthy();
  });
});

describe("a band's form", () => {
  it("adds several alike with labels that count on", async () => {
    server({ "*": BAND_ANSWER, "/api/bands/next": { label: "B-01", length_mm: 3360 } });
    const ondone = vi.fn();
    render(BandForm, { ondone });
    await unfold("Details");
    const fill = (label: string, value: string) =>
      fireEvent.input(screen.getByLabelText(label), { target: { value } });
    await fill("Label", "K-09");
    await fill("Width", "19");
    await fill("Thickness", "0.81");
    await fill("Teeth per inch", "3");
    await fill("Welded length", "3360");
    await fill("How many of these", "3");
    await fireEvent.click(screen.getByRole("button", { name: "Save band" }));
    await waitFor(() => expect(ondone).toHaveBeenCalled());
    const posts = sent().filter((r) => r.method === "POST");
    const bodies = await Promise.all(posts.map((r) => r.clone().json()));
    expect(bodies).toMatchObject([
      { label: "K-09", also: ["K-10", "K-11"], width_mm: 19, tpi_lo: 3, tpi_hi: 3 },
    ]);
  });

  it("shows a refusal beside its field and keeps what was typed", async () => {
    const errors = [{ path: "width_mm", message: "4000 is out of range; accepted: at most 400" }];
    server(
      { "*": { type: "urn:jade-ribbon:problem:input", code: "input", detail: "no", errors } },
      422,
    );
    const ondone = vi.fn();
    render(BandForm, { ondone, band: BAND_ANSWER });
    await fireEvent.input(screen.getByLabelText("Width"), { target: { value: "4000" } });
    await fireEvent.click(screen.getByRole("button", { name: "Save band" }));
    expect(await screen.findByText(/accepted: at most 400/)).toBeTruthy();
    expect(ondone).not.toHaveBeenCalled();
    expect(screen.getByLabelText<HTMLInputElement>("Label").value).toBe("K-07");
  });
});

describe("what happened to a band", () => {
  it("scraps with a reason", async () => {
    const onrecord = vi.fn(() => Promise.resolve());
    render(EventForm, { band: { id: 7, label: "K-07" }, onrecord });
    await fireEvent.click(screen.getByRole("button", { name: "Scrap it" }));
    await fireEvent.change(screen.getByLabelText("Why"), { target: { value: "crack" } });
    await fireEvent.click(screen.getByRole("button", { name: "Record" }));
    expect(onrecord).toHaveBeenCalledWith({
      kind: "scrapped",
      detail: "crack",
      value: null,
      who: "",
    });
  });

  it("tells a refusal", async () => {
    render(EventForm, {
      band: { id: 7, label: "K-07" },
      onrecord: () => Promise.reject(new Error("take it off first")),
    });
    await fireEvent.click(screen.getByRole("button", { name: "Cleaned" }));
    await fireEvent.click(screen.getByRole("button", { name: "Record" }));
    expect((await screen.findByRole("alert")).textContent).toContain("take it off first");
  });
});

describe("the shopping list", () => {
  it("counts, prices and says what for", async () => {
    const line = {
      label: "x",
      width_mm: 6.35,
      thickness_mm: 0.64,
      tpi_lo: 6,
      tpi_hi: 6,
      form: "hook",
      steel: "carbon_flexback",
      length_mm: 3360,
      count: 2,
      price: 11,
      jobs: ["Knees", "Brackets"],
      why: "K-07: too wide",
    };
    server({ "/api/shopping": [line], "/api/rack/spares": NO_SPARES });
    render(Shopping);
    expect(await screen.findByText(/For Knees, Brackets/)).toBeTruthy();
    expect(screen.getAllByText("€ 22.00")).toHaveLength(2);
  });

  it("says when nothing is wanted", async () => {
    server({ "/api/shopping": [], "/api/rack/spares": NO_SPARES });
    render(Shopping);
    expect(await screen.findByText(/the rack can do every open job/)).toBeTruthy();
  });
});

describe("jobs", () => {
  it("start with their first step when there are none", async () => {
    server({ "/api/jobs": [] });
    render(Jobs);
    expect(await screen.findByText(/No job is saved yet/)).toBeTruthy();
  });

  it("refuse a file that is no job file, naming it", async () => {
    server({ "/api/jobs": [] });
    render(Jobs);
    const input = await screen.findByLabelText("Job file");
    const file = new File(["{"], "broken.json", { type: "application/json" });
    Object.defineProperty(input, "files", { value: [file] });
    await fireEvent.change(input);
    await waitFor(() => expect(notice.text).toContain("broken.json is not a job file"));
  });
});
