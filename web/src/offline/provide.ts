import { client } from "../api/client";
import type { JobAnswer } from "../api/schema";

const SETTLE_MS = 1500;
let timer: ReturnType<typeof setTimeout> | undefined;
let inHand: JobAnswer | null = null;
let listed = false;

/** What every page stands on, and what hands at a saw look up. */
function ofTheShop(): Promise<unknown>[] {
  return [
    client.GET("/api/shop"),
    client.GET("/api/reference"),
    client.GET("/api/saws"),
    client.GET("/api/bands"),
    client.GET("/api/jobs"),
    client.GET("/api/stock"),
    client.GET("/api/help"),
  ];
}

function ofTheJob(job: JobAnswer): Promise<unknown>[] {
  const path = { job_id: job.id };
  const asked: Promise<unknown>[] = [
    client.GET("/api/jobs/{job_id}", { params: { path } }),
    client.GET("/api/jobs/{job_id}/run", { params: { path } }),
  ];
  if (job.setup_id)
    asked.push(
      client.GET("/api/setups/{setup_id}", { params: { path: { setup_id: job.setup_id } } }),
    );
  return asked;
}

function ask(): void {
  // What could not be had is asked for again when it is opened.
  if (!listed) {
    listed = true;
    void Promise.allSettled(ofTheShop());
  }
  if (inHand) void Promise.allSettled(ofTheJob(inHand));
}

const worker = globalThis.navigator?.serviceWorker;
// On a first visit what the page asked went past the worker, which was not there yet: asked again, it
// is kept, and a phone that loses its network a minute after has what the saw needs.
worker?.addEventListener("controllerchange", () => {
  listed = false;
  ask();
});

/**
 * Asks once for what the job in hand needs at the saw, so that the worker keeps it: the job, its run
 * card, its set-up card, and the shop's lists. Without a worker there is nobody to keep it, and nothing
 * is asked.
 */
export function provide(job: JobAnswer | null): void {
  clearTimeout(timer);
  inHand = job;
  if (!worker?.controller) return;
  timer = setTimeout(ask, SETTLE_MS);
}
