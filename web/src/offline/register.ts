import { notice } from "../lib/notice.svelte";
import { looksRound } from "../lib/yard";

const QUIET_MS = 4000;

/** Lets the application open without a network, where the page is one that may. */
export function workOffline(): void {
  // The first answer has the network to itself.
  if (!looksRound) setTimeout(register, QUIET_MS);
}

async function register(): Promise<void> {
  try {
    const { registerSW } = await import("virtual:pwa-register");
    const renew = registerSW({
      immediate: true,
      onNeedRefresh: () => notice.offer("A newer version is here.", "Take it", () => renew(true)),
    });
  } catch {
    setTimeout(register, QUIET_MS); // the shop was away by then
  }
}
