import { ask, askPatiently, client, Problem, wordsOf } from "../../api/client";
import type {
  Compared,
  FaultBody,
  FeedFigures,
  PlanAnswer,
  PlanInput,
  SwayAnswer,
} from "../../api/schema";
import { Latest } from "../../lib/sending/latest";
import { currentJob } from "../../lib/currentJob.svelte";
import { together, type Said } from "../../lib/figures/units";
import { labelOf } from "./sentences";

/** The question in hand and its answer; only the latest answer is ever taken. */
export class PlanState {
  answer = $state<PlanAnswer | null>(null);
  faults = $state<readonly FaultBody[]>([]);
  failed = $state<Said>("");
  stale = $state(false);
  compared = $state<Compared[]>([]);
  chosen = $state<number[]>([]);
  /** Feed at the handle and its figures, once it was moved. */
  feed = $state<number | null>(null);
  atFeed = $state<FeedFigures | null>(null);
  #plans = new Latest();
  #feeds = new Latest();
  #compares = new Latest();
  #sways = new Latest();

  get figures(): FeedFigures | null {
    return this.atFeed ?? this.answer?.best?.figures ?? null;
  }

  question(): PlanInput | null {
    const d = currentJob.draft;
    if (d.saw_id === null) return null;
    const { name, note, band_id, saw_id, ...cut } = d;
    void [name, note, band_id];
    return { ...cut, saw_id };
  }

  async ask(question: PlanInput): Promise<void> {
    this.stale = true;
    try {
      const answer = await this.#plans.take(() =>
        askPatiently(() => client.POST("/api/plan", { body: question })),
      );
      if (!answer) return;
      this.answer = answer;
      currentJob.band = answer.best?.band ?? null;
      this.feed = null;
      this.atFeed = null;
      this.faults = [];
      this.failed = "";
    } catch (problem) {
      const known = problem instanceof Problem ? problem : null;
      this.faults = known?.errors ?? [];
      const told = this.faults.map((f, i) =>
        together(i ? "; " : "", `${labelOf(f.path) || f.path}: `, f.message),
      );
      this.failed = told.length > 0 ? together(...told) : wordsOf(problem);
    }
    this.stale = false;
  }

  /** Puts a band into the comparison, or takes it out; four at most. */
  choose(id: number): void {
    this.chosen = this.chosen.includes(id)
      ? this.chosen.filter((c) => c !== id)
      : [...this.chosen, id].slice(-4);
  }

  async compare(question: PlanInput, band_ids: number[]): Promise<void> {
    const body = { ...question, band_ids };
    const found = await this.#compares.take(() => ask(client.POST("/api/plan/compare", { body })));
    if (found) this.compared = found;
  }

  /** What the choice leans on; asked for only when someone looks. */
  async leansOn(question: PlanInput): Promise<SwayAnswer | null> {
    return this.#sways.take(() => ask(client.POST("/api/plan/sway", { body: question })));
  }

  async moveFeed(feed: number): Promise<void> {
    const question = this.question();
    const band = this.answer?.best?.band;
    if (!question || !band?.band_id) return;
    this.feed = feed;
    const body = { ...question, feed_m_min: feed, band_id: band.band_id };
    const at = await this.#feeds.take(() => ask(client.POST("/api/plan/feed", { body })));
    if (at && this.feed !== null) this.atFeed = at;
  }
}
