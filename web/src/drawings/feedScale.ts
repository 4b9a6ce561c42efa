/** The feed scale: one logarithmic axis with every limit on it, and labels that do not collide. */
import { scaleLog } from "d3-scale";

export interface Mark {
  readonly key: string;
  readonly feed: number;
  readonly label: string;
  readonly binding: boolean;
}

export interface PlacedMark extends Mark {
  readonly x: number;
  readonly row: number;
  readonly anchor: "start" | "end";
}

const TICKS = [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000];
const LETTER_PX = 7.6;
const GAP_PX = 10;

/** An axis from a little under the rubbing floor to a little over the farthest limit shown. */
export function feedAxis(floor: number, limits: readonly number[], width: number) {
  const ceiling = Math.min(...limits);
  const far = Math.min(Math.max(...limits), Math.max(ceiling, floor) * 60);
  const low = Math.min(floor, ceiling) * 0.4;
  return scaleLog([low, Math.max(far * 1.25, low * 4)], [0, width]).clamp(true);
}

export type FeedAxis = ReturnType<typeof feedAxis>;

/** Where a figure that is not sure fades: from nothing to whole, in pixels along the axis. */
export interface Fade {
  readonly from: number;
  readonly to: number;
}

interface Range {
  readonly low: number;
  readonly high: number;
}

/** The clean window with its soft ends: whole only where nine draws in ten call it so. */
export function cleanZone(
  axis: FeedAxis,
  floor: Range,
  ceiling: Range,
): { rise: Fade; fall: Fade } {
  return {
    rise: { from: axis(floor.low), to: axis(floor.high) },
    fall: { from: axis(ceiling.low), to: axis(ceiling.high) },
  };
}

/** A trapezium over the axis that rises and falls with a fade, as an SVG path. */
export function softPath(zone: { rise: Fade; fall: Fade }, top: number, height: number): string {
  const { rise, fall } = zone;
  const [left, right] = [Math.min(rise.to, fall.from), Math.max(rise.to, fall.from)];
  if (rise.to <= fall.from) {
    return `M${rise.from} ${top + height}L${left} ${top}H${right}L${fall.to} ${top + height}Z`;
  }
  // The ends overlap: nowhere is it surely clean.
  const meet = (rise.from + fall.to) / 2;
  const share = Math.min(1, (fall.to - rise.from) / (rise.to - rise.from + fall.to - fall.from));
  return `M${rise.from} ${top + height}L${meet} ${top + height * (1 - share)}L${fall.to} ${top + height}Z`;
}

export interface Tick {
  /** Feed, m/min. */
  readonly feed: number;
  /** The round figure it is in the units shown. */
  readonly label: string;
}

/** Feeds round in a unit (of so many m/min) on the axis, thinned so that figures keep apart. */
export function feedTicks(axis: FeedAxis, unit = 1, gap = 46): Tick[] {
  const [low = 0, high = 0] = axis.domain();
  let last = -Infinity;
  return TICKS.map((t) => ({ feed: t * unit, label: `${t}` })).filter(({ feed }) => {
    const x = axis(feed);
    if (feed < low || feed > high || x - last < gap) return false;
    last = x;
    return true;
  });
}

/** Each mark in the lowest row where its label meets no other. */
export function placeMarks(marks: readonly Mark[], axis: FeedAxis, width: number): PlacedMark[] {
  const ends: number[] = [];
  return [...marks]
    .sort((a, b) => a.feed - b.feed)
    .map((mark) => {
      const x = axis(mark.feed);
      const wide = mark.label.length * LETTER_PX + GAP_PX;
      const anchor = x + wide > width ? ("end" as const) : ("start" as const);
      const [from, to] = anchor === "start" ? [x, x + wide] : [x - wide, x];
      let row = 0;
      while ((ends[row] ?? -Infinity) > from) row += 1;
      ends[row] = to;
      return { ...mark, x, row, anchor };
    });
}
