/** A sawn face as a relief: the core's cells as rectangles, and where a face is read. */
export interface Cell {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** Off the mean there as a share of what is darkest, -1 to 1: positive is thick. */
  readonly share: number;
}

/** Cells of a relief (rows from the top, mm off the mean); `most` is as dark as it gets, mm. */
export function cells(relief: readonly (readonly number[])[], most: number): Cell[] {
  return relief.flatMap((row, y) =>
    row.map((off, x) => ({
      x: x / row.length,
      y: y / relief.length,
      width: 1 / row.length,
      height: 1 / relief.length,
      share: Math.max(-1, Math.min(1, off / (most || 1))),
    })),
  );
}

export interface PlaceToRead {
  readonly along: number;
  readonly up: number;
  readonly name: string;
}

const ALONG = ["start", "middle", "end"] as const;
const UP = ["bottom", "middle", "top"] as const;

function places(alongs: readonly number[], ups: readonly number[]): PlaceToRead[] {
  return alongs.flatMap((a) =>
    ups.map((u) => ({ along: a, up: u, name: `${ALONG[a * 2] ?? ""}, ${UP[u + 1] ?? ""}` })),
  );
}

/** Where a face is read: its four corners, or nine points with its middle. */
export const FOUR = places([0, 1], [-1, 1]);
export const NINE = places([0, 0.5, 1], [-1, 0, 1]);

/** A place tapped on the board, to the nearest twentieth, so that it can be read again. */
export function placeAt(along: number, up: number): PlaceToRead {
  const a = Math.round(Math.min(Math.max(along, 0), 1) * 20) / 20;
  const u = Math.round(Math.min(Math.max(up, -1), 1) * 10) / 10;
  const high = u > 0.05 ? "above" : u < -0.05 ? "below" : "at";
  return { along: a, up: u, name: `${Math.round(100 * a)} % along, ${high} the middle` };
}
