/** Answers to the first questions, asked by public/early.js while this was still on its way. */
declare global {
  interface Window {
    jadeEarly?: Map<string, Promise<Response | null>>;
  }
}

// Told to early.js, should it come after this: then nothing is asked twice, or kept to be taken later.
if (globalThis.window) window.jadeEarly ??= new Map();

/** A network that hangs is as good as none: what reads is given up sooner than what works. */
const READING_MS = 20_000;
const WORKING_MS = 60_000;

function timed(request: Request): Promise<Response> {
  const limit = AbortSignal.timeout(request.method === "GET" ? READING_MS : WORKING_MS);
  return globalThis.fetch(request, { signal: AbortSignal.any([request.signal, limit]) });
}

/** The answer that was asked for early, once; later questions go to the server. */
export async function fetchEarly(request: Request): Promise<Response> {
  const waiting = globalThis.window?.jadeEarly;
  const path = new URL(request.url).pathname;
  const asked = request.method === "GET" ? waiting?.get(path) : undefined;
  if (!waiting || !asked) return timed(request);
  waiting.delete(path);
  return (await asked) ?? timed(request);
}
