import { client } from "../api/client";
import type { JobAnswer } from "../api/schema";

const SETTLE_MS = 1500;
let timer: ReturnType<typeof setTimeout> | undefined;

/**
 * Asks once for what the job in hand needs at the saw, so that the worker keeps it: the job, its run
 * card, its set-up card, the rack. Without a worker there is nobody to keep it, and nothing is asked.
 */
export function provide(job: JobAnswer | null): void {
  clearTimeout(timer);
  if (!job || !globalThis.navigator?.serviceWorker?.controller) return;
  const path = { job_id: job.id };
  timer = setTimeout(() => {
    const wanted = [
      client.GET("/api/jobs/{job_id}", { params: { path } }),
      client.GET("/api/jobs/{job_id}/run", { params: { path } }),
      client.GET("/api/bands"),
      client.GET("/api/jobs"),
      ...(job.setup_id
        ? [client.GET("/api/setups/{setup_id}", { params: { path: { setup_id: job.setup_id } } })]
        : []),
    ];
    // What could not be had is asked for again when it is opened.
    void Promise.allSettled(wanted);
  }, SETTLE_MS);
}
