/** How each operation reads as a sentence, from the core's own table. */
import type { OperationSentence, SentencePart } from "../../api/schema";
import { shop } from "../../lib/shop.svelte";
import type { Draft } from "../../lib/currentJob.svelte";

export type Part = string | SentencePart;
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

/** What a field is called on the screen, from its path in a fault; '' for what is not shown. */
export function labelOf(path: string): string {
  const field = path.split(".").at(-1) ?? "";
  const parts = operations().flatMap((o) => o.parts);
  const found = parts.find(
    (p): p is SentencePart => typeof p !== "string" && p.key === field && p.kind !== "",
  );
  return found?.label ?? "";
}

/** What choosing an operation empties: a field its sentence does not say must not be at work. */
export function unsaid(operation: Draft["operation"]): Partial<Draft> {
  return (sentenceOf(operation)?.empties ?? {}) as Partial<Draft>;
}
