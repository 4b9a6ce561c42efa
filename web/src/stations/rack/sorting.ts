/** Filtering and ordering the rack. */
import type { BandAnswer } from "../../api/schema";

export interface Filter {
  readonly saw: number | null;
  readonly edge: string | null;
  /** Scrapped bands shown too. */
  readonly gone: boolean;
}

export type SortKey = "label" | "width" | "pitch" | "edge" | "used" | "length";

type Order = (a: BandAnswer, b: BandAnswer) => number;

const byLabel: Order = (a, b) => a.label.localeCompare(b.label, undefined, { numeric: true });
const then =
  (first: Order): Order =>
  (a, b) =>
    first(a, b) || byLabel(a, b);

export const SORTS: Readonly<Record<SortKey, { name: string; by: Order }>> = {
  label: { name: "label", by: byLabel },
  width: { name: "width, widest first", by: then((a, b) => b.width_mm - a.width_mm) },
  pitch: { name: "pitch, coarsest first", by: then((a, b) => (a.tpi_lo ?? 99) - (b.tpi_lo ?? 99)) },
  edge: { name: "edge, keenest first", by: then((a, b) => a.dullness - b.dullness) },
  used: {
    name: "last used",
    by: then((a, b) => (b.last_run_at ?? "").localeCompare(a.last_run_at ?? "")),
  },
  length: { name: "length", by: then((a, b) => a.length_mm - b.length_mm) },
};

/** Whether a band is shown: each word typed stands in something said of it. */
export function matches(
  band: BandAnswer,
  text: string,
  filter: Filter,
  fits: readonly [number, number] | undefined,
): boolean {
  if (band.state === "scrapped" && !filter.gone) return false;
  if (filter.edge !== null && band.edge !== filter.edge) return false;
  if (fits && (band.length_mm < fits[0] || band.length_mm > fits[1])) return false;
  const said =
    `${band.label} ${band.width_mm} mm ${band.form} ${band.steel} ${band.place} ${band.mounted_on ?? ""} ${band.tpi_lo ?? ""}tpi ${band.note}`
      .toLowerCase()
      .replaceAll("_", " ");
  return text
    .toLowerCase()
    .split(/\s+/)
    .every((word) => said.includes(word));
}
