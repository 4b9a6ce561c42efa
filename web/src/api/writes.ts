/** What every write carries beside its body: a key of its own, and who is at this screen. */
import type { Middleware } from "openapi-fetch";

import { recall } from "../lib/storage";

const JSON_TYPE = "application/json";
export const WRITE_KEY = "Idempotency-Key";
export const WAITED = "Jade-Waited";
const DONE_MOST = 500;
/** A person is told by then that a tap is kept, whatever the network does. */
export const TOLD_MS = 1800;

/** A key no other write has; works where the page is not served securely, too. */
export function freshKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return Array.from(bytes, (b) => b.toString(16).padStart(2, "0")).join("");
}

/** Ends a try that a person waits for: it is kept, and sent again under its key. */
export function soon(): AbortSignal {
  return AbortSignal.timeout(TOLD_MS);
}

/** Keys of writes that are under way or whose answer never came, by what was asked. */
const open = new Map<string, string>();

/**
 * The same write sent again, because no answer came or a button was tapped twice, has the key it had:
 * the server does it once. Once it is answered, the next one alike is another.
 */
export const writes: Middleware = {
  async onRequest({ request }) {
    if (request.method === "GET") return request;
    // What a form can send, any page can: a post says that it is JSON also where it has no body.
    if (!request.headers.has("Content-Type")) request.headers.set("Content-Type", JSON_TYPE);
    const who = recall("who", "");
    if (who) request.headers.set("Jade-Person", encodeURIComponent(who));
    if (request.headers.get("Content-Type") !== JSON_TYPE) return request;
    // What waited to be sent has kept the key it began with.
    if (request.headers.has(WRITE_KEY)) return request;
    const asked = `${request.method} ${request.url} ${await request.clone().text()}`;
    const key = open.get(asked) ?? freshKey();
    open.set(asked, key);
    request.headers.set(WRITE_KEY, key);
    return request;
  },
  onResponse({ request, response }) {
    const key = request.headers.get(WRITE_KEY);
    if (key === null || response.status >= DONE_MOST) return response;
    for (const [asked, known] of open) if (known === key) open.delete(asked);
    return response;
  },
};
