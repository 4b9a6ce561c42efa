import { shop } from "../../lib/shop.svelte";

/** What makes a band type, as typed; null where a figure is left to the tables. */
export interface TypeDraft {
  width_mm: string | number | null;
  thickness_mm: string | number | null;
  tpi_lo: string | number | null;
  tpi_hi: string | number | null;
  form: string | number | null;
  steel: string | number | null;
  set_per_side_mm: string | number | null;
}

export function isContinuous(form: unknown): boolean {
  return shop.reference?.forms.find((f) => f.key === form)?.continuous ?? false;
}

/** Pitch as saved: none for a continuous edge, one figure twice when it is constant. */
export function pitchOf(draft: TypeDraft): Pick<TypeDraft, "tpi_lo" | "tpi_hi"> {
  if (isContinuous(draft.form)) return { tpi_lo: null, tpi_hi: null };
  return { tpi_lo: draft.tpi_lo, tpi_hi: draft.tpi_hi ?? draft.tpi_lo };
}
