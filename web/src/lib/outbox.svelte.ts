import { looksRound } from "./yard";
import Dexie, { liveQuery, type Table } from "dexie";

import { ask, client, Problem, wordsOf } from "../api/client";
import type { RunAnswer, RunInput } from "../api/schema";
import { recall, forget } from "./storage";
import type { Said } from "./units";

const RETRY_MS = 5000;
/** After so many errors of the server's own on one run, the others go first. */
const TRIES = 3;
const LATER_MS = 10 * 60_000;

/** A run written down here and not taken by the server yet. */
export interface WaitingRun {
  readonly key: string;
  readonly run: RunInput;
  /** When it was written down, by this device's clock (ms), and by the page's own since it opened. */
  readonly logged: number;
  readonly page: number;
  readonly mark: number;
  readonly tries: number;
  readonly tried: number;
  /** Why the server refused it; empty while it waits. */
  readonly refused: Said;
}

class RunStore extends Dexie {
  runs!: Table<WaitingRun, string>;

  constructor() {
    super(looksRound ? "jade-ribbon-sample" : "jade-ribbon");
    this.version(1).stores({ runs: "key, logged" });
  }
}

/** How long a run has waited, in seconds; null where this device's clock was set back meanwhile. */
export function waitedSeconds(entry: WaitingRun): number | null {
  const here = entry.page === performance.timeOrigin;
  const ms = here ? performance.now() - entry.mark : Date.now() - entry.logged;
  return ms < 0 ? null : ms / 1000;
}

/**
 * Runs written down here and not yet taken by the server: kept in the browser's database, one entry a
 * run, sent by one tab at a time, whatever page is open.
 */
class Outbox {
  entries = $state.raw<WaitingRun[]>([]);
  last = $state<RunAnswer | null>(null);
  #store = new RunStore();
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
    void this.#takeOver();
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
    return {
      key: run.client_key,
      run,
      logged: Date.now(),
      page: performance.timeOrigin,
      mark: performance.now(),
      tries: 0,
      tried: 0,
      refused: "",
    };
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
    for (const entry of await this.#store.runs.orderBy("logged").toArray()) {
      const passed = entry.tries >= TRIES && Date.now() - entry.tried < LATER_MS;
      if (entry.refused || passed || this.#held.has(entry.key)) continue;
      if ((await this.#sendOne(entry)) === "away") break;
    }
  }

  async #sendOne(entry: WaitingRun): Promise<"done" | "later" | "away"> {
    const waited_s = waitedSeconds(entry);
    const timed = waited_s === null ? {} : { waited_s };
    try {
      this.last = await ask(client.POST("/api/runs", { body: { ...entry.run, ...timed } }));
    } catch (problem) {
      if (problem instanceof Problem && problem.refuses) {
        await this.#store.runs.update(entry.key, { refused: wordsOf(problem) });
        return "done";
      }
      // An error of the server's own over this run; anything else says that it is away.
      if (!(problem instanceof Problem) || problem.code !== "internal") return "away";
      await this.#store.runs.update(entry.key, { tries: entry.tries + 1, tried: Date.now() });
      return "later";
    }
    await this.#store.runs.delete(entry.key);
    return "done";
  }
}

export const outbox = new Outbox();
