import { liveQuery } from "dexie";

import { ask, client, Problem, wordsOf } from "../api/client";
import type { RunAnswer, RunInput } from "../api/schema";
import { freshKey, WAITED, WRITE_KEY } from "../api/writes";
import {
  OutboxStore,
  stamp,
  waitedSeconds,
  type WaitingRun,
  type WaitingWrite,
} from "./outboxStore";
import { recall, forget } from "./storage";

export { waitedSeconds, type WaitingRun, type WaitingWrite } from "./outboxStore";

const RETRY_MS = 5000;
/** After so many errors of the server's own on one run, the others go first. */
const TRIES = 3;
const LATER_MS = 10 * 60_000;

/**
 * Runs, steps and what happened to bands, written down here and not yet taken by the server: kept in
 * the browser's database, one entry a write, sent in their order, by one tab at a time, whatever page
 * is open.
 */
class Outbox {
  entries = $state.raw<WaitingRun[]>([]);
  writes = $state.raw<WaitingWrite[]>([]);
  last = $state<RunAnswer | null>(null);
  /** Counts what was taken, so that a page can read anew what it shows. */
  taken = $state(0);
  #store = new OutboxStore();
  #sending: Promise<void> | null = null;
  #timer: ReturnType<typeof setTimeout> | undefined;
  /** Runs that somebody is putting right: none is sent from under their hands. */
  #held = new Set<string>();

  constructor() {
    globalThis.addEventListener?.("online", () => void this.send());
    // What another tab adds or sends is seen here too.
    liveQuery(() => this.#store.runs.orderBy("logged").toArray()).subscribe({
      next: (found) => {
        this.entries = found;
        if (found.some((e) => !e.refused)) this.#again();
      },
      error: () => undefined,
    });
    liveQuery(() => this.#store.writes.orderBy("logged").toArray()).subscribe({
      next: (found) => {
        this.writes = found;
        if (found.some((e) => !e.refused)) this.#again();
      },
      error: () => undefined,
    });
    void this.#takeOver();
  }

  /** How much is not sent: runs, steps, events. */
  get count(): number {
    return this.entries.length + this.writes.length;
  }

  get anyRefused(): boolean {
    return [...this.entries, ...this.writes].some((e) => e.refused);
  }

  get waiting(): WaitingRun[] {
    return this.entries.filter((e) => !e.refused);
  }

  get refused(): WaitingRun[] {
    return this.entries.filter((e) => e.refused);
  }

  /** Runs that an older version of this page kept elsewhere. */
  async #takeOver(): Promise<void> {
    const old = recall<RunInput[]>("outbox", []);
    if (old.length === 0) return;
    for (const run of old) await this.#store.runs.put(this.#entry(run));
    forget("outbox");
    await this.send();
  }

  #entry(run: RunInput): WaitingRun {
    return { ...stamp(run.client_key), run };
  }

  /**
   * Keeps the run first, then sends it; its key makes sending it twice harmless. Throws when it could
   * neither be kept nor sent: the form that holds it must go on holding it.
   */
  async log(run: RunInput): Promise<"sent" | "kept" | "refused"> {
    const entry = this.#entry(run);
    try {
      await this.#store.runs.put(entry);
    } catch {
      this.last = await ask(client.POST("/api/runs", { body: { ...run, waited_s: 0 } }));
      return "sent";
    }
    await this.send();
    const left = await this.#store.runs.get(entry.key);
    return left === undefined ? "sent" : left.refused ? "refused" : "kept";
  }

  /** Keeps a step or an event that could not be sent; it goes as soon as the server answers. */
  async later(write: WaitingWrite["write"], title: string, href: string): Promise<void> {
    await this.#store.writes.put({ ...stamp(freshKey()), write, title, href });
    this.#again();
  }

  /** What waits of a card, by step, the latest of each. */
  stepsOf(setup_id: number): Record<string, WaitingWrite> {
    const mine = this.writes.filter(
      (w) => w.write.kind === "step" && w.write.setup_id === setup_id,
    );
    return Object.fromEntries(mine.map((w) => [(w.write.body as { key: string }).key, w]));
  }

  async dropWrite(key: string): Promise<void> {
    await this.#store.writes.delete(key);
  }

  /** Another try for a write that was refused. */
  async tryAgain(key: string): Promise<void> {
    await this.#store.writes.update(key, { refused: "", tries: 0, tried: 0 });
    await this.send();
  }

  hold(key: string): void {
    this.#held.add(key);
  }

  /** Lets the runs that were being put right go again. */
  release(): void {
    this.#held.clear();
    void this.send();
  }

  /** Another try for one that was refused or changed by hand. */
  async change(key: string, change: Partial<RunInput>): Promise<void> {
    const entry = await this.#store.runs.get(key);
    this.#held.delete(key);
    if (!entry) return;
    await this.#store.runs.put({
      ...entry,
      run: { ...entry.run, ...change },
      tries: 0,
      tried: 0,
      refused: "",
    });
    await this.send();
  }

  async drop(key: string): Promise<WaitingRun | undefined> {
    const entry = await this.#store.runs.get(key);
    await this.#store.runs.delete(key);
    return entry;
  }

  async putBack(entry: WaitingRun): Promise<void> {
    await this.#store.runs.put(entry);
  }

  async clear(): Promise<void> {
    await this.#store.runs.clear();
    await this.#store.writes.clear();
  }

  #again(): void {
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.send(), RETRY_MS);
  }

  /** Sends what waits; one tab at a time where the browser can tell. */
  send(): Promise<void> {
    this.#sending ??= this.#alone().finally(() => {
      this.#sending = null;
    });
    return this.#sending;
  }

  async #alone(): Promise<void> {
    const locks = (globalThis.navigator as { locks?: LockManager } | undefined)?.locks;
    if (!locks) return this.#round();
    await locks.request("jade-ribbon.outbox", () => this.#round());
  }

  async #round(): Promise<void> {
    const runs = await this.#store.runs.toArray();
    const writes = await this.#store.writes.toArray();
    for (const entry of [...runs, ...writes].sort((a, b) => a.logged - b.logged)) {
      const passed = entry.tries >= TRIES && Date.now() - entry.tried < LATER_MS;
      if (entry.refused || passed || this.#held.has(entry.key)) continue;
      if ((await this.#sendOne(entry)) === "away") break;
    }
  }

  async #take(entry: WaitingRun | WaitingWrite): Promise<void> {
    const waited_s = waitedSeconds(entry);
    if ("run" in entry) {
      const timed = waited_s === null ? {} : { waited_s };
      this.last = await ask(client.POST("/api/runs", { body: { ...entry.run, ...timed } }));
      return;
    }
    const { write } = entry;
    // Beside the body, which is the same at every try.
    const waited = waited_s === null ? {} : { [WAITED]: String(waited_s) };
    const headers = { [WRITE_KEY]: entry.key, ...waited };
    if (write.kind === "step") {
      const { setup_id, body } = write;
      const params = { path: { setup_id } };
      await ask(client.POST("/api/setups/{setup_id}/steps", { params, body, headers }));
    } else {
      const { band_id, body } = write;
      const params = { path: { band_id } };
      await ask(client.POST("/api/bands/{band_id}/events", { params, body, headers }));
    }
  }

  async #sendOne(entry: WaitingRun | WaitingWrite): Promise<"done" | "later" | "away"> {
    const table = "run" in entry ? this.#store.runs : this.#store.writes;
    try {
      await this.#take(entry);
    } catch (problem) {
      if (problem instanceof Problem && problem.refuses) {
        await table.update(entry.key, { refused: wordsOf(problem) });
        return "done";
      }
      // An error of the server's own over this one; anything else says that it is away.
      if (!(problem instanceof Problem) || problem.code !== "internal") return "away";
      await table.update(entry.key, { tries: entry.tries + 1, tried: Date.now() });
      return "later";
    }
    await table.delete(entry.key);
    this.taken += 1;
    return "done";
  }
}

export const outbox = new Outbox();
