import { fireEvent, render, screen, waitFor } from "@testing-library/svelte";
import { beforeEach, describe, expect, it } from "vitest";

import type { Help, JobAnswer, TypeLine } from "../api/schema";
import { shop } from "../lib/shop.svelte";
import { REFERENCE, SAW, SETTINGS } from "../tests/samples";
import { server } from "../tests/server";
import HelpPage from "./help/Help.svelte";
import Jobs from "./plan/Jobs.svelte";
import { shownJobs } from "./plan/jobList";
import TypeTable from "./rack/TypeTable.svelte";
import { typesLike } from "./rack/typeTable";

const job = (id: number, more: Partial<JobAnswer>) =>
  ({
    id,
    name: `Job ${id}`,
    note: "",
    operation: "resaw",
    material_name: "European larch (dry)",
    saw_id: 2,
    saw_name: "Shop saw",
    band_label: null,
    state: "planned",
    count: 7,
    done_pieces: 0,
    height_mm: 185,
    length_mm: 3600,
    updated_at: `2026-01-0${id}T00:00:00Z`,
    version: 3,
    ...more,
  }) as JobAnswer;
const JOBS = [
  job(1, { name: "Strakes", note: "for the tender" }),
  job(2, { name: "Knees", saw_id: 1, state: "done", done_pieces: 7 }),
  job(3, { name: "Thwarts", done_pieces: 5 }),
];
const type = (number: number, more: Partial<TypeLine>): TypeLine => ({
  number,
  label: `type ${number}`,
  width_mm: 13,
  thickness_mm: 0.64,
  tpi_lo: 6,
  tpi_hi: 6,
  form: "hook",
  steel: "carbon_flexback",
  kerf_mm: 1.2,
  tightest_mm: 60,
  smallest_wheel_mm: 280,
  finest: "plane",
  price_per_m: 4.6,
  own: false,
  on_rack: 0,
  ...more,
});
const TYPES = [
  type(0, {}),
  type(1, { width_mm: 25, tightest_mm: 200, price_per_m: 7 }),
  type(2, { width_mm: 6, form: "regular", tightest_mm: 20, on_rack: 2 }),
];
const HELP: Help = {
  pages: [{ key: "plan", title: "Plan", place: "/plan", help: "Write the job as a sentence." }],
  terms: [
    {
      key: "kerf",
      title: "Kerf",
      also: "saw cut",
      what: "The width of the cut.",
      why: "It is paid for.",
      measure: "With slips.",
    },
    {
      key: "bite",
      title: "Bite",
      also: "feed per tooth",
      what: "What a tooth takes.",
      why: "Too small rubs.",
      measure: "Follows.",
    },
  ],
};
const ANY = { text: "", saw: null, done: false };

beforeEach(() => {
  localStorage.clear();
  shop.settings = SETTINGS;
  shop.reference = REFERENCE;
  shop.units = "metric";
  shop.saws = [SAW];
});

describe("jobs", () => {
  it("done stand aside until asked for or found by their words", () => {
    expect(shownJobs(JOBS, ANY, "newest").map((j) => j.id)).toEqual([3, 1]);
    expect(shownJobs(JOBS, { ...ANY, done: true }, "name").map((j) => j.name)).toEqual([
      "Knees",
      "Strakes",
      "Thwarts",
    ]);
    expect(shownJobs(JOBS, { ...ANY, text: "knees" }, "newest").map((j) => j.id)).toEqual([2]);
    expect(shownJobs(JOBS, { ...ANY, text: "tender larch" }, "newest").map((j) => j.id)).toEqual([
      1,
    ]);
    expect(shownJobs(JOBS, { ...ANY, saw: 1, done: true }, "newest").map((j) => j.id)).toEqual([2]);
    expect(shownJobs(JOBS, ANY, "left").map((j) => j.id)).toEqual([1, 3]);
  });

  it("come a page at a time, and are named and noted in place", async () => {
    const many = Array.from({ length: 50 }, (_, i) => job(i + 10, { updated_at: "2026-01-01" }));
    const told = server({ "GET /api/jobs": many, "PATCH /api/jobs/59": many[49] });
    render(Jobs);
    await fireEvent.click(await screen.findByRole("button", { name: "10 more" }));
    expect(screen.getAllByLabelText("Note")).toHaveLength(50);
    await fireEvent.change(screen.getAllByLabelText("Note")[0] as HTMLElement, {
      target: { value: "wants doing first" },
    });
    await waitFor(async () =>
      expect(await told.sent("PATCH")).toEqual([{ version: 3, note: "wants doing first" }]),
    );
  });
});

describe("band types", () => {
  it("are narrowed by form, steel, saw and radius, and sorted", () => {
    const all = { form: "", steel: "", widest_mm: null, turns_mm: null };
    const numbers = (filter: object, order: "table" | "width" = "table") =>
      typesLike(TYPES, { ...all, ...filter }, order).map((t) => t.number);
    expect(numbers({})).toEqual([0, 1, 2]);
    expect(numbers({}, "width")).toEqual([2, 0, 1]);
    expect(numbers({ form: "regular" })).toEqual([2]);
    expect(numbers({ widest_mm: 20 })).toEqual([0, 2]);
    expect(numbers({ turns_mm: 60 })).toEqual([0, 2]);
    expect(numbers({ steel: "none such" })).toEqual([]);
  });

  it("stand beside each other once two are chosen", async () => {
    server({ "GET /api/types": TYPES });
    render(TypeTable);
    const [first, second] = await screen.findAllByRole("button", { name: /^Compare .* mm, 6 TPI/ });
    await fireEvent.click(first as HTMLElement);
    expect(screen.queryByRole("table")).toBeNull();
    await fireEvent.click(second as HTMLElement);
    expect(screen.getByRole("row", { name: /tightest radius 60 mm 200 mm/ })).toBeTruthy();
    expect(screen.getByText("2 on the rack")).toBeTruthy();
  });
});

describe("help", () => {
  it("has stations, and finds a word by another name, with a slip", async () => {
    server({ "GET /api/help": HELP });
    render(HelpPage);
    expect(await screen.findByText("Write the job as a sentence.")).toBeTruthy();
    await fireEvent.input(screen.getByLabelText("Find a word"), {
      target: { value: "feed per toth" },
    });
    expect(screen.getByText("What a tooth takes.")).toBeTruthy();
    expect(screen.queryByText("The width of the cut.")).toBeNull();
  });

  it("marks the word that was asked for", async () => {
    Element.prototype.scrollIntoView = () => undefined;
    server({ "GET /api/help": HELP });
    render(HelpPage, { params: { key: "kerf" } });
    const asked = (await screen.findByText("The width of the cut.")).closest("article");
    expect(asked?.dataset.asked).toBe("true");
  });
});
