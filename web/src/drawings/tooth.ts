/**
 * The outline of teeth from their real figures. Lengths in mm: `along` runs with the band's
 * travel (downward on a vertical saw), `into` from the tooth tips into the body.
 */

export interface Point {
  readonly along: number;
  readonly into: number;
}

export interface ToothShape {
  readonly form: string;
  readonly pitch: number;
  readonly depth: number;
  readonly hookDeg: number;
}

const STEPS = 10;

function quadratic(a: Point, b: Point, c: Point): Point[] {
  return Array.from({ length: STEPS }, (_, i) => {
    const t = (i + 1) / STEPS;
    const u = 1 - t;
    return {
      along: u * u * a.along + 2 * u * t * b.along + t * t * c.along,
      into: u * u * a.into + 2 * u * t * b.into + t * t * c.into,
    };
  });
}

/** Share of the pitch where the gullet's floor ends and the next tooth's back begins. */
function floorEnd(form: string): number {
  if (form === "skip") return 0.62;
  if (form.startsWith("mill")) return 0.52;
  return form === "hook" ? 0.46 : 0.3;
}

/**
 * One gullet: from a tip, down its face (leaning under by the hook), round the floor and up the
 * next tooth's back to the next tip, at `along` = pitch. A continuous edge has a flat outline.
 */
export function gulletOutline(shape: ToothShape): Point[] {
  const { pitch, depth, form } = shape;
  const tip: Point = { along: 0, into: 0 };
  const next: Point = { along: pitch, into: 0 };
  if (depth <= 0) return [tip, next];
  const lean = depth * Math.tan((shape.hookDeg * Math.PI) / 180);
  const faceEnd: Point = { along: -0.62 * lean, into: 0.62 * depth };
  const floorStart: Point = { along: pitch * 0.14 - lean * 0.4, into: depth };
  const end: Point = {
    along: pitch * floorEnd(form),
    into: form === "skip" ? depth : depth * 0.72,
  };
  const corner: Point = { along: -lean, into: depth };
  const floor =
    form === "skip"
      ? [end]
      : quadratic(
          floorStart,
          { along: (floorStart.along + end.along) / 2 + pitch * 0.04, into: depth },
          end,
        );
  const shoulder: Point = { along: pitch * 0.78, into: depth * (form === "skip" ? 0.34 : 0.2) };
  const back = form === "skip" || form === "regular" ? [next] : quadratic(end, shoulder, next);
  return [tip, faceEnd, ...quadratic(faceEnd, corner, floorStart), ...floor, ...back];
}

/** Area of a closed outline (shoelace), mm². */
export function area(points: readonly Point[]): number {
  let twice = 0;
  points.forEach((p, i) => {
    const q = points[(i + 1) % points.length] as Point;
    twice += p.along * q.into - q.along * p.into;
  });
  return Math.abs(twice) / 2;
}

/**
 * The chips lying in a gullet: its outline shrunk toward the root under the face, so that the
 * area is `share` of the gullet's. Exact for any share from 0 to 1.
 */
export function fill(outline: readonly Point[], share: number): Point[] {
  const k = Math.sqrt(Math.min(Math.max(share, 0), 1));
  const deepest = outline.reduce((a, b) => (b.into > a.into ? b : a));
  return outline.map((p) => ({
    along: deepest.along + (p.along - deepest.along) * k,
    into: deepest.into + (p.into - deepest.into) * k,
  }));
}

export type Place = (p: Point) => readonly [number, number];

/** An SVG path through points, each placed on the page. */
export function path(points: readonly Point[], place: Place, closed = false): string {
  const steps = points.map((p, i) => {
    const [x, y] = place(p);
    return `${i === 0 ? "M" : "L"}${x.toFixed(2)} ${y.toFixed(2)}`;
  });
  return steps.join("") + (closed ? "Z" : "");
}

/** A toothed edge of some length: the outline repeated, for the ribbon and the band in the work. */
export function edge(shape: ToothShape, length: number): Point[] {
  const one = gulletOutline(shape);
  const points: Point[] = [];
  for (let start = 0; start < length; start += shape.pitch) {
    for (const p of one.slice(0, -1)) points.push({ along: p.along + start, into: p.into });
  }
  points.push({ along: Math.ceil(length / shape.pitch) * shape.pitch, into: 0 });
  return points;
}
