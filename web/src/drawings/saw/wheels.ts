/** A band round its wheels, to scale: where wheels stand for a band's length, and its path. */

export interface Circle {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** Centres of two wheels one above the other (mm), the band tight round them. */
export function twoWheels(diameters: readonly number[], length_mm: number): readonly Circle[] {
  const [a = 400, b = a] = diameters;
  const mean = (a + b) / 2;
  const apart = Math.max((length_mm - Math.PI * mean) / 2, mean);
  return [
    { x: 0, y: 0, r: a / 2 },
    { x: 0, y: apart, r: b / 2 },
  ];
}

/** Three wheels of about one size in a triangle whose sides take up what the wheels leave. */
export function threeWheels(diameters: readonly number[], length_mm: number): readonly Circle[] {
  const r = (diameters.reduce((s, d) => s + d, 0) || 900) / diameters.length / 2;
  const side = Math.max((length_mm - 2 * Math.PI * r) / 3, 2 * r);
  return [
    { x: 0, y: 0, r },
    { x: 0, y: side, r },
    { x: -side * Math.sin(Math.PI / 3), y: side / 2, r },
  ];
}

export function wheelsFor(diameters: readonly number[], length_mm: number): readonly Circle[] {
  return diameters.length === 3
    ? threeWheels(diameters, length_mm)
    : twoWheels(diameters, length_mm);
}

/** The band's path round wheels given clockwise from the top, as an SVG path. */
export function bandPath(wheels: readonly Circle[]): string {
  const parts = wheels.map((wheel, i) => {
    const next = wheels[(i + 1) % wheels.length] ?? wheel;
    const angle = Math.atan2(next.y - wheel.y, next.x - wheel.x);
    const lean = Math.asin((wheel.r - next.r) / Math.hypot(next.x - wheel.x, next.y - wheel.y));
    const out = angle - Math.PI / 2 + lean;
    const leave = { x: wheel.x + wheel.r * Math.cos(out), y: wheel.y + wheel.r * Math.sin(out) };
    const reach = { x: next.x + next.r * Math.cos(out), y: next.y + next.r * Math.sin(out) };
    return { leave, reach, r: next.r };
  });
  const first = parts[0];
  if (!first) return "";
  const steps = parts.map((part, i) => {
    const after = parts[(i + 1) % parts.length] ?? part;
    const large = parts.length === 2 ? 1 : 0;
    return (
      `L${part.reach.x} ${part.reach.y}` +
      `A${part.r} ${part.r} 0 ${large} 1 ${after.leave.x} ${after.leave.y}`
    );
  });
  return `M${first.leave.x} ${first.leave.y}${steps.join("")}Z`;
}
