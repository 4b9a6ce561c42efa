import { ask, client, wordsOf } from "../api/client";
import type { Said } from "./figures/units";

/** The one line that tells what just happened, with its undo. */
class Notice {
  text = $state<Said>("");
  bad = $state(false);
  /** What the button beside it says. */
  doing = $state("Undo");
  #undo = $state<(() => Promise<void>) | null>(null);
  #timer: ReturnType<typeof setTimeout> | undefined;

  get undoable(): boolean {
    return this.#undo !== null;
  }

  #show(text: Said, bad: boolean, undo: (() => Promise<void>) | null, ms: number): void {
    clearTimeout(this.#timer);
    this.text = text;
    this.bad = bad;
    this.#undo = undo;
    this.doing = "Undo";
    this.#timer = setTimeout(() => this.close(), ms);
  }

  say(text: Said): void {
    this.#show(text, false, null, 6000);
  }

  fail(problem: unknown): void {
    const text = problem instanceof Error ? wordsOf(problem) : "";
    this.#show(text || "Something went wrong.", true, null, 12_000);
  }

  /** Something was changed that can be taken back with this change. */
  canUndo(text: Said, changeId: number, after: () => Promise<void> | void): void {
    const undo = async () => {
      const params = { path: { change_id: changeId } };
      await ask(client.POST("/api/changes/{change_id}/undo", { params }));
      await after();
    };
    this.#show(text, false, undo, 20_000);
  }

  /** Something given up in this browser that can be put back. */
  canPutBack(text: Said, putBack: () => Promise<void>): void {
    this.#show(text, false, putBack, 20_000);
  }

  /** Something that can be done about it, which is no undo. */
  offer(text: Said, doing: string, act: () => Promise<void>): void {
    this.#show(text, false, act, 60_000);
    this.doing = doing;
  }

  async undo(): Promise<void> {
    const [undo, doing] = [this.#undo, this.doing];
    if (!undo) return;
    try {
      await undo();
      if (doing === "Undo") this.say("Undone.");
    } catch (problem) {
      this.fail(problem);
    }
  }

  close(): void {
    this.text = "";
    this.#undo = null;
  }
}

export const notice = new Notice();
