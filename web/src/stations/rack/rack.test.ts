import { fireEvent, render, screen, within } from "@testing-library/svelte";
import { beforeEach, describe, expect, it, vi } from "vitest";

import type { BandPage, Spares as SparesAnswer } from "../../api/schema";
import { notice } from "../../lib/notice.svelte";
import { shop } from "../../lib/shop.svelte";
import { BAND_ANSWER, PAGE, REFERENCE, SAW, SETTINGS } from "../../tests/samples";
import { server } from "../../tests/server";
import AllRound from "../money/AllRound.svelte";
import Money from "../money/Money.svelte";
import Due from "../upkeep/Due.svelte";
import Upkeep from "../upkeep/Upkeep.svelte";
import BandPageView from "./band/BandPage.svelte";
import EvidenceScale from "./band/EvidenceScale.svelte";
import LookOver from "./band/LookOver.svelte";
import NextLine from "./band/NextLine.svelte";
import SharpenCurve from "./band/SharpenCurve.svelte";
import WeighForm from "./band/WeighForm.svelte";
import Labels from "./keeping/Labels.svelte";
import Sharpening from "./keeping/Sharpening.svelte";
import Spares from "./keeping/Spares.svelte";
import Learned from "./learning/Learned.svelte";
import NextList from "./NextList.svelte";
import { unfold } from "../../tests/unfold";

vi.mock("zxing-wasm/reader", () => ({ prepareZXingModule: vi.fn(), readBarcodes: vi.fn() }));

beforeEach(() => {
  localStorage.clear();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.saws = [SAW];
  shop.units = "metric";
  notice.close();
});

/** What was sent by a method, once it was. */
async function sentSoon(
  told: { sent: (method: string) => Promise<unknown[]> },
  method: string,
  wanted: unknown[],
): Promise<void> {
  await vi.waitFor(async () => expect(await told.sent(method)).toEqual(wanted));
}

const URL_OF_BAND = "/api/bands/7";
const page = (changed: Partial<BandPage>): BandPage => ({ ...PAGE, ...changed });

describe("where a band stands", () => {
  it("is said in one line with what it is worth", () => {
    render(NextLine, { page: PAGE, ondo: vi.fn() });
    const line = screen.getByRole("region", { name: "What next" });
    expect(line.textContent).toContain("Use it for work to be planed.");
    expect(line.textContent).toContain("21.50");
    expect(line.textContent).toContain("40 ± 12 % of its life used");
    expect(within(line).queryByRole("button")).toBeNull();
  });

  it("has one tap for what is to be done", async () => {
    const ondo = vi.fn();
    const next = { do: "clean", words: "Clean it.", worth: 3, worth_words: "an hour" } as const;
    render(NextLine, { page: page({ next }), ondo });
    await fireEvent.click(screen.getByRole("button", { name: "Cleaned" }));
    expect(ondo).toHaveBeenCalledWith("clean");
  });

  it("shows each kind of evidence with what it moved, and what stands aside", () => {
    const aside = {
      kind: "feed",
      says: 0.2,
      sd: 0.15,
      counted: false,
      taken: 0.4,
      taken_sd: 0.12,
      why: "one faster cut is no proof of a keen edge",
    } as const;
    render(EvidenceScale, { page: page({ evidence: [...PAGE.evidence, aside] }) });
    expect(screen.getByText("moved it from 0.35 to 0.40")).toBeTruthy();
    expect(screen.getByText(/not counted: one faster cut/)).toBeTruthy();
    expect(screen.getByRole("img", { name: "Dullness 0.40" })).toBeTruthy();
  });

  it("judges by one tap, cleans by one, and keeps a band for rough work", async () => {
    const next = { do: "demote", words: "Rough.", worth: null, worth_words: "" } as const;
    const told = server({
      [`GET ${URL_OF_BAND}`]: page({ next }),
      "GET /api/bands/7/setups": [],
      [`POST ${URL_OF_BAND}/events`]: BAND_ANSWER,
      [`PATCH ${URL_OF_BAND}`]: BAND_ANSWER,
    });
    render(BandPageView, { params: { id: "7" } });
    await unfold("How dull, and how that is known");
    await fireEvent.click(await screen.findByRole("button", { name: "1/2 left" }));
    await sentSoon(told, "POST", [
      { kind: "edge_judged", value: 0.5, detail: "1/2 left", who: "" },
    ]);
    await fireEvent.click(await screen.findByRole("button", { name: "Keep it for rough work" }));
    await sentSoon(told, "PATCH", [{ version: 1, kept_for: "rough" }]);
  });
});

describe("a guided measurement", () => {
  it("is taken on the saw only, by a watch", async () => {
    const told = server({ [`POST ${URL_OF_BAND}/weighed`]: BAND_ANSWER });
    const shown = render(WeighForm, { band: BAND_ANSWER, ondone: vi.fn() });
    expect(screen.getByText(/Mount it first/)).toBeTruthy();
    shown.unmount();
    const ondone = vi.fn();
    render(WeighForm, { band: { ...BAND_ANSWER, mounted_saw_id: 2 }, ondone });
    expect(screen.getByRole("button", { name: "Record" }).hasAttribute("disabled")).toBe(true);
    let at = 1000;
    vi.spyOn(performance, "now").mockImplementation(() => at);
    await fireEvent.click(screen.getByRole("button", { name: "Start the watch" }));
    at += 9400;
    await fireEvent.click(screen.getByRole("button", { name: "Stop the watch" }));
    await fireEvent.click(screen.getByRole("button", { name: "Record" }));
    const [body] = (await vi.waitFor(async () => {
      const all = await told.sent("POST");
      expect(all.length).toBe(1);
      return all;
    })) as { seconds: number; saw_id: number }[];
    expect(body).toMatchObject({ seconds: 9.4, saw_id: 2, weight_kg: 4 });
  });

  it("takes ten teeth of each side, and holds what cannot be read", async () => {
    const arrival = {
      findings: [{ key: "even", name: "Sides even", verdict: "claim", words: "leads to the left" }],
      measured_set: {
        left_mm: 0.5,
        right_mm: 0.3,
        doubt_mm: 0.01,
        scatter_mm: 0,
        kerf_mm: 1.6,
        uneven_mm: 0.2,
      },
      verdict: "claim",
    };
    const told = server({ [`POST ${URL_OF_BAND}/looked-over`]: { arrival, band: BAND_ANSWER } });
    render(LookOver, { band: BAND_ANSWER, ondone: vi.fn() });
    const left = screen.getByLabelText(/^Set of ten teeth, left/);
    await fireEvent.input(left, { target: { value: "0.5 wide" } });
    expect(screen.getByText("A tooth’s set cannot be read.")).toBeTruthy();
    await fireEvent.input(left, { target: { value: "0.5 0.51 0.49" } });
    await fireEvent.click(screen.getByRole("button", { name: "Record" }));
    expect(await screen.findByText("K-07: claim it.")).toBeTruthy();
    const [body] = (await vi.waitFor(async () => {
      const all = await told.sent("POST");
      expect(all.length).toBe(1);
      return all;
    })) as { set_left_mm: number[]; weld_right: null }[];
    expect(body).toMatchObject({ set_left_mm: [0.5, 0.51, 0.49], weld_right: null });
  });
});

describe("money of the rack", () => {
  it("puts the ways of sharpening on one axis and names the least", () => {
    render(SharpenCurve, { page: PAGE });
    expect(screen.getByRole("rowheader", { name: /on the saw.*least cost/ })).toBeTruthy();
    expect(screen.getByText(/no life here speaks yet/)).toBeTruthy();
  });

  it("opens a total's runs", async () => {
    const cost = {
      runs: 2,
      hours: 1,
      metres: 50,
      area_m2: 9,
      pieces: 14,
      equivalent_m: 300,
      time: 40,
      edge: 2,
      total: 42,
      per_metre: 0.84,
      per_m2: 4.67,
      per_piece: 3,
      m2_low: null,
      m2_high: null,
      unpriced_share: 1,
    };
    const dull = { lost_min: 30, told_min: 90, untold_min: 12 };
    const run = { id: 1, at: "2026-02-01T00:00:00Z", band_id: 7, label: "K-07", saw: "Shop saw" };
    const cut = { material: "european_larch_dry", height_mm: 185, length_mm: 3600, pieces: 7 };
    const took = { minutes: 30, area_m2: 4.5, time: 20, edge: 1, who: "Odda" };
    server({
      "GET /api/money": {
        by: "month",
        lines: [{ key: "2026-02", name: "2026-02", cost }],
        whole: cost,
        dull,
        dull_money: 20,
        waiting: 1,
      },
      "GET /api/money/runs": { runs: [{ ...run, ...cut, ...took }], count: 2, total: 42 },
    });
    render(Money);
    await fireEvent.click(await screen.findByRole("button", { name: "2026-02" }));
    expect(await screen.findByRole("link", { name: "K-07" })).toBeTruthy();
    expect(screen.getByText(/1 runs wait to be confirmed/)).toBeTruthy();
    expect(document.body.textContent).toContain("0.5 h more than keen");
    expect(document.body.textContent).toContain("Not counted: 0.2 h sawn dull");
  });

  it("says what one band for all costs against changing", async () => {
    const named = { ...BAND_ANSWER, band_id: 7 };
    const job = { job_id: 1, name: "Strakes", cost: 30, band: null };
    server({
      "GET /api/jobs": [
        {
          id: 1,
          name: "Strakes",
          saw_id: 2,
          state: "planned",
          material: "x",
          height_mm: 9,
          count: 1,
        },
      ],
      "POST /api/money/all-round": {
        ranked: [{ band: named, jobs: [job], total: 38, impossible: 0 }],
        changing: [{ ...job, band: named }],
        changes: 1,
        changing_total: 45,
        compromise: -7,
        close: false,
        second_saves: null,
        pair: [named, { ...named, label: "K-08" }],
        pair_total: 38,
        pair_impossible: 0,
      },
    });
    render(AllRound);
    await fireEvent.click(await screen.findByRole("button", { name: "One band for 1 jobs" }));
    expect(await screen.findByText(/the one band saves/)).toBeTruthy();
    expect(document.body.textContent).toContain("A second band would save nothing.");
  });
});

describe("keeping bands", () => {
  const line = {
    ...BAND_ANSWER,
    saws: ["Shop saw"],
    have: 1,
    out: 0,
    used_up: 5,
    weeks: 60,
    mean_demand: 0.3,
    reorder_at: 1,
    chance_short: 0.12,
    verdict: "order",
    order: 2,
    price: 40,
    from_coil: 3,
    coil_id: 1,
  };

  it("says what to order, and whether a price is dear", async () => {
    const spares = { lines: [line], service: 0.9, lead_weeks: 2, words: "Ordered when …" };
    const look = { words: "Dear by 33 % per metre, cheap by 20 % per 1 000 m of cut." };
    server({
      "GET /api/rack/spares": spares as unknown as SparesAnswer,
      "POST /api/rack/price": look,
    });
    render(Spares);
    expect(await screen.findByText("order 2")).toBeTruthy();
    expect(screen.getByText("3 from the coil")).toBeTruthy();
    await fireEvent.input(screen.getByLabelText("A price asked"), { target: { value: "52" } });
    await fireEvent.click(screen.getByRole("button", { name: "Dear?" }));
    expect(await screen.findByText(look.words)).toBeTruthy();
  });

  it("lists what wants doing and stays away where nothing does", async () => {
    const next = {
      band_id: 7,
      label: "K-07",
      do: "sharpen",
      words: "Sharpen it.",
      worth: 9,
      worth_words: "",
    };
    server({ "GET /api/rack/next": [next] });
    const shown = render(NextList);
    expect(await screen.findByText("Sharpen it.")).toBeTruthy();
    shown.unmount();
    server({ "GET /api/rack/next": [] });
    render(NextList);
    expect(screen.queryByText("Wants doing")).toBeNull();
  });

  it("sends out what is chosen, and takes back what was refused with why", async () => {
    const out = { ...BAND_ANSWER, id: 8, label: "K-08", state: "out" };
    const told = server({
      "GET /api/bands": [BAND_ANSWER, out],
      "GET /api/rack/next": [
        { band_id: 7, label: "K-07", do: "sharpen", words: "", worth: 1, worth_words: "" },
      ],
      "POST /api/bands/7/events": BAND_ANSWER,
      "POST /api/bands/8/events": out,
    });
    render(Sharpening);
    const refused = await screen.findByRole("button", { name: "Came back refused" });
    expect(refused.hasAttribute("disabled")).toBe(true);
    await fireEvent.input(screen.getByLabelText("Why K-08 was refused"), {
      target: { value: "a crack" },
    });
    await fireEvent.click(refused);
    await fireEvent.click(await screen.findByRole("button", { name: "Send 1 out" }));
    await sentSoon(told, "POST", [
      { kind: "returned", detail: "refused: a crack", who: "" },
      { kind: "sent_out", detail: "", who: "" },
    ]);
  });

  it("makes the address of its labels", async () => {
    server({ "GET /api/bands": [BAND_ANSWER] });
    render(Labels);
    await fireEvent.click(await screen.findByRole("checkbox"));
    const link = screen.getByRole("link", { name: "1 label" });
    expect(link.getAttribute("href")).toBe("/labels.pdf?bands=7&kind=a4-24&start=1");
  });

  it("tells of no life before any ended", async () => {
    server({ "GET /api/rack/learned": { steels: [], lives: [], materials: [] } });
    render(Learned);
    expect(await screen.findByText(/No edge has been worn out here yet/)).toBeTruthy();
  });
});

describe("upkeep", () => {
  const task = {
    saw_id: 2,
    saw: "Shop saw",
    key: "tyres",
    title: "Tyres cleaned",
    do: "Clean them.",
    look: "crown there",
    stops: false,
    hours: 40,
    days: 30,
    own: false,
    stands: { due: "due", share: 1.2, by: "days", hours_left: 5, days_left: -6 },
    last_at: "2026-01-01T00:00:00Z",
    last_who: "Odda",
    last_note: "",
  };

  it("says what is due, and records it done", async () => {
    const care = {
      saw_id: 2,
      saw: "Shop saw",
      hours: 12,
      tasks: [task],
      accessories: [
        {
          key: "extraction",
          title: "Extraction",
          saves: "dust",
          state: "down",
          wear: 1.1,
          caution: "It is down.",
        },
      ],
      commissioning: [],
      plate_photo_id: null,
    };
    const told = server({ "GET /api/saws/2/upkeep": care, "POST /api/saws/2/upkeep": care });
    render(Upkeep, { params: { id: "2" } });
    expect(await screen.findByText("6 days over")).toBeTruthy();
    expect(screen.getByText(/Edges wear 1.10 times as fast/)).toBeTruthy();
    await fireEvent.click(screen.getByRole("button", { name: "Done" }));
    await sentSoon(told, "POST", [{ key: "tyres", found: "right", note: "", who: "" }]);
  });

  it("is listed for its saw alone", async () => {
    server({ "GET /api/upkeep": [task, { ...task, saw_id: 3, saw: "Other" }] });
    render(Due, { saw_id: 2 });
    expect(await screen.findByRole("link", { name: "Tyres cleaned" })).toBeTruthy();
    expect(screen.getAllByRole("listitem")).toHaveLength(1);
  });
});
