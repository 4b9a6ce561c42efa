/** Lines and fills of the small drawings: each a path and what it is drawn as. */

export type As =
  | "ink"
  | "soft"
  | "hair"
  | "dash"
  | "wood"
  | "sawn"
  | "grain"
  | "steel"
  | "jade"
  | "chip"
  | "burn"
  | "move"
  | "stop"
  | "mark"
  | "paper";

export interface Mark {
  readonly as: As;
  readonly d: string;
}

export type At = readonly [x: number, y: number];

const n = (v: number) => v.toFixed(1).replace(/\.0$/, "");

export function line(...points: readonly At[]): string {
  return `M${points.map(([x, y]) => `${n(x)} ${n(y)}`).join("L")}`;
}

export function shape(...points: readonly At[]): string {
  return `${line(...points)}Z`;
}

export function box(x: number, y: number, wide: number, high: number): string {
  return shape([x, y], [x + wide, y], [x + wide, y + high], [x, y + high]);
}

export function ring(x: number, y: number, r: number): string {
  return `M${n(x - r)} ${n(y)}a${n(r)} ${n(r)} 0 1 0 ${n(2 * r)} 0a${n(r)} ${n(r)} 0 1 0 ${n(-2 * r)} 0Z`;
}

/** Points of y over x from one x to another. */
export function along(from: number, to: number, y: (x: number) => number, steps = 40): At[] {
  return Array.from({ length: steps + 1 }, (_, i) => {
    const x = from + ((to - from) * i) / steps;
    return [x, y(x)] as const;
  });
}

/** Points of x over y. */
export function down(from: number, to: number, x: (y: number) => number, steps = 40): At[] {
  return along(from, to, x, steps).map(([y, at]) => [at, y] as const);
}

export function arrow(from: At, to: At, head = 5): string {
  const [x0, y0] = from;
  const [x1, y1] = to;
  const angle = Math.atan2(y1 - y0, x1 - x0);
  const wing = (turn: number): At => [
    x1 - head * Math.cos(angle + turn),
    y1 - head * Math.sin(angle + turn),
  ];
  return line(from, to) + line(wing(0.5), to, wing(-0.5));
}

/** Part of a circle with a head at its end; degrees clockwise from the right. */
export function turn(x: number, y: number, r: number, from: number, to: number): string {
  const at = (deg: number): At => [
    x + r * Math.cos((deg * Math.PI) / 180),
    y + r * Math.sin((deg * Math.PI) / 180),
  ];
  const points = along(from, to, (d) => d, 24).map(([d]) => at(d));
  const way = Math.sign(to - from);
  const end = at(to);
  const tangent = ((to + 90 * way) * Math.PI) / 180;
  const wing = (w: number): At => [
    end[0] - 5 * Math.cos(tangent + w),
    end[1] - 5 * Math.sin(tangent + w),
  ];
  return line(...points) + line(wing(0.5), end, wing(-0.5));
}

/** A stretch of band standing upright, teeth to the left, as an outline; some teeth may be gone. */
export function band(
  x: number,
  from: number,
  to: number,
  options: { wide?: number; pitch?: number; gone?: readonly number[]; dull?: number } = {},
): string {
  const { wide = 14, pitch = 9, gone = [], dull = 0 } = options;
  const depth = 4.5;
  const points: At[] = [];
  const count = Math.floor((to - from) / pitch);
  for (let i = 0; i < count; i++) {
    const y = from + i * pitch;
    if (gone.includes(i)) {
      points.push([x + depth, y], [x + depth, y + pitch]);
      continue;
    }
    points.push([x + depth, y], [x + depth, y + pitch * 0.35]);
    if (dull > 0) points.push([x + dull, y + pitch * 0.82], [x + dull, y + pitch]);
    else points.push([x, y + pitch]);
    points.push([x + depth, y + pitch]);
  }
  return shape(...points, [x + depth, to], [x + wide, to], [x + wide, from]);
}
