/** The means by which a band's tension is measured, in the order of the house rule. */
import type { Kind } from "../../lib/units";

export type Means = "gauge" | "pluck" | "push" | "scale" | "travel";

interface MeansField {
  readonly key: Means;
  readonly name: string;
  readonly label: string;
  readonly kind: Kind;
}

export const MEANS: readonly [MeansField, ...MeansField[]] = [
  { key: "gauge", name: "strain gauge", label: "Stretch on the gauge", kind: "stretch" },
  { key: "pluck", name: "note", label: "Note, Hz", kind: "plain" },
  { key: "push", name: "side push", label: "Push at mid-span", kind: "force" },
  { key: "scale", name: "the saw’s scale", label: "Reading of the saw’s scale", kind: "plain" },
  { key: "travel", name: "wheel travel", label: "Wheel travel from snug", kind: "thin" },
];
