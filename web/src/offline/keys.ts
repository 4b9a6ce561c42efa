/** What is kept of the shop's answers for when there is no network, and under which names. */

/** A header that the worker puts on an answer it kept: when it was given. */
export const KEPT = "Jade-Kept";
export const ANSWERS = "answers";
/** In that header: there is no such answer. */
export const NEVER = "never";

/** Answers about doors, copies and what somebody looks for are of the moment: never kept. */
const OF_THE_MOMENT = /^\/api\/(door|doors|copies|sample-yard|search|instruments)/;
/** Questions with a body, whose answers are kept by what was asked. */
const ASKS = /^\/api\/(plan|reference|meant)(\/|$)/;

export function isKept(method: string, path: string): boolean {
  if (!path.startsWith("/api/") || OF_THE_MOMENT.test(path)) return false;
  return method === "GET" || (method === "POST" && ASKS.test(path));
}

function hex(bytes: ArrayBuffer): string {
  return Array.from(new Uint8Array(bytes), (b) => b.toString(16).padStart(2, "0")).join("");
}

/** The name an answer is kept under: the address, and for a question what was asked. */
export async function keyOf(request: Request): Promise<Request> {
  if (request.method === "GET") return new Request(request.url);
  const asked = await crypto.subtle.digest("SHA-256", await request.clone().arrayBuffer());
  return new Request(`${request.url}?asked=${hex(asked)}`);
}

/** The answer where none was kept and the shop is away: said as what it is, not waited for. */
export function notKept(): Response {
  const body = JSON.stringify({
    type: "urn:jade-ribbon:problem:not_kept",
    code: "not_kept",
    detail: "This is not kept on this device: open it once while the shop’s machine answers.",
  });
  const headers = { "content-type": "application/problem+json", [KEPT]: NEVER };
  return new Response(body, { status: 504, headers });
}

/** A kept answer, with when it was given told on it. */
export async function marked(kept: Response): Promise<Response> {
  const headers = new Headers(kept.headers);
  // Two dates, as an older server sent them, are the same one twice.
  const dated = kept.headers.get("date")?.split(/, (?=[A-Z][a-z]{2},)/)[0];
  headers.set(KEPT, dated ?? new Date(0).toUTCString());
  return new Response(await kept.blob(), { status: kept.status, headers });
}
