import { beforeEach, describe, expect, it, vi } from "vitest";

import { Problem } from "../api/client";
import type { JobAnswer } from "../api/schema";
import { server } from "../tests/server";
import { Edit, unsaved } from "./edit.svelte";
import { notice } from "./notice.svelte";
import { recall, remember } from "./storage";
import { invalidFields } from "./invalidFields.svelte";
import { currentJob } from "./currentJob.svelte";

const PLACE = { key: "band.7", title: "Band K-07", href: "#/rack/7" };
const BAND = { label: "K-07", place: "loft", note: "" };

beforeEach(() => {
  vi.restoreAllMocks();
  localStorage.clear();
});

describe("a field that cannot be read", () => {
  it("lets nothing be saved with what stood there before", async () => {
    const edit = new Edit(PLACE, BAND, 3);
    edit.set({ place: "rack" });
    const send = vi.fn(() => Promise.resolve({}));
    invalidFields.set("c1", true);
    await expect(edit.save(send)).rejects.toThrow("put it right");
    expect(send).not.toHaveBeenCalled();
    invalidFields.set("c1", false);
    await edit.save(send);
    expect(send).toHaveBeenCalledOnce();
  });
});

describe("an edit", () => {
  it("sends only what was changed, on the version it was read as", async () => {
    const edit = new Edit(PLACE, BAND, 3);
    edit.set({ note: "keen" });
    const send = vi.fn(() => Promise.resolve("saved"));
    expect(await edit.save(send)).toBe("saved");
    expect(send).toHaveBeenCalledWith({ note: "keen", version: 3 });
    expect(unsaved()).toEqual([]);
  });

  it("is still there when its page is opened again, until it is given up", () => {
    new Edit(PLACE, BAND, 3).set({ note: "keen" });
    const again = new Edit(PLACE, BAND, 3);
    expect([again.found, again.draft.note]).toEqual([true, "keen"]);
    expect(unsaved().map(([key, kept]) => [key, kept.title])).toEqual([["band.7", "Band K-07"]]);
    again.discard();
    expect(new Edit(PLACE, BAND, 3).found).toBe(false);
  });

  it("is not in the way once everything is as it was", () => {
    const edit = new Edit(PLACE, BAND, 3);
    edit.set({ note: "keen" });
    edit.set({ note: "" });
    expect([edit.changed, unsaved()]).toEqual([false, []]);
  });

  it("shows both when somebody else saved meanwhile, and goes on with mine on top", async () => {
    const edit = new Edit(PLACE, BAND, 3);
    edit.set({ note: "mine" });
    const theirs = { ...BAND, note: "theirs", place: "shed", version: 4 };
    const stale = new Problem("stale", "x", 409, [], theirs);
    expect(await edit.save(() => Promise.reject(stale))).toBe(null);
    expect(edit.met.map((m) => [m.field, m.was, m.now, m.mine])).toEqual([
      ["place", "loft", "shed", "shed"],
      ["note", "", "theirs", "mine"],
    ]);
    edit.keepMine();
    const send = vi.fn(() => Promise.resolve("saved"));
    await edit.save(send);
    expect(send).toHaveBeenCalledWith({ note: "mine", version: 4 });
  });

  it("takes what is there where it is given up", async () => {
    const edit = new Edit(PLACE, BAND, 3);
    edit.set({ note: "mine" });
    const stale = new Problem("stale", "x", 409, [], { note: "theirs", version: 4 });
    await edit.save(() => Promise.reject(stale));
    edit.discard();
    expect([edit.draft.note, edit.met, edit.version]).toEqual(["theirs", [], 4]);
  });

  it("kept from an older version meets the newer when it is opened", () => {
    new Edit(PLACE, BAND, 3).set({ note: "mine" });
    const again = new Edit(PLACE, { ...BAND, place: "shed" }, 4);
    expect(again.met.map((m) => m.field)).toEqual(["place"]);
    expect(again.draft).toEqual({ ...BAND, place: "shed", note: "mine" });
  });

  it("any other failure leaves it as it is", async () => {
    const edit = new Edit(PLACE, BAND, 3);
    edit.set({ note: "mine" });
    const failing = edit.save(() => Promise.reject(new Problem("input", "no", 422)));
    await expect(failing).rejects.toThrow("no");
    expect(unsaved()).toHaveLength(1);
  });

  it("says so when the browser keeps no more, and when its page is left", () => {
    const edit = new Edit(PLACE, BAND, 3);
    vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    edit.set({ note: "mine" });
    expect(notice.text).toContain("store is full");
    edit.left();
    expect(notice.text).toContain("Band K-07 is not saved");
  });
});

const JOB = {
  id: 5,
  name: "Strakes",
  operation: "resaw",
  material: "european_larch_dry",
  material_name: "European larch (dry)",
  height_mm: 185,
  length_mm: 3600,
  count: 7,
  slice_mm: 14,
  billet_mm: null,
  min_radius_mm: null,
  angle_deg: 0,
  finish: "plane",
  tolerance_mm: 0.8,
  round_stock: false,
  wall_mm: null,
  log_diameter_mm: null,
  stood_on_end: false,
  backing_mm: 0,
  stack: 1,
  throat_need_mm: null,
  last_face_sawn: false,
  stretches: [],
  rules: {},
  what_if: null,
  saw_id: 2,
  saw_name: "Shop saw",
  band_id: null,
  band_label: null,
  stock_id: null,
  state: "planned",
  done_pieces: 0,
  note: "",
  setup_id: null,
  updated_at: "2026-01-01T00:00:00Z",
  version: 3,
} satisfies JobAnswer;

describe("the ticket", () => {
  it("knows a draft from a saved job, and what was edited", () => {
    currentJob.startNew(2);
    expect([currentJob.name, currentJob.changed, currentJob.draft.saw_id]).toEqual([
      "New job",
      true,
      2,
    ]);
    currentJob.take(JOB);
    expect([currentJob.name, currentJob.changed]).toEqual(["Strakes", false]);
    currentJob.change({ height_mm: 120 });
    expect(currentJob.changed).toBe(true);
  });

  it("keeps the draft of each job when another is opened, or a new one is begun", () => {
    currentJob.take(JOB);
    currentJob.change({ height_mm: 120 });
    currentJob.take({ ...JOB, id: 6, name: "Ribs" });
    expect(notice.text).toContain("Strakes is not saved");
    expect(currentJob.draft.height_mm).toBe(185);
    currentJob.startNew(2);
    currentJob.change({ height_mm: 77 });
    const [key] = unsaved()[0] ?? [""];
    currentJob.startNew(2);
    expect(currentJob.draft.height_mm).toBe(185);
    currentJob.resume(key.replace("job.", ""));
    expect([currentJob.id, currentJob.draft.height_mm]).toEqual([null, 77]);
    currentJob.take(JOB);
    expect(currentJob.draft.height_mm).toBe(120);
  });

  it("reads its job anew and keeps what was typed over it", async () => {
    currentJob.take(JOB);
    currentJob.change({ height_mm: 120 });
    server({ "GET /api/jobs/5": { ...JOB, state: "running", version: 4 } });
    await currentJob.reload();
    expect([currentJob.job?.state, currentJob.draft.height_mm, currentJob.edit.met]).toEqual([
      "running",
      120,
      [],
    ]);
    server({ "GET /api/jobs/5": { ...JOB, height_mm: 200, version: 5 } });
    await currentJob.open(5);
    expect(currentJob.edit.met.map((m) => [m.field, m.now, m.mine])).toEqual([
      ["height_mm", 200, 120],
    ]);
    currentJob.edit.discard();
  });

  it("saves a new job whole and of a known one what was changed", async () => {
    currentJob.startNew(2);
    const { sent } = server({ "POST /api/jobs": JOB, "PATCH /api/jobs/5": { ...JOB, version: 4 } });
    await currentJob.save();
    expect(await currentJob.save()).toMatchObject({ version: 3 });
    currentJob.change({ height_mm: 120 });
    await currentJob.save();
    expect(await sent("PATCH")).toEqual([{ height_mm: 120, version: 3 }]);
    expect([currentJob.id, recall<JobAnswer | null>("ticket.job", null)?.version]).toEqual([5, 4]);
  });

  it("keeps a variant beside the job, never over it", async () => {
    currentJob.take(JOB);
    currentJob.change({ what_if: { motor_kW: 3 } });
    const { sent } = server({ "POST /api/jobs": { ...JOB, id: 6, name: "Strakes, what if" } });
    await currentJob.saveVariant();
    expect((await sent("POST"))[0]).toMatchObject({ name: "Strakes, what if" });
    expect([currentJob.id, unsaved()]).toEqual([6, []]);
  });
});

describe("what is kept in the browser", () => {
  it("is not lost to a store that is full", () => {
    expect(remember("x", 1)).toBe(true);
    vi.spyOn(Storage.prototype, "setItem").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    expect(remember("x", 2)).toBe(false);
    expect(recall("x", 0)).toBe(1);
  });
});
