import { ask, askPatiently, client } from "../api/client";
import type { BandFigures, JobAnswer, JobInput } from "../api/schema";
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
  name: "",
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

/** The job in hand: it travels across the top of every station, saved or still a draft. */
class Ticket {
  id = $state<number | null>(recall<number | null>("ticket.id", null));
  job = $state<JobAnswer | null>(null);
  draft = $state<Draft>({ ...BLANK, ...recall<Partial<Draft>>("ticket.draft", {}) });
  /** The band in hand, drawn down the ribbon: what Plan answers or the set-up card holds. */
  band = $state<BandFigures | null>(null);

  get changed(): boolean {
    if (!this.job) return true;
    const saved = draftOf(this.job);
    return KEYS.some((k) => JSON.stringify(saved[k]) !== JSON.stringify(this.draft[k]));
  }

  get name(): string {
    return this.draft.name || (this.id === null ? "New job" : `Job ${this.id}`);
  }

  edit(change: Partial<Draft>): void {
    this.draft = { ...this.draft, ...change };
    this.#keep();
  }

  #keep(): void {
    remember("ticket.draft", this.draft);
    remember("ticket.id", this.id);
  }

  take(job: JobAnswer): void {
    if (this.id !== job.id) this.band = null;
    this.id = job.id;
    this.job = job;
    this.draft = draftOf(job);
    this.#keep();
  }

  startNew(sawId: number | null): void {
    this.id = null;
    this.job = null;
    this.draft = { ...BLANK, saw_id: sawId };
    this.band = null;
    this.#keep();
  }

  /** Opens a saved job; a draft of the same job that was being edited is kept. */
  async open(id: number): Promise<void> {
    const job = await askPatiently(() =>
      client.GET("/api/jobs/{job_id}", { params: { path: { job_id: id } } }),
    );
    if (this.id === id) this.job = job;
    else this.take(job);
  }

  async reload(): Promise<void> {
    if (this.id === null) return;
    const params = { path: { job_id: this.id } };
    this.take(await askPatiently(() => client.GET("/api/jobs/{job_id}", { params })));
  }

  /** Keeps what is tried out as a job of its own beside the one it came from. */
  async saveVariant(): Promise<JobAnswer> {
    this.id = null;
    this.job = null;
    this.draft = { ...this.draft, name: `${this.draft.name || "Job"}, what if`.slice(0, 120) };
    return this.save();
  }

  async save(): Promise<JobAnswer> {
    const body = this.draft;
    const job =
      this.id === null
        ? await ask(client.POST("/api/jobs", { body }))
        : await ask(
            client.PUT("/api/jobs/{job_id}", { params: { path: { job_id: this.id } }, body }),
          );
    this.take(job);
    return job;
  }
}

export const ticket = new Ticket();
