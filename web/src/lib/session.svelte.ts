import { ask, client, SHUT_OUT } from "../api/client";
import type { DoorAnswer } from "../api/schema";
import { ANSWERS } from "../offline/keys";
import { forgetAll } from "./storage";

/** Nothing of the shop stays on this device but what it has not sent yet: that is nowhere else. */
async function wipe(): Promise<void> {
  forgetAll();
  await globalThis.caches?.delete(ANSWERS).catch(() => undefined);
}

/** Where this page stands: at the shop's own machine, or a device that joined, or one that has to. */
class Session {
  state = $state<DoorAnswer | null>(null);
  #looking = false;

  constructor() {
    // Whatever was asked: a device shut out meanwhile is told at once, on whatever page it is, also
    // when it opened without a network. What was asked before it joined may be answered after: the
    // door itself is asked.
    globalThis.addEventListener?.(SHUT_OUT, () => {
      if (!this.#looking && !this.shut) void this.look();
    });
  }

  /** It has to join before anything is shown. */
  get shut(): boolean {
    return this.state !== null && !this.state.joined;
  }

  get owns(): boolean {
    return this.state === null || this.state.role === "owner";
  }

  /** Without an answer (no network, an older server) the page goes on with what it has. */
  async look(): Promise<void> {
    this.#looking = true;
    try {
      this.state = await ask(client.GET("/api/door"));
      if (this.shut) await wipe();
    } catch {
      this.state = null;
    } finally {
      this.#looking = false;
    }
  }

  async join(code: string): Promise<void> {
    this.state = await ask(client.POST("/api/door/join", { body: { code } }));
  }

  async enter(passphrase: string, name: string): Promise<void> {
    this.state = await ask(client.POST("/api/door/enter", { body: { passphrase, name } }));
  }

  async leave(): Promise<void> {
    this.state = await ask(client.POST("/api/door/leave"));
    await wipe();
  }
}

export const session = new Session();
