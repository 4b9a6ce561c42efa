/** Answers to the first questions, asked by public/early.js while this was still on its way. */
declare global {
  interface Window {
    jadeEarly?: Map<string, Promise<Response | null>>;
  }
}

// Told to early.js, should it come after this: then nothing is asked twice, or kept to be taken later.
if (globalThis.window) window.jadeEarly ??= new Map();

/** The answer that was asked for early, once; later questions go to the server. */
export async function fetchEarly(request: Request): Promise<Response> {
  const waiting = globalThis.window?.jadeEarly;
  const path = new URL(request.url).pathname;
  const asked = request.method === "GET" ? waiting?.get(path) : undefined;
  if (!waiting || !asked) return globalThis.fetch(request);
  waiting.delete(path);
  return (await asked) ?? globalThis.fetch(request);
}
