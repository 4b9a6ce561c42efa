/** What a new saw's form starts from: a kind with its figures assumed, or nothing. */
import type { KindLine, SawInput } from "../../../api/schema";
import { fieldsOf } from "../../../lib/forms";
import { withValue } from "./sawFields";

export function sawOfKind(kind: KindLine, name: string): SawInput {
  return { ...kind.saw, name: name || kind.name, assumed: [...kind.assumed], note: "" };
}

/** A saw of which nothing is known yet: empty fields, each of them asked for when it is saved. */
export function blankSaw(kind: KindLine, name: string): SawInput {
  const empty = fieldsOf("saw")
    .filter((f) => f.at !== 2)
    .reduce((saw, field) => withValue(saw, field, null), {
      ...kind.saw,
      name,
      assumed: [],
      note: "",
    } as SawInput);
  return { ...empty, drive: { kind: "fixed", speeds_m_s: [] } };
}

/** The saw with one name less in the list of what is assumed. */
export function confirmed(saw: SawInput, name: string): SawInput {
  return { ...saw, assumed: (saw.assumed ?? []).filter((a) => a !== name) };
}

/** Whether a figure is still one that its kind gave, or that nobody knows. */
export function isAssumed(saw: SawInput, name: string): boolean {
  return (saw.assumed ?? []).includes(name);
}
