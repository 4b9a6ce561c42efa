/** A saw's figures with plain words on where to find them. */
import type { SawInput } from "../../../api/schema";
import type { Kind } from "../../../lib/units";

export interface SawField {
  readonly key: keyof SawInput;
  /** Place in a pair or list of lengths. */
  readonly at?: number;
  readonly label: string;
  readonly kind: Kind;
  readonly usual: string;
  readonly help: string;
  /** The word of the glossary that tells what it is. */
  readonly term?: string;
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
    term: "thickness",
    label: "Thickest band",
    kind: "thin",
    usual: "thickness_mm",
    help: "What the wheels can bend for long.",
  },
  {
    key: "wheel_force_max_N",
    term: "wheel_force",
    label: "Greatest force at the tensioned wheel",
    kind: "force",
    usual: "wheel_force_max_N",
    help: "What frame and spring hold: twice the band’s tension. Some plates give it; a strain gauge on a wide band at the spring’s end tells it.",
  },
  {
    key: "height_mm",
    term: "guard",
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
  },
  {
    key: "guide_span_base_mm",
    term: "guides",
    label: "Guides apart, guard down on the table",
    kind: "length",
    usual: "guide_span_base_mm",
    help: "Upper to lower guide with nothing under the guard.",
  },
  {
    key: "motor_kW",
    term: "power",
    label: "Motor",
    kind: "motor",
    usual: "motor_kW",
    help: "From its plate: 1.5 kW, or 2 hp.",
  },
  {
    key: "drive_efficiency",
    label: "Share of it that reaches the band",
    kind: "plain",
    usual: "drive_efficiency",
    help: "Belt and bearings take the rest.",
  },
  {
    key: "feed_max_m_min",
    term: "feed",
    label: "Fastest feed of the power feed or carriage",
    kind: "feed",
    usual: "feed_m_min",
    help: "Leave empty by hand.",
  },
  {
    key: "hand_force_N",
    term: "push",
    label: "Push a person keeps up",
    kind: "force",
    usual: "hand_force_N",
    help: "About the weight of 8 kg.",
  },
];

export function valueOf(saw: SawInput, field: SawField): number | null {
  const value = saw[field.key];
  if (field.at === undefined) return (value as number | null | undefined) ?? null;
  return (value as (number | null)[])[field.at] ?? null;
}

/** The saw with one figure set; a third wheel left empty makes it a two-wheel saw. */
export function withValue(saw: SawInput, field: SawField, value: number | null): SawInput {
  if (field.at === undefined) return { ...saw, [field.key]: value };
  const list = [...(saw[field.key] as (number | null)[])];
  if (value === null && field.at === 2) list.splice(field.at, 1);
  else list[field.at] = value;
  return { ...saw, [field.key]: list };
}

/** The name a figure has in the list of assumed ones. */
export function assumedName(field: SawField): string {
  return field.at === undefined ? field.key : `${field.key}.${field.at}`;
}
