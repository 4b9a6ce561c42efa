import { ask, askPatiently, client } from "../api/client";
import type { BandFigures, JobAnswer, JobInput } from "../api/schema";
import { freshKey } from "../api/writes";
import { Edit, type Place } from "./edit.svelte";
import { shop } from "./shop.svelte";
import { recall, remember } from "./storage";

export type Draft = Required<JobInput>;

const BLANK: Draft = {
  operation: "resaw",
  material: "european_larch_dry",
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
  name: "",
  note: "",
  rules: {},
  what_if: null,
  saw_id: null,
  band_id: null,
};

const KEYS = Object.keys(BLANK) as (keyof Draft)[];

function draftOf(job: JobAnswer): Draft {
  const copy = Object.fromEntries(KEYS.map((k) => [k, job[k as keyof JobAnswer]]));
  return copy as unknown as Draft;
}

/** A draft of a job that is not saved has a name of its own in this browser. */
const NEW = "new.";

function placeOf(key: string, title: string): Place {
  return { key: `job.${key}`, title: title || "A new job", href: `#/plan/${key}` };
}

/** The job in hand: it travels across the top of every station, saved or still a draft. */
class CurrentJob {
  /** As it was last read; what is typed over it is in `edit`. */
  job = $state<JobAnswer | null>(recall<JobAnswer | null>("ticket.job", null));
  edit = $state.raw<Edit<Draft>>(this.#begin(recall("ticket.key", NEW + "first"), null));
  /** The band in hand, drawn down the ribbon: what Plan answers or the set-up card holds. */
  band = $state<BandFigures | null>(null);

  get id(): number | null {
    return this.job?.id ?? null;
  }

  get draft(): Draft {
    return this.edit.draft;
  }

  get changed(): boolean {
    return this.job === null || this.edit.changed;
  }

  get name(): string {
    return this.draft.name || (this.id === null ? "New job" : `Job ${this.id}`);
  }

  change(change: Partial<Draft>): void {
    // What an outline told of the path goes with its radius.
    const typed = "min_radius_mm" in change || "operation" in change;
    this.edit.set(typed && !("stretches" in change) ? { ...change, stretches: [] } : change);
  }

  /** The edit of the job in hand, or of a new one: with what this browser kept of it. */
  #begin(newKey: string, sawId: number | null): Edit<Draft> {
    const job = this.job;
    if (job) return new Edit(placeOf(String(job.id), job.name), draftOf(job), job.version);
    // A new job starts with one that its saw is made for, as the core has it.
    const first = shop.saw(sawId)?.first_job as Partial<Draft> | undefined;
    return new Edit(placeOf(newKey, ""), { ...BLANK, ...first, saw_id: sawId }, 0);
  }

  #hold(job: JobAnswer | null): void {
    this.job = job;
    remember("ticket.job", job);
  }

  /** Takes a job in hand; what was typed over it before is still there, and so is the other's. */
  take(job: JobAnswer): void {
    if (this.id !== job.id) {
      this.band = null;
      this.edit.left();
    }
    this.#hold(job);
    this.edit = this.#begin("", null);
  }

  /** A saw for a new job that nobody has touched yet. */
  begin(sawId: number): void {
    if (this.job === null && !this.edit.changed) this.startNew(sawId);
    else this.change({ saw_id: sawId });
  }

  startNew(sawId: number | null): void {
    if (this.job === null && !this.edit.changed) {
      this.edit = this.#begin(this.edit.place.key.slice("job.".length), sawId);
      return;
    }
    this.edit.left();
    this.#resume(NEW + freshKey(), sawId);
  }

  /** Takes a draft in hand that was never saved. */
  resume(key: string): void {
    if (this.job === null && this.edit.place.key === `job.${key}`) return;
    this.edit.left();
    this.#resume(key, null);
  }

  #resume(key: string, sawId: number | null): void {
    this.#hold(null);
    this.band = null;
    remember("ticket.key", key);
    this.edit = this.#begin(key, sawId);
  }

  /** Opens a saved job; a draft of the same job that was being edited is kept. */
  async open(id: number): Promise<void> {
    const job = await this.#read(id);
    if (this.id !== id) this.take(job);
    else this.#renew(job, job.version !== this.edit.version && this.edit.changed);
  }

  /** Reads the job anew after something was done with it here; what is typed stays. */
  async reload(): Promise<void> {
    if (this.id !== null) this.#renew(await this.#read(this.id), false);
  }

  #read(job_id: number): Promise<JobAnswer> {
    const params = { path: { job_id } };
    return askPatiently(() => client.GET("/api/jobs/{job_id}", { params }));
  }

  #renew(job: JobAnswer, elsewhere: boolean): void {
    this.#hold(job);
    if (elsewhere) this.edit.meet(draftOf(job), job.version);
    else this.edit.renew(draftOf(job), job.version);
  }

  /** Keeps what is tried out as a job of its own beside the one it came from. */
  async saveVariant(): Promise<JobAnswer> {
    const name = `${this.draft.name || "Job"}, what if`.slice(0, 120);
    const job = await ask(client.POST("/api/jobs", { body: { ...this.draft, name } }));
    this.edit.discard();
    this.take(job);
    return job;
  }

  /** Saves what was changed; null when somebody else saved it meanwhile, and both are shown. */
  async save(): Promise<JobAnswer | null> {
    if (this.job && !this.edit.changed) return this.job;
    const job_id = this.id;
    const params = { path: { job_id: job_id ?? 0 } };
    const job = await this.edit.save((body) =>
      job_id === null
        ? ask(client.POST("/api/jobs", { body: this.draft }))
        : ask(client.PATCH("/api/jobs/{job_id}", { params, body })),
    );
    if (job) this.take(job);
    return job;
  }
}

export const currentJob = new CurrentJob();
