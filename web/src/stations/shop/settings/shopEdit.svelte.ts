/** Saving the shop's settings as they are typed: at once, or once typing has stopped. */
import { Problem } from "../../../api/client";
import type { Rates, RatesFile, Shop, ShopEdit } from "../../../api/schema";
import { notice } from "../../../lib/notice.svelte";
import { shop } from "../../../lib/shop.svelte";
import type { Said } from "../../../lib/figures/units";

type Changed = Omit<ShopEdit, "version">;
const SETTLE_MS = 700;

export class SettingsEdit {
  faults = $state<Record<string, Said>>({});
  #waiting: ReturnType<typeof setTimeout> | undefined;
  #unsaved: (() => Changed) | null = null;
  #rates: Partial<Rates> = {};
  #terms: Partial<Shop["rack"]> = {};

  async save(changed: Changed): Promise<void> {
    try {
      await shop.save(changed);
      this.faults = {};
      notice.say("Saved.");
    } catch (problem) {
      const known = problem instanceof Problem ? problem : null;
      this.faults = Object.fromEntries((known?.errors ?? []).map((f) => [f.path, f.message]));
      notice.fail(problem);
    }
  }

  /** Saves once typing has stopped, or the page is left. */
  soon(changed: () => Changed): void {
    clearTimeout(this.#waiting);
    this.#unsaved = changed;
    this.#waiting = setTimeout(() => this.now(), SETTLE_MS);
  }

  now(): void {
    clearTimeout(this.#waiting);
    if (this.#unsaved) void this.save(this.#unsaved());
    this.#unsaved = null;
  }

  term(key: keyof Shop["rack"], value: number | null): void {
    if (value === null || !shop.settings) return;
    this.#terms = { ...this.#terms, [key]: value };
    this.soon(() => ({ rack: { ...shop.settings?.rack, ...this.#terms } as Shop["rack"] }));
  }

  rate(key: keyof Rates, value: number | null): void {
    if (value === null || !shop.settings) return;
    this.#rates = { ...this.#rates, [key]: value };
    this.soon(() => ({ rates: { ...shop.settings?.rates, ...this.#rates } as RatesFile }));
  }
}
