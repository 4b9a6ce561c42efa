import { notice } from "../lib/notice.svelte";
import { looksRound } from "../lib/sampleMode";

const LOOK_MS = 500;
const LONGEST_MS = 4000;

/** Lets the application open without a network, where the page is one that may. */
export function workOffline(): void {
  // The first answer has the network to itself.
  if (!looksRound) setTimeout(wait, LOOK_MS, 0, 0);
}

/** Until the shop has answered and nothing more came for a moment; never for longer than that. */
function wait(before: number, waited: number): void {
  const came = performance.getEntriesByType("resource");
  const quiet = came.length === before && came.some((e) => e.name.includes("/api/"));
  if (quiet || waited >= LONGEST_MS) void register();
  else setTimeout(wait, LOOK_MS, came.length, waited + LOOK_MS);
}

async function register(): Promise<void> {
  try {
    const { registerSW } = await import("virtual:pwa-register");
    const renew = registerSW({
      immediate: true,
      onNeedRefresh: () => notice.offer("A newer version is here.", "Take it", () => renew(true)),
    });
  } catch {
    setTimeout(() => void register(), LONGEST_MS); // the shop was away by then
  }
}
