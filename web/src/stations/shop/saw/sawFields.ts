/** A saw's figures: which there are and what they are called, from the core's table. */
import type { FormField, SawInput } from "../../../api/schema";

export function valueOf(saw: SawInput, field: FormField): number | null {
  const value = saw[field.key as keyof SawInput];
  if (field.at === null) return (value as number | null | undefined) ?? null;
  return (value as (number | null)[])[field.at] ?? null;
}

/** The saw with one figure set; a third wheel left empty makes it a two-wheel saw. */
export function withValue(saw: SawInput, field: FormField, value: number | null): SawInput {
  if (field.at === null) return { ...saw, [field.key as keyof SawInput]: value };
  const list = [...(saw[field.key as keyof SawInput] as (number | null)[])];
  if (value === null && field.at === 2) list.splice(field.at, 1);
  else list[field.at] = value;
  return { ...saw, [field.key as keyof SawInput]: list };
}

const LENGTHS = ["band_length_mm.0", "band_length_mm.1"];

/** The saw with its first wheel set: what was only assumed of the others and of the band follows. */
export function withWheel(saw: SawInput, wheel: number | null): SawInput {
  const [before = null, ...others] = saw.wheel_diameters_mm as (number | null)[];
  const assumed = saw.assumed ?? [];
  const follow = (d: number | null, i: number) =>
    d === before || d === null || assumed.includes(`wheel_diameters_mm.${i + 1}`) ? wheel : d;
  const scaled = { ...saw, wheel_diameters_mm: [wheel, ...others.map(follow)] as number[] };
  if (!wheel || !before || !LENGTHS.every((name) => assumed.includes(name))) return scaled;
  const longer = (mm: number) => Math.round((mm * wheel) / before);
  return { ...scaled, band_length_mm: (saw.band_length_mm as number[]).map(longer) };
}

/** The name a figure has in the list of assumed ones. */
export function assumedName(field: FormField): string {
  return field.at === null ? field.key : `${field.key}.${field.at}`;
}
