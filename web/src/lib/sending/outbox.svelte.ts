import { liveQuery } from "dexie";

import { ask, client, Problem, wordsOf } from "../../api/client";
import type { RunAnswer, RunInput } from "../../api/schema";
import { freshKey, TOLD_MS, WAITED, WRITE_KEY } from "../../api/writes";
import {
  HELD_MS,
  type LoggedRun,
  OutboxStore,
  stamp,
  waitedSeconds,
  type Waiting,
  type WaitingRun,
  type WaitingWrite,
} from "./outboxStore";
import { forget, recall } from "../storage";

export { waitedSeconds, type WaitingRun, type WaitingWrite } from "./outboxStore";

const RETRY_MS = 5000;
/** A send that is not answered by then is taken for lost; it is sent again under its key. */
const SEND_MS = 10_000;
/** After so many errors of the server's own on one entry, the others go first. */
const TRIES = 3;
const LATER_MS = 10 * 60_000;
const TAKEN_MS = 3_600_000;
const LOCK = "jade-ribbon.outbox";
const KNOWN = "known";

type Came = "sent" | "kept" | "refused";
/** What a correction came to: on its way, or too late, and the run is in the shop as it was. */
export type Corrected = "waits" | "was_sent";

/** A run without what the outbox adds: its key is drawn here. */
export type NewRun = Omit<RunInput, "client_key">;

/**
 * Runs, steps and what happened to bands, written down here and not yet taken by the server: kept in
 * the browser's database, one entry a tap under a key of its own, sent in the order they were written
 * down, by one tab at a time, whatever page is open.
 */
class Outbox {
  entries = $state.raw<WaitingRun[]>([]);
  writes = $state.raw<WaitingWrite[]>([]);
  last = $state<RunAnswer | null>(null);
  /** Counts what was taken, so that a page can read anew what it shows. */
  taken = $state(0);
  /** A run that was sent although it was being given up: somebody is to be told. */
  sentAnyway = $state<RunAnswer | null>(null);
  #store = new OutboxStore();
  #sending: Promise<void> | null = null;
  #waitsSince = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    globalThis.addEventListener?.("online", () => void this.send());
    // What another tab adds or sends is seen here too.
    liveQuery(() => this.#store.waiting.orderBy("seq").toArray()).subscribe({
      next: (found) => {
        this.entries = found.filter((e): e is WaitingRun => "run" in e);
        this.writes = found.filter((e): e is WaitingWrite => "write" in e);
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
    for (const run of old) await this.#add({ ...stamp(run.client_key), run });
    forget("outbox");
    await this.send();
  }

  /** Once, and never over what is there already. */
  async #add(entry: Waiting): Promise<void> {
    await this.#store.transaction("rw", this.#store.waiting, async () => {
      if (!(await this.#store.one(entry.key))) await this.#store.waiting.add(entry);
    });
  }

  /**
   * Keeps a run under a key of its own: from here on it is the outbox's, and its form can be forgotten.
   * Throws when it could neither be kept nor sent: the form that holds it must go on holding it.
   */
  async keep(run: NewRun): Promise<string> {
    const key = freshKey();
    const entry: WaitingRun = { ...stamp(key), run: { ...run, client_key: key } };
    try {
      await this.#add(entry);
    } catch {
      await this.#takeRun({ ...entry, mark: performance.now() });
    }
    return key;
  }

  /** Sends what waits, and goes on after a moment whatever came of it. */
  async sendSoon(): Promise<void> {
    await Promise.race([this.send(), new Promise((done) => setTimeout(done, TOLD_MS))]);
  }

  /** Sends what waits; what came of one entry, told within two seconds. */
  async came(key: string): Promise<Came> {
    await this.sendSoon();
    const left = await this.#store.one(key).catch(() => undefined);
    return left === undefined ? "sent" : left.refused ? "refused" : "kept";
  }

  /** Keeps a run, then sends it. */
  async log(run: NewRun): Promise<Came> {
    return this.came(await this.keep(run));
  }

  /**
   * Keeps a step or an event that could not be sent, under the key of the tap that was tried; it goes
   * as soon as the server answers.
   */
  async later(
    write: WaitingWrite["write"],
    title: string,
    href: string,
    key: string,
  ): Promise<void> {
    await this.#add({ ...stamp(key), write, title, href });
    this.#again();
  }

  /** What waits of a card, by step, the latest of each. */
  stepsOf(setup_id: number): Record<string, WaitingWrite> {
    const mine = this.writes.filter(
      (w) => w.write.kind === "step" && w.write.setup_id === setup_id,
    );
    return Object.fromEntries(mine.map((w) => [(w.write.body as { key: string }).key, w]));
  }

  /** Another try for a write that was refused. */
  async tryAgain(key: string): Promise<void> {
    await this.#store.change(key, (e) => ({ refused: "", tries: 0, tried: 0, rev: e.rev + 1 }));
    await this.send();
  }

  /** Somebody puts it right: no tab sends it from under the hands, for a while. */
  async hold(key: string): Promise<void> {
    await this.#store.change(key, () => ({ held: Date.now() }));
  }

  /** Lets the runs that were being put right go again. */
  async release(keys: readonly string[]): Promise<void> {
    for (const key of keys) await this.#store.change(key, () => ({ held: 0 }));
    void this.send();
  }

  /**
   * Another try for one that was refused or changed by hand. Where it was sent meanwhile, it waits
   * again, beside what the shop has of it.
   */
  async change(entry: WaitingRun, change: Partial<RunInput>): Promise<Corrected> {
    const corrected = await this.#store.change(entry.key, (now) => ({
      run: { ...("run" in now ? now.run : entry.run), ...change },
      rev: now.rev + 1,
      tries: 0,
      tried: 0,
      held: 0,
      refused: "",
    }));
    if (corrected === null) {
      const sent = await this.#store.taken.get(entry.key);
      await this.#add({
        ...entry,
        run: { ...entry.run, ...change },
        rev: entry.rev + 1,
        held: 0,
        refused: SENT_BEFORE,
        logged_run: sent?.answer ?? null,
      });
      return "was_sent";
    }
    await this.send();
    return "waits";
  }

  /** What was put right takes the place of the run that the shop has. */
  async replace(entry: WaitingRun): Promise<Came> {
    const replaces = entry.logged_run?.id;
    const key = freshKey();
    const run: RunInput = {
      ...entry.run,
      client_key: key,
      ...(replaces === undefined ? {} : { replaces }),
    };
    await this.#store.transaction("rw", this.#store.waiting, async () => {
      await this.#store.waiting.where("key").equals(entry.key).delete();
      await this.#store.waiting.add({
        ...stamp(key),
        logged: entry.logged,
        page: entry.page,
        mark: entry.mark,
        run,
      });
    });
    return this.came(key);
  }

  async drop(key: string): Promise<Waiting | undefined> {
    return this.#store.transaction("rw", this.#store.waiting, async () => {
      const entry = await this.#store.one(key);
      await this.#store.waiting.where("key").equals(key).delete();
      return entry;
    });
  }

  async putBack(entry: Waiting): Promise<void> {
    await this.#add({ ...entry, held: 0 });
  }

  async clear(): Promise<void> {
    await this.#store.waiting.clear();
    await this.#store.taken.clear();
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
    // Another tab that sends, or hangs, does not hold this one: its turn is taken over after a while.
    this.#waitsSince ||= Date.now();
    const steal = Date.now() - this.#waitsSince > 3 * SEND_MS;
    await locks
      .request(LOCK, steal ? { steal } : { ifAvailable: true }, async (lock) => {
        if (lock === null) return this.#again();
        this.#waitsSince = 0;
        await this.#round();
      })
      .catch(() => this.#again());
  }

  async #round(): Promise<void> {
    const all = await this.#store.waiting.orderBy("seq").toArray();
    for (const one of all) {
      // As it is now, not as it was when the round began.
      const entry = await this.#store.one(one.key);
      if (!entry || entry.refused || this.#store.isHeld(entry)) continue;
      if (entry.tries >= TRIES && Date.now() - entry.tried < LATER_MS) continue;
      if ((await this.#sendOne(entry)) === "away") {
        this.#again();
        break;
      }
    }
    await this.#store.taken
      .where("at")
      .below(Date.now() - TAKEN_MS)
      .delete();
  }

  async #takeRun(entry: WaitingRun): Promise<RunAnswer> {
    const waited_s = waitedSeconds(entry);
    const timed = waited_s === null ? {} : { waited_s };
    const body = { ...entry.run, ...timed };
    const signal = AbortSignal.timeout(SEND_MS);
    const answer = await ask(client.POST("/api/runs", { body, signal }));
    this.last = answer;
    return answer;
  }

  async #take(entry: Waiting): Promise<RunAnswer | null> {
    if ("run" in entry) return this.#takeRun(entry);
    const { write } = entry;
    const waited_s = waitedSeconds(entry);
    // Beside the body, which is the same at every try.
    const waited = waited_s === null ? {} : { [WAITED]: String(waited_s) };
    const headers = { [WRITE_KEY]: entry.key, ...waited };
    const signal = AbortSignal.timeout(SEND_MS);
    if (write.kind === "step") {
      const { setup_id, body } = write;
      const params = { path: { setup_id } };
      await ask(client.POST("/api/setups/{setup_id}/steps", { params, body, headers, signal }));
    } else {
      const { band_id, body } = write;
      const params = { path: { band_id } };
      await ask(client.POST("/api/bands/{band_id}/events", { params, body, headers, signal }));
    }
    return null;
  }

  async #sendOne(entry: Waiting): Promise<"done" | "later" | "away"> {
    let answer: RunAnswer | null;
    try {
      answer = await this.#take(entry);
    } catch (problem) {
      if (problem instanceof Problem && problem.refuses) {
        const known = problem.code === KNOWN ? (problem.current as LoggedRun | null) : null;
        await this.#store.change(entry.key, (now) =>
          now.rev === entry.rev ? { refused: wordsOf(problem), logged_run: known } : {},
        );
        return "done";
      }
      // An error of the server's own over this one; anything else says that it is away.
      if (!(problem instanceof Problem) || problem.code !== "internal") return "away";
      await this.#store.change(entry.key, (now) => ({ tries: now.tries + 1, tried: Date.now() }));
      return "later";
    }
    await this.#settle(entry, answer);
    this.taken += 1;
    return "done";
  }

  /** What was sent is done with, unless it was put right or given up while it was under way. */
  async #settle(entry: Waiting, answer: RunAnswer | null): Promise<void> {
    if (answer) await this.#store.taken.put({ key: entry.key, at: Date.now(), answer });
    const now = await this.#store.settle(entry);
    if (now === "gone" && answer) this.sentAnyway = answer;
    if (now === "changed" && answer) {
      await this.#store.change(entry.key, (kept) =>
        kept.rev === entry.rev
          ? { logged_run: answer }
          : { refused: SENT_BEFORE, logged_run: answer },
      );
    }
  }
}

const SENT_BEFORE =
  "It was sent before it was put right: the shop has it as it was. Put the logged run right, or give " +
  "this up.";
/** How often somebody at work on an entry renews the hold on it. */
export const RENEW_MS = HELD_MS / 3;

export const outbox = new Outbox();
