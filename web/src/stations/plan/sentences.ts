/** How each operation reads as a sentence, from the core's own table. */
import type { FoldedPart, OperationSentence, SentencePart } from "../../api/schema";
import { shop } from "../../lib/shop.svelte";
import type { Draft } from "../../lib/currentJob.svelte";

/** Words, a live part, or one that is said when it is not as usual or somebody asks. */
export type Bit = string | SentencePart | FoldedPart;
export type Part = SentencePart;
/** A field that a whole number of the sentence stands for. */
export type CountField = "count" | "stack";
type Numbers = { [K in keyof Draft]: Draft[K] extends number | null ? K : never }[keyof Draft];
/** A field that a quantity of the sentence stands for. */
export type QuantityField = Exclude<Numbers, CountField | "saw_id" | "band_id">;

export function operations(): readonly OperationSentence[] {
  return shop.reference?.operations ?? [];
}

export function sentenceOf(operation: Draft["operation"]): OperationSentence | undefined {
  return operations().find((o) => o.key === operation);
}

export function isFolded(bit: Bit): bit is FoldedPart {
  return typeof bit === "object" && "lead" in bit;
}

/** The live part of a bit of the sentence; null for words. */
export function partOf(bit: Bit | undefined): Part | null {
  if (bit === undefined || typeof bit === "string") return null;
  return isFolded(bit) ? bit.part : bit;
}

/** Whether a folded part is said unasked: it is not as usual. */
export function saysItself(bit: FoldedPart, draft: Draft): boolean {
  if (bit.part.part === "rules") return Object.keys(draft.rules).length > 0;
  const value = draft[bit.part.field as keyof Draft];
  return value !== bit.usual && value !== null;
}

/** What a field is called on the screen, from its path in a fault; '' for what is not shown. */
export function labelOf(path: string): string {
  const field = path.split(".").at(-1) ?? "";
  const parts = operations().flatMap((o) => o.parts.map(partOf));
  return parts.find((p) => p?.key === field && p.kind !== "")?.label ?? "";
}

/** What choosing an operation empties: a field its sentence does not say must not be at work. */
export function unsaid(operation: Draft["operation"]): Partial<Draft> {
  return (sentenceOf(operation)?.empties ?? {}) as Partial<Draft>;
}
