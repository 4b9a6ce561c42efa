/** What forms ask and offer, as the core's tables have it. */
import type { Choice, FormField, Reference } from "../api/schema";
import { shop } from "./shop.svelte";

/** The tables as they came; what an older server sent, and a device kept, may lack some. */
function tables(): Partial<Reference> {
  return shop.reference ?? {};
}

/** A form's figures, in the order they are asked. */
export function fieldsOf<K extends string>(form: string): readonly (FormField & { key: K })[] {
  const mine = (tables().fields ?? []).filter((f) => f.form === form);
  return mine as (FormField & { key: K })[];
}

/** What may be chosen of a field. */
export function choicesOf<K extends string>(field: string): readonly (Choice & { key: K })[] {
  const mine = (tables().choices ?? []).filter((c) => c.field === field && c.key !== "");
  return mine as (Choice & { key: K })[];
}

/** What a choice is called; without a key, what its field is. */
export function called(field: string, key = ""): string {
  const found = tables().choices?.find((c) => c.field === field && c.key === key);
  return found?.name ?? key;
}
