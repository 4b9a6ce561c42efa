/** Which band types are shown, and in which order. */
import type { TypeLine } from "../../api/schema";

export interface TypeFilter {
  readonly form: string;
  readonly steel: string;
  /** The widest that a saw takes. */
  readonly widest_mm: number | null;
  /** The radius that it has to turn. */
  readonly turns_mm: number | null;
}
export type TypeOrder = "table" | "width" | "pitch" | "kerf" | "price" | "radius";

const teeth = (t: TypeLine) => ((t.tpi_lo ?? 0) + (t.tpi_hi ?? 0)) / 2;

export const TYPE_ORDERS: Record<
  TypeOrder,
  { name: string; by: (a: TypeLine, b: TypeLine) => number }
> = {
  table: { name: "kind", by: (a, b) => a.number - b.number },
  width: { name: "width", by: (a, b) => a.width_mm - b.width_mm },
  pitch: { name: "teeth per inch", by: (a, b) => teeth(a) - teeth(b) },
  kerf: { name: "kerf", by: (a, b) => a.kerf_mm - b.kerf_mm },
  price: { name: "price a metre", by: (a, b) => a.price_per_m - b.price_per_m },
  radius: { name: "tightest radius", by: (a, b) => a.tightest_mm - b.tightest_mm },
};

export function typesLike(
  types: readonly TypeLine[],
  filter: TypeFilter,
  order: TypeOrder,
): TypeLine[] {
  return types
    .filter(
      (t) =>
        (filter.form === "" || t.form === filter.form) &&
        (filter.steel === "" || t.steel === filter.steel) &&
        (filter.widest_mm === null || t.width_mm <= filter.widest_mm) &&
        (filter.turns_mm === null || t.tightest_mm <= filter.turns_mm),
    )
    .sort((a, b) => TYPE_ORDERS[order].by(a, b) || a.number - b.number);
}

/** Its teeth per inch as people say them. */
export function pitchWords(t: TypeLine): string {
  if (t.tpi_lo === null) return "continuous";
  return t.tpi_lo === t.tpi_hi ? `${t.tpi_lo} tpi` : `${t.tpi_lo}–${t.tpi_hi ?? ""} tpi`;
}
