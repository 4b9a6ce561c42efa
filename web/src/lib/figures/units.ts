/** Showing and reading quantities in the shop's units. Inside, everything is SI. */

import table from "../../../../jade_ribbon/reference/tables/units.csv?raw";
import type { Shop, StepReading } from "../../api/schema";
import { readWritten, writtenNumbers } from "./written";

export type Units = Shop["units"];
export type Kind = StepReading["kind"];

interface Unit {
  readonly name: string;
  /** SI value of one of this unit. */
  readonly size: number;
  readonly digits: number;
}

const UNITS = new Map<string, Unit>(
  table
    .trim()
    .split("\n")
    .slice(1)
    .flatMap((row) => {
      const [kinds = "", name = "", size, , shown = "", digits] = row.split(",");
      const unit = { name, size: Number(size), digits: Number(digits) };
      const each = (kind: string) =>
        shown.split("|").map((system) => [`${kind} ${system}`, unit] as const);
      return kinds.split("|").flatMap(each);
    }),
);
export const INCH_MM = unitOf("length", "inch").size;

/** Kinds of which nobody knows more than three digits. */
const MEASURED: readonly Kind[] = ["stress", "force", "speed"];

/** The unit in which a kind is shown, by the core's table. */
function unitOf(kind: Kind, units: Units): Unit {
  const known = UNITS.get(`${kind} ${units}`);
  if (!known) throw new Error(`no unit of ${kind} for ${units}`);
  return known;
}

export function unitName(kind: Kind, units: Units): string {
  return unitOf(kind, units).name;
}

/** SI value of one of the unit shown. */
export function unitSize(kind: Kind, units: Units): number {
  return unitOf(kind, units).size;
}

/** The reader's own language, for numbers, days and times. */
const READER = globalThis.navigator?.languages?.[0] ?? "en-GB";
const POINT =
  new Intl.NumberFormat(READER).formatToParts(1.5).find((part) => part.type === "decimal")?.value ??
  ".";
/** A figure with the decimal sign that its reader writes. */
const written = (figure: string) => (POINT === "." ? figure : figure.replace(".", POINT));

/** A number with so many places after the decimal sign. */
export function fixed(value: number, places: number): string {
  return Number.isFinite(value) ? written(value.toFixed(places)) : "–";
}

/** A number with so many significant digits, without exponent or trailing zeros. */
export function significant(value: number, digits: number, keepZeros = false): string {
  if (!Number.isFinite(value)) return "–";
  if (value === 0) return "0";
  const places = Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(value))));
  const shown = value.toFixed(Math.min(places, 6));
  return written(shown.includes(".") && !keepZeros ? shown.replace(/\.?0+$/, "") : shown);
}

/** A figure no surer than so many digits: 6331 with two is 6300. */
export function about(value: number, digits: number): string {
  if (!Number.isFinite(value) || value === 0) return significant(value, digits);
  const step = 10 ** (Math.floor(Math.log10(Math.abs(value))) - digits + 1);
  return significant(Math.round(value / step) * step, digits);
}

/** How far (mm) a length may be from a sixteenth that it is called by: 19 mm is sold as 3/4. */
const NOMINAL_MM = 0.06;
const NOMINAL_SHARE = 0.008;
const EXACT_MM = 0.02;

/** An inch value as a fraction when it is one: to 1/64, or nearly enough a sixteenth; else null. */
export function inchFraction(inches: number): string | null {
  const near = Math.min(NOMINAL_MM, NOMINAL_SHARE * inches * INCH_MM);
  for (const denominator of [1, 2, 4, 8, 16, 32, 64]) {
    const numerator = Math.round(inches * denominator);
    const off = Math.abs(numerator / denominator - inches) * INCH_MM;
    if (off > (denominator <= 16 ? Math.max(near, EXACT_MM) : EXACT_MM)) continue;
    const whole = Math.floor(numerator / denominator);
    const rest = numerator - whole * denominator;
    if (rest === 0) return `${whole}`;
    return whole > 0 ? `${whole} ${rest}/${denominator}` : `${rest}/${denominator}`;
  }
  return null;
}

/** The number of a quantity in the shop's unit, without the unit's name. */
export function number(value: number, kind: Kind, units: Units): string {
  const unit = unitOf(kind, units);
  const shown = value / unit.size;
  if (units === "inch" && kind === "length") return inchFraction(shown) ?? significant(shown, 4);
  const keep = kind !== "length" && kind !== "long" && kind !== "plain";
  const size = Math.abs(shown);
  if (size >= 1000 && MEASURED.includes(kind)) return about(shown, 3);
  const digits = size >= 1000 ? 4 : kind === "thin" && size >= 1 ? 3 : unit.digits;
  return significant(shown, digits, keep);
}

/** A range in the shop's unit, in steps no finer than it is wide: 1.2–1.8; one figure if it is one. */
export function span(low: number, high: number, kind: Kind, units: Units): string {
  const { size } = unitOf(kind, units);
  const quarter = (high - low) / size / 4;
  if (!(quarter > 0)) return number(low, kind, units);
  const places = Math.min(Math.max(0, -Math.floor(Math.log10(quarter))), kind === "plain" ? 2 : 3);
  const step = 10 ** Math.max(0, Math.floor(Math.log10(quarter)));
  const [from, to] = [low, high].map((v) => fixed(Math.round(v / size / step) * step, places));
  const near = [low, high].map((v) => fixed(v / size, places));
  const [a, b] = places > 0 ? near : [from, to];
  return a === b ? (a ?? "") : `${a}–${b}`;
}

/** A figure with its doubt, both to the doubt's first digit: 5.3 ± 0.3 mm. */
export function withDoubt(value: number, doubt: number, kind: Kind, units: Units): string {
  const { size, name } = unitOf(kind, units);
  const shown = Math.abs(doubt / size);
  if (!(shown > 0)) return quantity(value, kind, units);
  const places = Math.min(Math.max(0, -Math.floor(Math.log10(shown))), 6);
  const middle = (value / size).toFixed(places).replace(/^-(0(\.0*)?)$/, "$1");
  return `${written(middle)} ± ${fixed(shown, places)} ${name}`.trim();
}

/** A number as it stands in a field: as its reader writes it, where that can be read one way only. */
export function fieldNumber(value: number, kind: Kind, units: Units): string {
  const text = number(value, kind, units);
  return POINT === "." || readings(text, kind, units).length === 1
    ? text
    : text.replace(POINT, ".");
}

/** A quantity with its unit. */
export function quantity(value: number, kind: Kind, units: Units): string {
  const name = unitName(kind, units);
  return name ? `${number(value, kind, units)} ${name}` : number(value, kind, units);
}

/** A quantity of the core's inside a sentence, or a range up to `high`, left open. */
export interface OpenQuantity {
  readonly value: number;
  readonly kind: Kind;
  readonly high?: number;
}
/** What the core tells a reader: plain words, or words with their quantities open. */
export type Said = string | readonly (string | OpenQuantity)[];

/** Words of the core's, their open quantities and ranges said in these units. */
export function say(text: Said, units: Units): string {
  if (typeof text === "string") return text;
  return text
    .map((part) => {
      if (typeof part === "string") return part;
      const last = quantity(part.high ?? part.value, part.kind, units);
      return part.high === undefined ? last : `${number(part.value, part.kind, units)} to ${last}`;
    })
    .join("");
}

/** Words put together, quantities staying open. */
export function together(...parts: readonly Said[]): Said {
  return parts.flatMap((part) => (typeof part === "string" ? [part] : part));
}

/** A plain number as people write it; null where it cannot be read or may be two. */
export function readNumber(text: string): number | null {
  const found = writtenNumbers(text);
  return found.length === 1 ? (found[0] ?? null) : null;
}

/** What was typed may be in SI: one value, two where a comma may be either, or none. */
export function readings(text: string, kind: Kind, units: Units): number[] {
  return readWritten(text, kind, unitOf(kind, units).size);
}

/** Reads what was typed into SI; a unit may be written, else it is the shop's. Null: unreadable. */
export function readQuantity(text: string, kind: Kind, units: Units): number | null {
  const found = readings(text, kind, units);
  return found.length === 1 ? (found[0] ?? null) : null;
}

/** A day that reads the same everywhere: 20 Nov 2026. */
export function day(at: string | Date): string {
  return new Date(at).toLocaleDateString(READER, {
    day: "numeric",
    month: "short",
    year: "numeric",
  });
}

/** A month with the end of its year: Nov 26. */
export function month(at: string | Date): string {
  return new Date(at).toLocaleDateString(READER, { month: "short", year: "2-digit" });
}

/** The time of a day: 14:05. */
export function time(at: string | Date): string {
  return new Date(at).toLocaleTimeString(READER, { hour: "2-digit", minute: "2-digit" });
}

/** Seconds as people say them. */
export function duration(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  const hours = Math.floor(whole / 3600);
  if (hours >= 48) return `${Math.round(hours / 24)} days`;
  const minutes = Math.floor((whole % 3600) / 60);
  if (hours > 0) return `${hours} h ${minutes} min`;
  const rest = whole % 60;
  return rest === 0 ? `${minutes} min` : `${minutes} min ${rest} s`;
}

export function percent(share: number): string {
  return `${significant(100 * share, share >= 0.995 || share < 0.095 ? 3 : 2)} %`;
}

export function money(amount: number, currency: string): string {
  return `${currency}\u00a0${fixed(amount, 2)}`;
}

/** How long ago a time was. */
export function ago(at: string | Date): string {
  return duration(Math.max(0, (Date.now() - new Date(at).getTime()) / 1000));
}

/** How large a file is: 3.1 MB. */
export function fileSize(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  if (bytes < 1e6) return `${Math.round(bytes / 1000)} kB`;
  return `${significant(bytes / 1e6, 2)} MB`;
}
