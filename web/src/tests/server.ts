import { vi } from "vitest";

function answerOf(body: unknown): Response {
  return new Response(JSON.stringify(body), { headers: { "content-type": "application/json" } });
}

/** A server that answers each method and path so; `sent` are the bodies it got by a method. */
export function server(answers: Record<string, unknown>): {
  sent: (method: string) => Promise<unknown[]>;
} {
  vi.restoreAllMocks();
  const copies: Request[] = [];
  vi.spyOn(globalThis, "fetch").mockImplementation((input) => {
    const request = input as Request;
    copies.push(request.clone());
    const body = answers[`${request.method} ${new URL(request.url).pathname}`] ?? {};
    return Promise.resolve(answerOf(typeof body === "function" ? body(request.url) : body));
  });
  return {
    sent: (method) =>
      Promise.all(
        copies.filter((r) => r.method === method).map((r) => r.clone().json() as unknown),
      ),
  };
}
