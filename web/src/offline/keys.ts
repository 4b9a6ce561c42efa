/** What is kept of the shop's answers for when there is no network, and under which names. */

/** A header that the worker puts on an answer it kept: when it was given. */
export const KEPT = "Jade-Kept";
export const ANSWERS = "answers";

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

/** A kept answer, with when it was given told on it. */
export async function marked(kept: Response): Promise<Response> {
  const headers = new Headers(kept.headers);
  headers.set(KEPT, kept.headers.get("date") ?? new Date(0).toUTCString());
  return new Response(await kept.blob(), { status: kept.status, headers });
}
