/** How each operation reads as a sentence: words and live parts in order. */
import type { Kind } from "../../lib/units";
import type { Draft } from "../../lib/ticket.svelte";

export interface QuantityPart {
  readonly part: "quantity";
  readonly field:
    | "height_mm"
    | "length_mm"
    | "slice_mm"
    | "min_radius_mm"
    | "tolerance_mm"
    | "wall_mm"
    | "log_diameter_mm"
    | "angle_deg";
  readonly kind: Kind;
  readonly label: string;
  readonly help: string;
  /** Value taken when it is null and someone opens the part. */
  readonly start: number;
  /** Shown and typed this many times the field: a diameter of its radius. */
  readonly times?: number;
}
export interface CountPart {
  readonly part: "count";
  readonly label: string;
}
export interface PickPart {
  readonly part: "operation" | "material" | "finish" | "saw" | "rules" | "round" | "grain";
}
export type Part = string | QuantityPart | CountPart | PickPart;

export const FINISHES: Readonly<Record<Draft["finish"], string>> = {
  rough: "left rough",
  plane: "to be planed",
  sand: "ready to sand",
  show: "finished off the saw",
};

export const OPERATIONS: Readonly<Record<Draft["operation"], string>> = {
  resaw: "Resaw",
  rip: "Rip",
  crosscut: "Crosscut",
  curve: "Saw to a curve",
  circle: "Cut round blanks",
  veneer: "Slice",
  wedge: "Saw at an angle",
  mill: "Mill a log",
  reclaim: "Saw old timber",
  sheet: "Cut sheet",
  bar: "Cut bar",
  tube: "Cut tube",
  block: "Cut a block",
};

const height: QuantityPart = {
  part: "quantity",
  field: "height_mm",
  kind: "length",
  label: "Height in the cut",
  help: "How much of the band stands in the work: the width of a board on edge.",
  start: 100,
};
const length: QuantityPart = {
  part: "quantity",
  field: "length_mm",
  kind: "length",
  label: "Length of each cut",
  help: "Along the cut, from entry to exit.",
  start: 1000,
};
const slice: QuantityPart = {
  part: "quantity",
  field: "slice_mm",
  kind: "length",
  label: "Thickness of each piece",
  help: "As it leaves the saw.",
  start: 14,
};
const tolerance: QuantityPart = {
  part: "quantity",
  field: "tolerance_mm",
  kind: "length",
  label: "Accuracy wanted",
  help: "Greatest difference in thickness over a piece.",
  start: 0.8,
};
const operation: PickPart = { part: "operation" };
const material: PickPart = { part: "material" };
const finish: PickPart = { part: "finish" };
const saw: PickPart = { part: "saw" };
const rules: PickPart = { part: "rules" };
const count: CountPart = { part: "count", label: "How many pieces" };
const TAIL: readonly Part[] = [", to ", tolerance, ", on the ", saw, ", by ", rules, "."];

const radius: QuantityPart = {
  part: "quantity",
  field: "min_radius_mm",
  kind: "length",
  label: "Tightest radius",
  help: "Radius, not diameter: half the width of the circle that fits the tightest bend.",
  start: 150,
};
const across: QuantityPart = {
  part: "quantity",
  field: "min_radius_mm",
  kind: "length",
  label: "Diameter of the blank",
  help: "Across the whole round: twice the radius, which follows it.",
  start: 150,
  times: 2,
};
const log: QuantityPart = {
  part: "quantity",
  field: "log_diameter_mm",
  kind: "length",
  label: "Log diameter",
  help: "At its thick end, under the bark.",
  start: 400,
};
const face: QuantityPart = {
  part: "quantity",
  field: "height_mm",
  kind: "length",
  label: "Widest face to be sawn",
  help: "Stands across the band: as much as the log is through, when sawn at the pith.",
  start: 300,
};
const grain: PickPart = { part: "grain" };
const wall: QuantityPart = {
  part: "quantity",
  field: "wall_mm",
  kind: "length",
  label: "Wall",
  help: "Of the tube or profile where it is thickest.",
  start: 3,
};
const angle: QuantityPart = {
  part: "quantity",
  field: "angle_deg",
  kind: "plain",
  label: "Angle, degrees",
  help: "Between the sawn face and square.",
  start: 5,
};
const LABELS: ReadonlyMap<string, string> = new Map(
  [radius, slice, tolerance, length, log, wall, angle, height].map((p) => [p.field, p.label]),
);

/** What a field is called on the screen, from its path in a fault; '' for what is not shown. */
export function labelOf(path: string): string {
  const field = path.split(".").at(-1) ?? "";
  return field === "count" ? count.label : (LABELS.get(field) ?? "");
}

const round: PickPart = { part: "round" };
const curved: readonly Part[] = [
  " of ",
  material,
  ", ",
  height,
  " thick, down to ",
  radius,
  " radius, ",
  count,
  " times ",
  length,
  ", ",
  finish,
  ...TAIL,
];
const plain: readonly Part[] = [
  " of ",
  material,
  ", ",
  height,
  " high, ",
  count,
  " cuts of ",
  length,
  ", ",
  finish,
  ...TAIL,
];

export const SENTENCES: Readonly<Record<Draft["operation"], readonly Part[]>> = {
  resaw: [
    operation,
    " ",
    height,
    " of ",
    material,
    " into ",
    count,
    " boards of ",
    slice,
    ", each ",
    length,
    " long, ",
    finish,
    ...TAIL,
  ],
  rip: [
    operation,
    " ",
    material,
    " ",
    grain,
    ", ",
    height,
    " thick, in ",
    count,
    " cuts of ",
    length,
    ", ",
    finish,
    ...TAIL,
  ],
  crosscut: [
    operation,
    " ",
    material,
    ", ",
    height,
    " thick, ",
    count,
    " times across ",
    length,
    ", ",
    finish,
    ...TAIL,
  ],
  curve: [operation, ...curved],
  circle: [
    operation,
    " of ",
    material,
    ", ",
    height,
    " thick, to a radius of ",
    radius,
    ", ",
    across,
    " across, ",
    count,
    " times ",
    length,
    " round, ",
    finish,
    ...TAIL,
  ],
  veneer: [
    operation,
    " ",
    height,
    " of ",
    material,
    " into ",
    count,
    " leaves of ",
    slice,
    ", each ",
    length,
    " long, ",
    finish,
    ...TAIL,
  ],
  wedge: [
    operation,
    " of ",
    angle,
    " degrees in ",
    material,
    ", ",
    height,
    " high, ",
    count,
    " times ",
    length,
    ", ",
    finish,
    ...TAIL,
  ],
  mill: [
    operation,
    " of ",
    material,
    ", ",
    log,
    " through, ",
    face,
    " at its widest face, ",
    count,
    " passes of ",
    length,
    ", ",
    finish,
    ...TAIL,
  ],
  reclaim: [operation, ...plain],
  sheet: [operation, ...plain],
  bar: [
    operation,
    " of ",
    material,
    ", ",
    height,
    " high, ",
    round,
    ", ",
    count,
    " cuts of ",
    length,
    ", ",
    finish,
    ...TAIL,
  ],
  tube: [
    operation,
    " of ",
    material,
    ", ",
    height,
    " high with a wall of ",
    wall,
    ", ",
    count,
    " cuts of ",
    length,
    ", ",
    finish,
    ...TAIL,
  ],
  block: [operation, ...plain],
};

/** Operations that may take a radius from a dropped outline, said or not. */
export const CURVED: readonly Draft["operation"][] = ["curve", "circle", "sheet", "block"];

/** What a sentence does not say must not be at work behind it: emptied when it is chosen. */
export function unsaid(operation: Draft["operation"]): Partial<Draft> {
  const parts = SENTENCES[operation].filter(
    (p): p is Exclude<Part, string> => typeof p !== "string",
  );
  const said = parts.map((p) => (p.part === "quantity" ? p.field : p.part)) as readonly string[];
  const empty: Partial<Draft> = {};
  if (!said.includes("min_radius_mm") && !CURVED.includes(operation)) empty.min_radius_mm = null;
  if (!said.includes("wall_mm")) empty.wall_mm = null;
  if (!said.includes("log_diameter_mm")) empty.log_diameter_mm = null;
  if (!said.includes("slice_mm")) empty.slice_mm = null;
  if (!said.includes("angle_deg")) empty.angle_deg = 0;
  if (!said.includes("grain")) empty.stood_on_end = false;
  if (!said.includes("round")) empty.round_stock = false;
  return empty;
}
