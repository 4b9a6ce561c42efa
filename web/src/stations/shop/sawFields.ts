/** A saw's figures with plain words, and what is assumed when one is not known. */
import type { SawInput } from "../../api/schema";
import type { Kind } from "../../lib/units";

export interface SawField {
  readonly key: keyof SawInput;
  /** Place in a pair or list of lengths. */
  readonly at?: number;
  readonly label: string;
  readonly kind: Kind;
  readonly usual: string;
  readonly help: string;
  /** Value taken when someone does not know: cautious, and said so in every answer. */
  readonly assumed?: { readonly value: number | null; readonly words: string };
}

export const SAW_FIELDS: readonly SawField[] = [
  {
    key: "wheel_diameters_mm",
    at: 0,
    label: "Wheel, first",
    kind: "length",
    usual: "wheel_diameter_mm",
    help: "Across the tyre. It is often in the saw’s name.",
  },
  {
    key: "wheel_diameters_mm",
    at: 1,
    label: "Wheel, second",
    kind: "length",
    usual: "wheel_diameter_mm",
    help: "",
  },
  {
    key: "wheel_diameters_mm",
    at: 2,
    label: "Wheel, third",
    kind: "length",
    usual: "wheel_diameter_mm",
    help: "Leave empty on a two-wheel saw.",
  },
  {
    key: "band_length_mm",
    at: 0,
    label: "Shortest band",
    kind: "length",
    usual: "band_length_mm",
    help: "From the plate or manual; or the band that fits, less 20 mm.",
  },
  {
    key: "band_length_mm",
    at: 1,
    label: "Longest band",
    kind: "length",
    usual: "band_length_mm",
    help: "The band that fits, plus 20 mm.",
  },
  {
    key: "band_width_mm",
    at: 0,
    label: "Narrowest band",
    kind: "length",
    usual: "width_mm",
    help: "What the guides can hold.",
    assumed: { value: 3, words: "3 mm is assumed." },
  },
  {
    key: "band_width_mm",
    at: 1,
    label: "Widest band",
    kind: "length",
    usual: "width_mm",
    help: "From the plate or manual: whether the frame can tension it is another matter.",
  },
  {
    key: "band_thickness_max_mm",
    label: "Thickest band",
    kind: "thin",
    usual: "thickness_mm",
    help: "What the wheels can bend for long.",
    assumed: {
      value: 0.9,
      words: "0.9 mm is assumed; bending over the wheels is computed in any case.",
    },
  },
  {
    key: "wheel_force_max_N",
    label: "Greatest force at the tensioned wheel",
    kind: "force",
    usual: "wheel_force_max_N",
    help: "What frame and spring hold: twice the band’s tension. Some plates give it; a strain gauge on a wide band at the spring’s end tells it.",
    assumed: {
      value: null,
      words: "Then no answer can promise that the frame reaches its tension; each says so.",
    },
  },
  {
    key: "height_mm",
    label: "Height under the guides",
    kind: "length",
    usual: "saw_height_mm",
    help: "Table to guard, all the way up.",
  },
  {
    key: "throat_mm",
    label: "Throat",
    kind: "length",
    usual: "throat_mm",
    help: "Band to frame.",
    assumed: { value: 300, words: "300 mm is assumed; no figure leans on it yet." },
  },
  {
    key: "guide_span_base_mm",
    label: "Guides apart, guard down on the table",
    kind: "length",
    usual: "guide_span_base_mm",
    help: "Upper to lower guide with nothing under the guard.",
    assumed: {
      value: 90,
      words: "90 mm is assumed, a little more than usual: stiffness comes out cautious.",
    },
  },
  {
    key: "motor_kW",
    label: "Motor, kW",
    kind: "plain",
    usual: "motor_kW",
    help: "From its plate; one horsepower is 0.75 kW.",
  },
  {
    key: "drive_efficiency",
    label: "Share of it that reaches the band",
    kind: "plain",
    usual: "drive_efficiency",
    help: "Belt and bearings take the rest.",
    assumed: { value: 0.75, words: "0.75 is assumed, usual for one belt." },
  },
  {
    key: "feed_max_m_min",
    label: "Fastest feed of the power feed or carriage",
    kind: "feed",
    usual: "feed_m_min",
    help: "Leave empty by hand.",
    assumed: { value: null, words: "No limit is taken." },
  },
  {
    key: "hand_force_N",
    label: "Push a person keeps up",
    kind: "force",
    usual: "hand_force_N",
    help: "About the weight of 8 kg.",
    assumed: { value: 80, words: "80 N is assumed." },
  },
];

export const BLANK_SAW: SawInput = {
  name: "",
  orientation: "vertical",
  wheel_diameters_mm: [400, 400],
  tyre: "crowned",
  band_length_mm: [3340, 3380],
  band_width_mm: [3, 25],
  band_thickness_max_mm: 0.9,
  wheel_force_max_N: null,
  height_mm: 280,
  throat_mm: 380,
  guides: "rolling",
  guide_span_base_mm: 90,
  guide_span_per_height: 1,
  motor_kW: 1.5,
  drive_efficiency: 0.75,
  feed: "hand",
  feed_max_m_min: null,
  tensioner: "spring",
  hand_force_N: 80,
  drive: { kind: "fixed", speeds_m_s: [14] },
  assumed: [],
  note: "",
};

export function valueOf(saw: SawInput, field: SawField): number | null {
  const value = saw[field.key];
  if (field.at === undefined) return (value as number | null | undefined) ?? null;
  return (value as number[])[field.at] ?? null;
}

/** The saw with one figure set; a third wheel left empty makes it a two-wheel saw. */
export function withValue(saw: SawInput, field: SawField, value: number | null): SawInput {
  if (field.at === undefined) return { ...saw, [field.key]: value };
  const list = [...(saw[field.key] as number[])];
  if (value === null) list.splice(field.at, 1);
  else list[field.at] = value;
  return { ...saw, [field.key]: list };
}

/** The name a figure has in the list of assumed ones. */
export function assumedName(field: SawField): string {
  return field.at === undefined ? field.key : `${field.key}.${field.at}`;
}
