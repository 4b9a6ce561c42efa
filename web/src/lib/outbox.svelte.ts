import { ask, client, Problem } from "../api/client";
import type { RunAnswer, RunInput } from "../api/schema";
import { recall, remember } from "./storage";

const RETRY_MS = 5000;

/** Runs logged here and not yet taken by the server: kept in the browser, sent when it answers. */
class Outbox {
  waiting = $state<RunInput[]>(recall<RunInput[]>("outbox", []));
  refused = $state<{ run: RunInput; why: string }[]>(recall("outbox.refused", []));
  last = $state<RunAnswer | null>(null);
  #sending = false;

  constructor() {
    globalThis.addEventListener?.("online", () => void this.send());
    if (this.waiting.length > 0) setTimeout(() => void this.send(), 0);
  }

  #keep(): void {
    remember("outbox", this.waiting);
    remember("outbox.refused", this.refused);
  }

  /** Keeps the run first, then sends; a key makes sending it twice harmless. */
  async log(run: RunInput): Promise<void> {
    this.waiting = [...this.waiting, run];
    this.#keep();
    await this.send();
  }

  dismiss(key: string): void {
    this.refused = this.refused.filter((r) => r.run.client_key !== key);
    this.#keep();
  }

  async send(): Promise<void> {
    if (this.#sending) return;
    this.#sending = true;
    try {
      for (let run = this.waiting[0]; run; run = this.waiting[0]) {
        if (!(await this.#sendOne(run))) break;
      }
    } finally {
      this.#sending = false;
    }
    if (this.waiting.length > 0) setTimeout(() => void this.send(), RETRY_MS);
  }

  async #sendOne(run: RunInput): Promise<boolean> {
    try {
      this.last = await ask(client.POST("/api/runs", { body: run }));
    } catch (problem) {
      if (problem instanceof Problem && problem.unreachable) return false;
      this.refused = [
        ...this.refused,
        { run, why: problem instanceof Error ? problem.message : "" },
      ];
    }
    this.waiting = this.waiting.filter((r) => r.client_key !== run.client_key);
    this.#keep();
    return true;
  }
}

export const outbox = new Outbox();
