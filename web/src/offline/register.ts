import { notice } from "../lib/notice.svelte";
import { looksRound } from "../lib/yard";

const QUIET_MS = 4000;

/** Lets the application open without a network, where the page is one that may. */
export function workOffline(): void {
  if (looksRound) return;
  // The first answer has the network to itself.
  setTimeout(async () => {
    const { registerSW } = await import("virtual:pwa-register");
    const renew = registerSW({
      immediate: true,
      onNeedRefresh: () => notice.offer("A newer version is here.", "Take it", () => renew(true)),
    });
  }, QUIET_MS);
}
