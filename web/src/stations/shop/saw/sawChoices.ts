/** What is chosen of a saw, in working order. */
import type { SawInput } from "../../../api/schema";

export interface SawChoice {
  readonly key: "orientation" | "tyre" | "guides" | "feed" | "tensioner";
  readonly legend: string;
  readonly options: readonly { readonly key: string; readonly name: string }[];
}

export const SAW_CHOICES: readonly SawChoice[] = [
  {
    key: "orientation",
    legend: "Frame",
    options: [
      { key: "vertical", name: "vertical" },
      { key: "horizontal", name: "horizontal" },
    ],
  },
  {
    key: "tyre",
    legend: "Tyres",
    options: [
      { key: "crowned", name: "crowned" },
      { key: "flat", name: "flat" },
      { key: "none", name: "none, bare metal" },
      { key: "worn", name: "worn or rutted" },
    ],
  },
  {
    key: "guides",
    legend: "Guides",
    options: [
      { key: "rolling", name: "rolling" },
      { key: "ceramic", name: "ceramic" },
      { key: "steel_block", name: "steel blocks" },
      { key: "soft_block", name: "soft blocks" },
      { key: "thrust_only", name: "thrust only" },
      { key: "none", name: "none" },
    ],
  },
  {
    key: "feed",
    legend: "Feed",
    options: [
      { key: "hand", name: "by hand" },
      { key: "power", name: "power feed" },
      { key: "table", name: "moving table" },
      { key: "carriage", name: "carriage" },
    ],
  },
  {
    key: "tensioner",
    legend: "Tension held by",
    options: [
      { key: "spring", name: "spring" },
      { key: "weight", name: "weight" },
      { key: "air", name: "air cylinder" },
      { key: "fixed", name: "screw, no spring" },
    ],
  },
];

const USUAL: Partial<SawInput> = { feed: "hand", tensioner: "spring" };

export function chosenOf(saw: SawInput, key: SawChoice["key"]): string | null {
  return (saw[key] ?? USUAL[key] ?? null) as string | null;
}
