/** Typed calls to the server; every failure comes out as a Problem with words for a person. */
import createClient from "openapi-fetch";

import { away } from "../lib/sending/away.svelte";
import { say, type Said } from "../lib/figures/units";
import { looksRound } from "../lib/sampleMode";
import { fetchEarly } from "./early";
import type { FaultBody, paths } from "./schema";
import { writes } from "./writes";

export const client = createClient<paths>({
  baseUrl: globalThis.location.origin,
  // Sentences come with their quantities open: shop.words() says them in the units shown.
  headers: { Quantities: "open", ...(looksRound ? { "Jade-Yard": "sample" } : {}) },
  fetch: fetchEarly,
});

client.use(writes);
client.use({ onResponse: ({ response }) => away.heard(response) });

const OURS = "urn:jade-ribbon:problem:";
/** Told on the window when this device was shut out, or has not joined. */
export const SHUT_OUT = "jade-ribbon-shut-out";
/** What ends by itself, or by joining: no reason to give up what was to be sent. */
const PASSING = ["join", "too_many_guesses"];

export class Problem extends Error {
  constructor(
    readonly code: string,
    /** What went wrong, in words whose quantities stay open. */
    readonly detail: Said,
    readonly status: number,
    readonly errors: readonly FaultBody[] = [],
    /** What a record is now that somebody else saved meanwhile. */
    readonly current: Record<string, unknown> | null = null,
    /** Our own server said it, and not a login page or a gateway on the way to it. */
    readonly ours = true,
  ) {
    super(say(detail, "metric"));
  }

  /** The server could not be reached, or was restarting: worth sending again. */
  get unreachable(): boolean {
    return this.status === 0 || this.status >= 500 || !this.ours;
  }

  /** Our own server will not have it, however often it is sent. */
  get refuses(): boolean {
    const refused = this.status >= 400 && this.status < 500;
    return this.ours && refused && !PASSING.includes(this.code);
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

function problemOf(error: unknown, response: Response): Problem {
  const body = (typeof error === "object" && error !== null ? error : {}) as {
    type?: string;
    code?: string;
    detail?: Said;
    errors?: FaultBody[];
    current?: Record<string, unknown> | null;
  };
  return new Problem(
    body.code ?? "unreadable",
    body.detail ?? `The server answered ${response.status} and no reason.`,
    response.status,
    body.errors ?? [],
    body.current ?? null,
    body.type?.startsWith(OURS) ?? false,
  );
}

/** What to say where the record asked for is not in this shop; '' for any other problem. */
export function notThere(problem: unknown): string {
  return problem instanceof Problem && problem.status === 404 ? problem.message : "";
}

/** The data of a call, or a thrown Problem. */
export async function ask<T>(call: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await call;
  } catch (cause) {
    if (cause instanceof DOMException && cause.name === "AbortError") throw cause;
    throw new Problem(
      "unreachable",
      "The server cannot be reached. Trying again.",
      0,
      [],
      null,
      false,
    );
  }
  if (answer.data === undefined) {
    const problem = problemOf(answer.error, answer.response);
    if (problem.code === "join") globalThis.dispatchEvent?.(new Event(SHUT_OUT));
    throw problem;
  }
  return answer.data;
}

const WAITS_MS = [300, 700, 1500, 3000, 5000];

/** Like `ask`, but tries again while the server restarts. For reading only. */
export async function askPatiently<T>(call: () => Promise<Answer<T>>): Promise<T> {
  for (const wait of WAITS_MS) {
    try {
      return await ask(call());
    } catch (problem) {
      if (!(problem instanceof Problem) || !problem.unreachable) throw problem;
      await new Promise((done) => setTimeout(done, wait));
    }
  }
  return ask(call());
}

/** What to tell a person of whatever was thrown. */
export function wordsOf(problem: unknown): Said {
  if (problem instanceof Problem) return problem.detail;
  return problem instanceof Error ? problem.message : String(problem);
}
