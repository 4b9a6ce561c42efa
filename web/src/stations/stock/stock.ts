import type { BilletPlan, Losses, StockAnswer } from "../../api/schema";

/** The fields of a piece of stock that a form holds. */
export const FIELDS = [
  "kind",
  "label",
  "material",
  "thickness_mm",
  "height_mm",
  "length_mm",
  "small_end_mm",
  "bark_mm",
  "bow_mm",
  "twist_mm",
  "moisture_pct",
  "trued",
  "reactive",
  "suspect",
  "price",
  "place",
  "note",
] as const satisfies readonly (keyof StockAnswer)[];

export type StockDraft = Pick<StockAnswer, (typeof FIELDS)[number]>;

/** How far a bow stands off at a share of the length, as a share of its greatest: a parabola. */
export function bowAt(share: number): number {
  return 4 * share * (1 - share);
}

/** Where a dragged cut may go: after the cut before it with its kerf, before the one after. */
export function heldCut(
  cuts: readonly number[],
  place: number,
  wanted: number,
  kerf: number,
  most: number,
): number {
  const low = place === 0 ? 0 : (cuts[place - 1] ?? 0) + kerf;
  const high = place === cuts.length - 1 ? most - kerf : (cuts[place + 1] ?? most) - kerf;
  return Math.min(Math.max(wanted, low), high);
}

/** A length to a tenth of a millimetre: nobody marks it finer. */
export function tenth(mm: number): number {
  return Math.round(mm * 10) / 10;
}

/** What a piece of stock is reckoned with, beside the job. */
export interface Reckoned {
  readonly clean_up_per_face_mm: number;
  readonly trim_mm: number;
  readonly crosscut_kerf_mm: number;
  readonly joint_loss_mm: number;
  /** Bought so thick and planed instead; null where that is not asked. */
  readonly bought_mm: number | null;
  readonly board_mm: number | null;
  readonly cant_mm: number | null;
}

/** As it usually is: a job's slices are as sawn, so that no clean-up is added to them. */
export function usualReckoning(usual: Losses | undefined): Reckoned {
  return {
    clean_up_per_face_mm: 0,
    trim_mm: usual?.trim_mm ?? 0,
    crosscut_kerf_mm: usual?.crosscut_kerf_mm ?? 0,
    joint_loss_mm: usual?.joint_loss_mm ?? 0,
    bought_mm: null,
    board_mm: null,
    cant_mm: null,
  };
}

export type LaidSlice = BilletPlan["sections"][number]["slices"][number];

/** Each slice of a section, with the pieces that it is ripped into side by side. */
export function slicesOf(laid: readonly LaidSlice[]): [LaidSlice, ...LaidSlice[]][] {
  const found: [LaidSlice, ...LaidSlice[]][] = [];
  for (const piece of laid) {
    const last = found.at(-1);
    if (last?.[0].from_mm === piece.from_mm) last.push(piece);
    else found.push([piece]);
  }
  return found;
}
