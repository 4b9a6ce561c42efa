/** Quantities as people write them, read by the tables that the core ships (formats/written.py). */
import type { WrittenRules } from "../../api/schema";
import { recall, remember } from "../storage";

let rules: WrittenRules | null = recall<WrittenRules | null>("written", null);

/** The tables, kept for when there is no network; an older server has none to send. */
export function takeRules(given: WrittenRules | undefined): void {
  if (!given) return;
  rules = given;
  remember("written", given);
}

function clean(text: string): string {
  const found = (rules?.replaced ?? []).reduce(
    (said, { pattern, sign }) => said.replace(new RegExp(pattern, "g"), () => sign),
    text,
  );
  return found.trim().toLowerCase();
}

const dotted = (text: string) => Number(text.replace(",", "."));

function grouped(text: string): number {
  const last = Math.max(text.lastIndexOf(","), text.lastIndexOf("."));
  const many = text.split(text[last] ?? "").length > 2;
  const whole = (many ? text : text.slice(0, last)).replace(/[.,]/g, "");
  return Number(many ? whole : `${whole}.${text.slice(last + 1)}`);
}

function fraction([, sign, whole, top, bottom]: RegExpExecArray): number[] {
  if (Number(bottom) === 0) return [];
  const value = Number(whole ?? 0) + Number(top) / Number(bottom);
  return [sign === "-" ? -value : value];
}

/** What a number may be: one value, two where a comma is either, or none. */
function numbers(text: string): number[] {
  for (const { form, pattern } of rules?.forms ?? []) {
    const match = new RegExp(pattern).exec(text);
    if (!match) continue;
    if (form === "fraction") return fraction(match);
    if (form === "spaced") return [dotted(text.replaceAll(" ", ""))];
    if (form === "grouped") return [grouped(text)];
    if (form === "either") return [Number(text.replace(",", "")), dotted(text)];
    return [dotted(text)];
  }
  return [];
}

const LENGTHS: readonly string[] = ["length", "long", "thin"];
const tidy = (value: number) => Number(value.toPrecision(12));

/** What a plain number may be. */
export function writtenNumbers(text: string): number[] {
  return numbers(clean(text));
}

/** SI value of one of a unit as people write it; NaN for an unknown one. */
function sizeOf(name: string, kind: string): number {
  return rules?.units.find((u) => u.kind === kind && u.names.includes(name))?.size ?? NaN;
}

/** What was typed of a kind of quantity, in SI; without a unit, in units of the usual size. */
export function readWritten(text: string, kind: string, usualSize: number): number[] {
  if (!rules) return [];
  const said = clean(text);
  const feet = LENGTHS.includes(kind) ? new RegExp(rules.feet).exec(said) : null;
  if (feet) {
    const foot = numbers(feet[1] ?? "");
    const inch = feet[2] ? numbers(feet[2]) : [0];
    const [f, i] = [foot[0], inch[0]];
    if (foot.length === 1 && inch.length === 1 && f !== undefined && i !== undefined)
      return [tidy(f * sizeOf("ft", kind) + i * sizeOf("in", kind))];
  }
  const parted = new RegExp(rules.parted).exec(said);
  if (!parted) return [];
  const name = parted[2] ?? "";
  const size = name ? sizeOf(name, kind) : usualSize;
  if (Number.isNaN(size)) return [];
  return numbers(parted[1] ?? "").map((n) => tidy(n * size));
}
