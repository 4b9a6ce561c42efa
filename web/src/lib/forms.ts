/** What forms ask and offer, as the core's tables have it. */
import type { Choice, FormField } from "../api/schema";
import { shop } from "./shop.svelte";

/** A form's figures, in the order they are asked. */
export function fieldsOf<K extends string>(form: string): readonly (FormField & { key: K })[] {
  const mine = (shop.reference?.fields ?? []).filter((f) => f.form === form);
  return mine as (FormField & { key: K })[];
}

/** What may be chosen of a field. */
export function choicesOf<K extends string>(field: string): readonly (Choice & { key: K })[] {
  const mine = (shop.reference?.choices ?? []).filter((c) => c.field === field && c.key !== "");
  return mine as (Choice & { key: K })[];
}

/** What a choice is called; without a key, what its field is. */
export function called(field: string, key = ""): string {
  const found = shop.reference?.choices.find((c) => c.field === field && c.key === key);
  return found?.name ?? key;
}
