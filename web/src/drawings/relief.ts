/** A sawn face as a relief: what its map says at each place, and where readings stand on it. */
import type { ThicknessMap } from "../api/schema";

export interface Cell {
  readonly x: number;
  readonly y: number;
  /** Off the mean there, mm: positive is thick. */
  readonly off: number;
  /** The same as a share of the most on this board, -1 to 1. */
  readonly share: number;
}

/** How far off its mean a face is at a place (along 0..1, up -1..1), mm. */
export function offAt(map: ThicknessMap, along: number, up: number): number {
  return (
    map.taper_along_mm * (along - 0.5) +
    (map.lean_mm / 2) * up +
    (map.barrel_mm ?? 0) * (1 / 3 - up * up)
  );
}

/** The face in cells, top row first; `most` is what counts as the darkest, mm. */
export function cells(map: ThicknessMap, columns: number, rows: number, most: number): Cell[] {
  const found: Cell[] = [];
  for (let row = 0; row < rows; row += 1) {
    for (let column = 0; column < columns; column += 1) {
      const along = (column + 0.5) / columns;
      const up = 1 - (2 * (row + 0.5)) / rows;
      const off = offAt(map, along, up);
      found.push({
        x: column / columns,
        y: row / rows,
        off,
        share: Math.max(-1, Math.min(1, off / (most || 1))),
      });
    }
  }
  return found;
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
