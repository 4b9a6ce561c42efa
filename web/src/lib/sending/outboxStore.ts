/** What is written down in this browser and not yet taken by the server. */
import Dexie, { type Table } from "dexie";

import type { BandEventInput, RunAnswer, RunInput, KeyedStep } from "../../api/schema";
import type { Said } from "../figures/units";
import { looksRound } from "../sampleMode";

export interface Waits {
  readonly key: string;
  /** Its place in the order things were written down, whatever a clock says. */
  readonly seq?: number;
  /** Goes up with each correction: what was sent is known by it. */
  readonly rev: number;
  /** When it was written down, by this device's clock (ms), and by the page's own since it opened. */
  readonly logged: number;
  readonly page: number;
  readonly mark: number;
  readonly tries: number;
  readonly tried: number;
  /** Somebody puts it right in some tab: when last (ms); 0 where nobody does. */
  readonly held: number;
  /** Why the server refused it; empty while it waits. */
  readonly refused: Said;
}

/** A run as the shop has it. */
export type LoggedRun = Pick<
  RunAnswer,
  "id" | "at" | "pieces" | "length_mm" | "feed_m_min" | "time_s"
>;

export interface WaitingRun extends Waits {
  readonly run: RunInput;
  /** What the shop has of it from before it was put right here. */
  readonly logged_run?: LoggedRun | null;
}

/** A step of a card, or something that happened to a band. */
export interface WaitingWrite extends Waits {
  readonly title: string;
  readonly href: string;
  readonly write:
    | { readonly kind: "step"; readonly setup_id: number; readonly body: KeyedStep }
    | { readonly kind: "event"; readonly band_id: number; readonly body: BandEventInput };
}

export type Waiting = WaitingRun | WaitingWrite;

/** A run that was taken, for as long as somebody may still be putting it right somewhere. */
export interface TakenRun {
  readonly key: string;
  readonly at: number;
  readonly answer: LoggedRun;
}

export class OutboxStore extends Dexie {
  waiting!: Table<Waiting, number>;
  taken!: Table<TakenRun, string>;

  constructor() {
    super(looksRound ? "jade-ribbon-sample" : "jade-ribbon");
    this.version(1).stores({ runs: "key, logged" });
    this.version(2).stores({ runs: "key, logged", writes: "key, logged" });
    this.version(3)
      .stores({ waiting: "++seq, &key", taken: "key, at" })
      .upgrade(async (change) => {
        const runs = await change.table<Waiting>("runs").toArray();
        const writes = await change.table<Waiting>("writes").toArray();
        const all = [...runs, ...writes].sort((a, b) => a.logged - b.logged);
        await change.table("waiting").bulkAdd(all.map((entry) => ({ ...entry, rev: 0, held: 0 })));
      });
    this.version(4).stores({ runs: null, writes: null });
  }

  /** The entry of a key. */
  one(key: string): Promise<Waiting | undefined> {
    return this.waiting.where("key").equals(key).first();
  }

  /** Changes an entry as it is now, with nothing between; null where it is gone. */
  change(key: string, how: (entry: Waiting) => Partial<WaitingRun>): Promise<Waiting | null> {
    return this.transaction("rw", this.waiting, async () => {
      const entry = await this.one(key);
      if (!entry) return null;
      const changed = { ...entry, ...how(entry) } as Waiting;
      await this.waiting.put(changed);
      return changed;
    });
  }

  /** Takes an entry out, if it still is what was sent; what it is now otherwise. */
  settle(sent: Waiting): Promise<"done" | "gone" | "changed"> {
    return this.transaction("rw", this.waiting, async () => {
      const entry = await this.one(sent.key);
      if (!entry) return "gone";
      if (entry.rev !== sent.rev || this.isHeld(entry)) return "changed";
      await this.waiting.where("key").equals(sent.key).delete();
      return "done";
    });
  }

  /** Whether somebody is putting it right; a tab that was closed over it holds it no longer. */
  isHeld(entry: Waits): boolean {
    return entry.held > 0 && Date.now() - entry.held < HELD_MS;
  }
}

/** A hold lapses by then, unless it is renewed. */
export const HELD_MS = 2 * 60_000;

/** What every entry is written down with. */
export function stamp(key: string): Waits {
  return {
    key,
    rev: 0,
    logged: Date.now(),
    page: performance.timeOrigin,
    mark: performance.now(),
    tries: 0,
    tried: 0,
    held: 0,
    refused: "",
  };
}

/** How long an entry has waited, in seconds; null where this device's clock was set back meanwhile. */
export function waitedSeconds(entry: Waits): number | null {
  const here = entry.page === performance.timeOrigin;
  const ms = here ? performance.now() - entry.mark : Date.now() - entry.logged;
  return ms < 0 ? null : ms / 1000;
}
