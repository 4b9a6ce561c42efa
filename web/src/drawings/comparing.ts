/** Up to four bands on one set of axes: each quantity scaled by the greatest among them. */
import type { Between, Compared } from "../api/schema";
import type { Kind } from "../lib/figures/units";

export interface Measure {
  readonly key: string;
  readonly label: string;
  readonly kind: Kind;
  readonly of: (c: Compared) => number | null;
  /** Drawn on a logarithmic axis: values lie decades apart. */
  readonly decades?: boolean;
  /** Which way is better; left out where neither is. */
  readonly better?: "more" | "less";
  readonly suffix?: string;
  /** Eight draws in ten lie between: said instead of the figure, and bands within it are level. */
  readonly range?: (c: Compared) => Between | null;
  /** Beyond this the figure means no more than “over it”, and bands are level. */
  readonly over?: number;
}

/** Figures nearer than this share of each other read alike; or of the width of their range. */
const LEVEL = 0.01;
const LEVEL_IN_RANGE = 0.1;

/** What bands are compared by. `many_hours`: more hours in bending than these say nothing more. */
export const measures = (many_hours: number): readonly Measure[] => [
  {
    key: "radius",
    label: "tightest radius",
    kind: "length",
    of: (c) => c.option?.tight_radius_mm ?? null,
    better: "less",
  },
  {
    key: "teeth",
    label: "teeth in the work",
    kind: "plain",
    of: (c) => c.option?.teeth_in_cut ?? null,
  },
  {
    key: "fill",
    label: "gullet filled",
    kind: "plain",
    suffix: "%",
    of: (c) => (c.option ? 100 * c.option.figures.gullet_fill : null),
    better: "less",
  },
  {
    key: "feed",
    label: "feed",
    kind: "feed",
    of: (c) => c.option?.figures.feed_m_min ?? null,
    better: "more",
  },
  {
    key: "stiffness",
    label: "stiffness sideways, N/mm",
    kind: "plain",
    of: (c) => c.option?.stiffness_N_mm ?? null,
    better: "more",
  },
  {
    key: "slack",
    label: "edge holds",
    kind: "force",
    of: (c) => c.option?.edge_slack_N ?? null,
    better: "more",
  },
  {
    key: "hours",
    label: "hours in bending",
    kind: "plain",
    of: (c) => c.option?.bending_hours ?? null,
    decades: true,
    better: "more",
    over: many_hours,
  },
  { key: "life", label: "life of the edge, m", kind: "plain", of: (c) => c.life_m, better: "more" },
  {
    key: "cost",
    label: "cost of a piece",
    kind: "plain",
    of: (c) => c.option?.figures.cost_total ?? null,
    range: (c) => c.option?.spread.cost ?? null,
    better: "less",
  },
];

function width(range: Between | null): number {
  return range === null ? 0 : range.high - range.low;
}

function held(measure: Measure, compared: readonly Compared[]): (number | null)[] {
  return compared.map((c) => {
    const value = measure.of(c);
    return value === null ? null : Math.min(value, measure.over ?? Infinity);
  });
}

/** Shares 0..1 of the axis for each band; null where a band has no such figure. */
export function shares(measure: Measure, compared: readonly Compared[]): (number | null)[] {
  const values = held(measure, compared);
  const known = values.filter((v): v is number => v !== null && v > 0);
  if (known.length === 0) return values.map(() => null);
  const most = Math.max(...known);
  if (!measure.decades) return values.map((v) => (v === null ? null : v / most));
  const low = Math.log10(Math.min(...known)) - 0.5;
  const span = Math.max(Math.log10(most) - low, 1e-9);
  return values.map((v) => (v === null || v <= 0 ? null : (Math.log10(v) - low) / span));
}

/**
 * Which bands are best by a measure, those that read alike together; none when all are level.
 * @param said how a figure is written: two written the same are level.
 */
export function bestOf(
  measure: Measure,
  compared: readonly Compared[],
  said: (value: number) => string = String,
): boolean[] {
  const values = held(measure, compared);
  const known = values.filter((v): v is number => v !== null);
  const least = Math.min(...known);
  const most = Math.max(...known);
  const doubt = Math.max(0, ...compared.map((c) => width(measure.range?.(c) ?? null)));
  const alike = (a: number, b: number): boolean =>
    Math.abs(a - b) <=
      Math.max(LEVEL * Math.max(Math.abs(a), Math.abs(b)), LEVEL_IN_RANGE * doubt) ||
    said(a) === said(b);
  if (!measure.better || known.length < 2 || alike(least, most)) return values.map(() => false);
  const best = measure.better === "more" ? most : least;
  return values.map((v) => v !== null && alike(v, best));
}
