import { Problem } from "../api/client";
import { notice } from "./notice.svelte";
import { forget, recall, recallAll, remember } from "./storage";
import { invalidFields } from "./invalidFields.svelte";

const START = "draft.";

/** What is kept of an edit that is not saved yet. */
export interface KeptEdit {
  readonly title: string;
  readonly href: string;
  readonly base: object;
  readonly draft: object;
  readonly version: number;
  readonly at: number;
}

/** Where an edit belongs, so that a person finds it again. */
export interface Place {
  /** Names the record in this browser: "band.7". */
  readonly key: string;
  readonly title: string;
  readonly href: string;
}

/** How many edits this browser keeps and has not saved: seen on every page. */
class Unsaved {
  count = $state(unsaved().length);

  constructor() {
    globalThis.addEventListener?.("storage", () => this.look());
  }

  look(): void {
    this.count = unsaved().length;
  }
}

export function same(a: unknown, b: unknown): boolean {
  return JSON.stringify(a ?? null) === JSON.stringify(b ?? null);
}

/** Edits kept in this browser and not saved, the latest first. */
export function unsaved(): [string, KeptEdit][] {
  return recallAll<KeptEdit>(START).sort(([, a], [, b]) => b.at - a.at);
}

export const drafts = new Unsaved();

/**
 * What is typed over one record: the fields changed, on the version they were changed on. It is kept
 * in this browser until it is saved or given up, whatever page is opened meanwhile.
 */
export class Edit<T extends object> {
  base = $state.raw<T>() as T;
  draft = $state.raw<T>() as T;
  version = $state(0);
  /** What somebody else saved since the record was read. */
  theirs = $state.raw<T | null>(null);
  #ended = false;
  /** It was begun before this page was opened. */
  found = $state(false);
  readonly place: Place;

  constructor(place: Place, record: T, version: number) {
    this.place = place;
    this.base = record;
    this.draft = record;
    this.version = version;
    const kept = recall<KeptEdit | null>(START + place.key, null);
    if (kept === null) return;
    this.base = { ...record, ...kept.base };
    this.draft = { ...record, ...kept.draft };
    this.version = kept.version;
    this.found = this.changed;
    if (kept.version !== version) this.meet(record, version);
  }

  get changed(): boolean {
    return Object.keys(this.changes).length > 0;
  }

  /** The fields that are not as they were read. */
  get changes(): Partial<T> {
    const fields = Object.keys(this.draft) as (keyof T)[];
    const changed = fields.filter((f) => !same(this.draft[f], this.base[f]));
    return Object.fromEntries(changed.map((f) => [f, this.draft[f]])) as Partial<T>;
  }

  set(change: Partial<T>): void {
    if (this.#ended) return;
    this.draft = { ...this.draft, ...change };
    this.keep();
  }

  keep(): void {
    if (!this.changed) {
      giveUp(this.place.key);
      return;
    }
    const { title, href } = this.place;
    const kept: KeptEdit = {
      title,
      href,
      base: this.base,
      draft: this.draft,
      version: this.version,
      at: Date.now(),
    };
    const held = remember(START + this.place.key, kept);
    drafts.look();
    if (!held)
      notice.fail(new Error("This browser's store is full: save before you leave this page."));
  }

  /** Goes on from a newer record: what was not changed here follows it. */
  renew(record: T, version: number): void {
    if (this.#ended) return;
    this.draft = { ...record, ...this.changes };
    this.base = record;
    this.version = version;
    this.keep();
  }

  /** Sends what was changed; null, with both versions shown, when somebody else saved meanwhile. */
  async save<R>(send: (body: Partial<T> & { version: number }) => Promise<R>): Promise<R | null> {
    // Saved as it stands, the record would hold what stood in that field before.
    if (invalidFields.any) throw new Error("A field cannot be read: put it right, then save.");
    try {
      const saved = await send({ ...this.changes, version: this.version });
      giveUp(this.place.key);
      this.base = this.draft;
      this.found = false;
      return saved;
    } catch (problem) {
      const now = problem instanceof Problem ? problem.current : null;
      if (now === null) throw problem;
      const { version, ...record } = now;
      this.meet({ ...this.base, ...record } as T, Number(version));
      return null;
    }
  }

  /** The record was saved by somebody else: what was not changed here follows, the rest is shown. */
  meet(record: T, version: number): void {
    const mine = this.changes;
    const both = (Object.keys(mine) as (keyof T)[]).some(
      (f) => !same(record[f], this.base[f]) && !same(record[f], mine[f]),
    );
    const before = this.base;
    this.renew(record, version);
    if (both || !same(before, record)) this.theirs = before;
  }

  /** Fields somebody else changed meanwhile: as it was read, as it is now, and as it is here. */
  get met(): { field: string; was: unknown; now: unknown; mine: unknown }[] {
    const was = this.theirs;
    if (was === null) return [];
    return (Object.keys(this.base) as (keyof T & string)[])
      .filter((f) => !same(was[f], this.base[f]))
      .map((f) => ({ field: f, was: was[f], now: this.base[f], mine: this.draft[f] }));
  }

  /** What was typed here goes on top of what is there now. */
  keepMine(): void {
    this.theirs = null;
  }

  /** Gives up what was typed here. */
  discard(): void {
    this.draft = this.base;
    this.theirs = null;
    this.found = false;
    giveUp(this.place.key);
  }

  /** Gives it up and ends it: nothing that still comes in is kept, or told to be. */
  leave(): void {
    this.discard();
    this.#ended = true;
  }

  /** To be called when its page is left: nothing is lost, and that is said. */
  left(): void {
    if (this.changed && !this.#ended)
      notice.say(`${this.place.title} is not saved. It is kept here, under Waiting.`);
  }
}

/** Whether this browser keeps an edit of a record. */
export function isKept(key: string): boolean {
  return recall<KeptEdit | null>(START + key, null) !== null;
}

export function giveUp(key: string): void {
  forget(START + key);
  drafts.look();
}
