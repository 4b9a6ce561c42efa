/// <reference lib="webworker" />
/**
 * Opens the application without a network, and answers with what the shop answered last, marked so.
 * What is written never goes through here: it waits in the outbox.
 */
import { ExpirationPlugin } from "workbox-expiration";
import {
  cleanupOutdatedCaches,
  createHandlerBoundToURL,
  precacheAndRoute,
} from "workbox-precaching";
import { NavigationRoute, registerRoute } from "workbox-routing";
import { Strategy, type StrategyHandler } from "workbox-strategies";

import { ANSWERS, isKept, keyOf, marked, notKept } from "./keys";

declare const self: ServiceWorkerGlobalScope & { __WB_MANIFEST: { url: string }[] };

const MOST_ANSWERS = 300;
const DAYS = 30;
/** A machine that does not answer by then is taken for away; a plan on a slow one takes less. */
const PATIENCE_MS = 6000;

precacheAndRoute(self.__WB_MANIFEST);
cleanupOutdatedCaches();
registerRoute(
  new NavigationRoute(createHandlerBoundToURL("index.html"), {
    // The application is one page; every other address is a file that is asked for.
    allowlist: [/^\/(index\.html)?(\?.*)?$/],
  }),
);

/** The shop's answer, and what it answered last where it cannot be reached. */
class AsItWas extends Strategy {
  protected override async _handle(request: Request, handler: StrategyHandler): Promise<Response> {
    const key = await keyOf(request);
    const asked = handler.fetch(request).then(async (answer) => {
      if (answer.ok) await handler.cachePut(key, answer.clone());
      // Shut out: nothing of the shop stays on this device.
      if (answer.status === 401) await caches.delete(ANSWERS);
      return answer;
    });
    const late = new Promise<null>((done) => setTimeout(() => done(null), PATIENCE_MS));
    const first = await Promise.race([asked.catch(() => null), late]);
    if (first !== null) return first;
    const kept = await handler.cacheMatch(key);
    return kept ? marked(kept) : asked.catch(() => notKept());
  }
}

const answers = new AsItWas({
  cacheName: ANSWERS,
  plugins: [new ExpirationPlugin({ maxEntries: MOST_ANSWERS, maxAgeSeconds: DAYS * 86_400 })],
});
for (const method of ["GET", "POST"] as const) {
  registerRoute(
    ({ request, url, sameOrigin }) =>
      // Who looks round the sample yard says so; its answers are not the shop's.
      sameOrigin && !request.headers.has("Jade-Yard") && isKept(request.method, url.pathname),
    answers,
    method,
  );
}

self.addEventListener("activate", (event) => event.waitUntil(self.clients.claim()));
self.addEventListener("message", (event: ExtendableMessageEvent) => {
  if ((event.data as { type?: string } | null)?.type === "SKIP_WAITING") void self.skipWaiting();
});
