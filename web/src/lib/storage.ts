/** Small things kept in this browser: drafts of forms, the theme, the job in hand. */

import { looksRound } from "./sampleMode";

/** What is kept while looking round the sample yard is not mixed with the shop's own. */
const PREFIX = looksRound ? "jade-ribbon.sample." : "jade-ribbon.";

export function recall<T>(key: string, fallback: T): T {
  try {
    const text = localStorage.getItem(PREFIX + key);
    return text === null ? fallback : (JSON.parse(text) as T);
  } catch {
    return fallback;
  }
}

/** Whether it could be kept: a browser's store may be full, or shut. */
export function remember(key: string, value: unknown): boolean {
  try {
    localStorage.setItem(PREFIX + key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

export function forget(key: string): void {
  try {
    localStorage.removeItem(PREFIX + key);
  } catch {
    // A store that is shut keeps nothing either.
  }
}

/** What is kept under keys that begin so, by the rest of the key. */
export function recallAll<T>(start: string): [string, T][] {
  const found: [string, T][] = [];
  try {
    for (let i = 0; i < localStorage.length; i += 1) {
      const key = localStorage.key(i);
      if (!key?.startsWith(PREFIX + start)) continue;
      const kept = recall<T | null>(key.slice(PREFIX.length), null);
      if (kept !== null) found.push([key.slice(PREFIX.length + start.length), kept]);
    }
  } catch {
    return found;
  }
  return found;
}

/** Lets go of everything kept under our keys; what a device looks like is not the shop's. */
export function forgetAll(): void {
  try {
    const ours = Array.from({ length: localStorage.length }, (_, i) => localStorage.key(i) ?? "");
    for (const key of ours)
      if (key.startsWith(PREFIX) && key !== `${PREFIX}theme`) localStorage.removeItem(key);
  } catch {
    // A store that is shut keeps nothing either.
  }
}
