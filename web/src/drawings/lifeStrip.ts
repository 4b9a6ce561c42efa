/** A band's life as a strip: edge metres climbing with every run, falling at each sharpening. */
import { scaleLinear, scaleTime } from "d3-scale";
import { area as areaShape, curveStepAfter, line } from "d3-shape";

export interface StripRun {
  readonly at: Date;
  readonly after: number;
}

export interface Fan {
  readonly from: number;
  /** Further metres that 90, 50 and 10 % of such edges last. */
  readonly left: readonly [number, number, number];
}

export interface Strip {
  readonly path: string;
  readonly fan: string;
  readonly middle: string;
  readonly x: (at: Date) => number;
  readonly y: (metres: number) => number;
  readonly years: readonly Date[];
}

const FAN_SHARE = 0.16;

/**
 * Lays the history over the left of the strip and the fan of what is left over its right.
 * The fan is a spread in metres: its width on the page says nothing about dates.
 */
export function lifeStrip(
  arrived: Date,
  runs: readonly StripRun[],
  sharpened: readonly Date[],
  now: Date,
  fan: Fan | null,
  width: number,
  height: number,
): Strip {
  const split = fan ? width * (1 - FAN_SHARE) : width;
  const x = scaleTime([arrived, now], [0, split]);
  const top = Math.max(1, ...runs.map((r) => r.after), fan ? fan.from + fan.left[2] : 0);
  const y = scaleLinear([0, top], [height, 4]);
  const steps: [number, number][] = [[0, y(0)]];
  const events = [
    ...runs.map((r) => ({ at: r.at, metres: r.after })),
    ...sharpened.map((at) => ({ at, metres: 0 })),
  ].sort((a, b) => a.at.getTime() - b.at.getTime());
  for (const e of events) steps.push([x(e.at), y(e.metres)]);
  const last = fan ? fan.from : (events.at(-1)?.metres ?? 0);
  steps.push([split, y(last)]);
  const draw = line<[number, number]>()
    .x((p) => p[0])
    .y((p) => p[1])
    .curve(curveStepAfter);
  const spread = areaShape<[number, number, number]>()
    .x((p) => p[0])
    .y0((p) => p[1])
    .y1((p) => p[2]);
  return {
    path: draw(steps) ?? "",
    fan: fan
      ? (spread([
          [split, y(fan.from), y(fan.from)],
          [width, y(fan.from + fan.left[0]), y(fan.from + fan.left[2])],
        ]) ?? "")
      : "",
    middle: fan ? `M${split} ${y(fan.from)}L${width} ${y(fan.from + fan.left[1])}` : "",
    x: (at) => x(at),
    y: (metres) => y(metres),
    years: x.ticks(6),
  };
}
