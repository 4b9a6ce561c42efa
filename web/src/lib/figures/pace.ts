/** A mark that goes along a marked length at the planned feed, and the feed of a mark passed by hand. */

const MS_PER_MIN = 60_000;

/** Where the mark stands along a length (mm) after so many ms at a feed (m/min), 0 to 1, over and over. */
export function markAt(elapsedMs: number, lengthMm: number, feed: number): number {
  const passMs = passTime(lengthMm, feed);
  return passMs > 0 ? (elapsedMs % passMs) / passMs : 0;
}

/** How long a length takes at a feed, ms. */
export function passTime(lengthMm: number, feed: number): number {
  return feed > 0 ? (lengthMm / 1000 / feed) * MS_PER_MIN : 0;
}

/** The feed (m/min) at which a length (mm) passed in so many ms; null where no time passed. */
export function feedOf(lengthMm: number, elapsedMs: number): number | null {
  return elapsedMs > 0 ? lengthMm / 1000 / (elapsedMs / MS_PER_MIN) : null;
}
