import { registerSW } from "virtual:pwa-register";

import { notice } from "../lib/notice.svelte";
import { looksRound } from "../lib/yard";

/** Lets the application open without a network, where the page is one that may. */
export function workOffline(): void {
  if (looksRound) return;
  const renew = registerSW({
    onNeedRefresh: () => notice.offer("A newer version is here.", "Take it", () => renew(true)),
  });
}
