/** What is written down in this browser and not yet taken by the server. */
import Dexie, { type Table } from "dexie";

import type { BandEventInput, RunInput, StepBody } from "../api/schema";
import type { Said } from "./units";
import { looksRound } from "./yard";

export interface Waits {
  readonly key: string;
  /** When it was written down, by this device's clock (ms), and by the page's own since it opened. */
  readonly logged: number;
  readonly page: number;
  readonly mark: number;
  readonly tries: number;
  readonly tried: number;
  /** Why the server refused it; empty while it waits. */
  readonly refused: Said;
}

export interface WaitingRun extends Waits {
  readonly run: RunInput;
}

/** A step of a card, or something that happened to a band. */
export interface WaitingWrite extends Waits {
  readonly title: string;
  readonly href: string;
  readonly write:
    | { readonly kind: "step"; readonly setup_id: number; readonly body: StepBody }
    | { readonly kind: "event"; readonly band_id: number; readonly body: BandEventInput };
}

export class OutboxStore extends Dexie {
  runs!: Table<WaitingRun, string>;
  writes!: Table<WaitingWrite, string>;

  constructor() {
    super(looksRound ? "jade-ribbon-sample" : "jade-ribbon");
    this.version(1).stores({ runs: "key, logged" });
    this.version(2).stores({ runs: "key, logged", writes: "key, logged" });
  }
}

/** What every entry is written down with. */
export function stamp(key: string): Waits {
  return {
    key,
    logged: Date.now(),
    page: performance.timeOrigin,
    mark: performance.now(),
    tries: 0,
    tried: 0,
    refused: "",
  };
}

/** How long an entry has waited, in seconds; null where this device's clock was set back meanwhile. */
export function waitedSeconds(entry: Waits): number | null {
  const here = entry.page === performance.timeOrigin;
  const ms = here ? performance.now() - entry.mark : Date.now() - entry.logged;
  return ms < 0 ? null : ms / 1000;
}
