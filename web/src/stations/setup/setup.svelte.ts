import { ask, askPatiently, client, Problem, wordsOf } from "../../api/client";
import type { FaultBody, SetupAnswer, SetupStep, KeyedStep } from "../../api/schema";
import { freshKey, soon, WRITE_KEY } from "../../api/writes";
import { outbox, type WaitingWrite } from "../../lib/sending/outbox.svelte";
import { shop } from "../../lib/shop.svelte";
import { recall, remember } from "../../lib/storage";
import { currentJob } from "../../lib/currentJob.svelte";
import type { Said } from "../../lib/figures/units";
import type { Means } from "./means";

type Figures = Record<string, number | null>;
interface Draft {
  found: Figures;
  left: Figures;
  means: KeyedStep["means"];
}

/** The card in hand: what is recorded, the step shown, and what was typed but not yet recorded. */
export class SetupState {
  answer = $state<SetupAnswer | null>(null);
  missing = $state<Said>("");
  who = $state(recall("who", ""));
  chosen = $state<string | null>(null);
  faults = $state<readonly FaultBody[]>([]);
  refused = $state<Said>("");
  sending = $state(false);
  /** The means of tension asked for here; the shop's rule until one is. */
  picked = $state<Means | null>(null);
  #drafts = $state<Record<string, Draft>>({});

  get steps(): readonly SetupStep[] {
    return this.answer?.card.steps ?? [];
  }

  get means(): Means {
    return this.picked ?? (shop.settings?.rules.tension_means as Means | undefined) ?? "gauge";
  }

  /** Ticked, but disturbed since, or left out of its limits with nobody's reason. */
  #open(state: SetupAnswer["steps"][string]): boolean {
    return state.check_again !== "" || (state.out.length > 0 && !state.allowed_by);
  }

  /** What is kept here of this card and not sent yet, by step. */
  get waiting(): Record<string, WaitingWrite> {
    return this.answer ? outbox.stepsOf(this.answer.id) : {};
  }

  settled(key: string): boolean {
    const waits = this.waiting[key]?.write;
    if (waits?.kind === "step") return waits.body.done || waits.body.skipped !== "";
    const state = this.answer?.steps[key];
    return Boolean((state?.done && !this.#open(state)) || state?.skipped);
  }

  get next(): string | null {
    return this.steps.find((s) => !this.settled(s.key))?.key ?? null;
  }

  get current(): SetupStep | null {
    const key = this.chosen ?? this.next ?? this.steps.at(-1)?.key;
    return this.steps.find((s) => s.key === key) ?? this.steps[0] ?? null;
  }

  get done(): number {
    return this.steps.filter((s) => this.settled(s.key)).length;
  }

  /** Steps that still hold from earlier cards and are not recorded on this one. */
  get holding(): readonly SetupStep[] {
    const { answer } = this;
    return this.steps.filter((s) => answer?.still_good[s.key] && !answer.steps[s.key]);
  }

  /** Takes over all of them at once. */
  async carry(): Promise<void> {
    if (!this.answer) return;
    this.sending = true;
    try {
      const params = { path: { setup_id: this.answer.id } };
      const body = { who: this.who };
      this.#take(await ask(client.POST("/api/setups/{setup_id}/carry", { params, body })));
      this.chosen = null;
    } finally {
      this.sending = false;
    }
  }

  /** The step after the one shown. */
  get after(): SetupStep | null {
    const at = this.steps.findIndex((s) => s.key === this.current?.key);
    return this.steps[at + 1] ?? null;
  }

  show(key: string): void {
    this.chosen = key;
    this.faults = [];
    this.refused = "";
  }

  async load(setup_id: number): Promise<void> {
    try {
      const answer = await askPatiently(() =>
        client.GET("/api/setups/{setup_id}", { params: { path: { setup_id } } }),
      );
      this.#take(answer);
      this.#drafts = recall(`setup.${answer.id}`, {});
      this.missing = "";
      if (currentJob.id !== answer.job_id) await currentJob.open(answer.job_id);
      currentJob.band = answer.option.band;
    } catch (problem) {
      this.answer = null;
      this.missing = wordsOf(problem);
    }
  }

  #take(answer: SetupAnswer): void {
    this.answer = answer;
  }

  /** Figures of a step: what was typed, else what is recorded, else as left last time. */
  draft(key: string): Draft {
    const state = this.answer?.steps[key];
    return (
      this.#drafts[key] ?? {
        found: { ...(state?.found ?? {}) },
        left: { ...(state?.left ?? {}) },
        means: state?.means ?? null,
      }
    );
  }

  /** Kept in the browser as it is typed, so that a closed page loses nothing. */
  type(key: string, change: Partial<Draft>): void {
    this.#drafts = { ...this.#drafts, [key]: { ...this.draft(key), ...change } };
    if (this.answer) remember(`setup.${this.answer.id}`, this.#drafts);
  }

  setFigure(key: string, side: "found" | "left", reading: string, value: number | null): void {
    this.type(key, { [side]: { ...this.draft(key)[side], [reading]: value } });
  }

  /** Records a step; while the server restarts it is sent again, and nothing typed is lost. */
  async record(body: Partial<KeyedStep> & { key: string; done: boolean }): Promise<boolean> {
    const { answer } = this;
    if (!answer) return false;
    const draft = this.draft(body.key);
    const full: KeyedStep = {
      skipped: "",
      note: "",
      authorised_by: "",
      allowed_by: "",
      allowed_why: "",
      still_good: false,
      who: this.who,
      found: known(draft.found),
      left: known(draft.left),
      means: draft.means ?? null,
      ...body,
    };
    this.sending = true;
    try {
      await this.#sendOrKeep(answer, full);
      this.faults = [];
      this.refused = "";
      this.chosen = null;
      const rest = Object.fromEntries(
        Object.entries(this.#drafts).filter(([key]) => key !== body.key),
      );
      this.#drafts = rest;
      remember(`setup.${answer.id}`, rest);
      remember("who", this.who);
      return true;
    } catch (problem) {
      this.faults = problem instanceof Problem ? problem.errors : [];
      this.refused = wordsOf(problem);
      return false;
    } finally {
      this.sending = false;
    }
  }

  /** A step goes to the server; where that is away, or others wait before it, it waits in order. */
  async #sendOrKeep(answer: SetupAnswer, body: KeyedStep): Promise<void> {
    const params = { path: { setup_id: answer.id } };
    // One tap, one key: whether its answer is lost, or it waits, it is done once.
    const key = freshKey();
    const headers = { [WRITE_KEY]: key };
    try {
      if (outbox.count > 0) await outbox.sendSoon();
      if (Object.keys(this.waiting).length > 0) throw new Problem("unreachable", "", 0);
      this.#take(
        await ask(
          client.POST("/api/setups/{setup_id}/steps", { params, body, headers, signal: soon() }),
        ),
      );
    } catch (problem) {
      if (!(problem instanceof Problem) || !problem.unreachable) throw problem;
      const title = this.steps.find((s) => s.key === body.key)?.title ?? body.key;
      const write = { kind: "step" as const, setup_id: answer.id, body };
      const told = `${title}, card of job ${answer.job_id}`;
      await outbox.later(write, told, `#/setup/${answer.id}`, key);
      return;
    }
    if (this.steps.find((s) => s.key === body.key)?.moves_saw) await shop.loadSaws();
  }

  async acknowledge(key: string, name: string, means = ""): Promise<void> {
    if (!this.answer) return;
    const path = { setup_id: this.answer.id };
    const body = { key, name, means };
    this.#take(
      await ask(client.POST("/api/setups/{setup_id}/acknowledge", { params: { path }, body })),
    );
  }

  async finish(): Promise<void> {
    if (!this.answer) return;
    const path = { setup_id: this.answer.id };
    this.#take(await ask(client.POST("/api/setups/{setup_id}/finish", { params: { path } })));
    await currentJob.reload();
  }
}

function known(figures: Figures): Record<string, number> {
  const filled = Object.entries(figures).filter(
    (entry): entry is [string, number] => entry[1] !== null,
  );
  return Object.fromEntries(filled);
}
