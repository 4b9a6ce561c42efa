import { tick } from "svelte";

/** Brings whoever filled in a form to the first field that was refused, once it is marked. */
export async function toFirstFault(): Promise<void> {
  await tick();
  document.querySelector<HTMLElement>('#main [aria-invalid="true"]')?.focus();
}
