/** Wheels seen edge-on against a straightedge, and a bolt on the clock with the way it turns. */

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** The gap is drawn this many px a mm, as long as it fits; then as large as fits. */
const PX_PER_MM = 14;
const MOST_PX = 46;
const LEAST_PX = 2;

/** A gap (mm) as drawn, px: larger than life, its sign kept. */
export function gapPx(gap_mm: number): number {
  const size = Math.min(
    Math.max(Math.abs(gap_mm) * PX_PER_MM, gap_mm === 0 ? 0 : LEAST_PX),
    MOST_PX,
  );
  return Math.sign(gap_mm) * size;
}

/** Angle (degrees) a wheel so tall leans when its far edge stands a gap away. */
export function leanDeg(gap_px: number, tall_px: number): number {
  return (Math.atan2(gap_px, tall_px) * 180) / Math.PI;
}

/** Where an hour stands on a clock of a radius, 12 at the top, y downward. */
export function clockPoint(oclock: number, radius: number): Point {
  const angle = ((oclock % 12) / 12) * 2 * Math.PI;
  return { x: radius * Math.sin(angle), y: -radius * Math.cos(angle) };
}

/** A turn as an arc round a bolt from its top, clockwise for positive turns; '' for none. */
export function turnArc(turns: number, radius: number): string {
  const part = Math.min(Math.abs(turns), 0.97);
  if (part === 0) return "";
  const angle = part * 2 * Math.PI * Math.sign(turns);
  const end = { x: radius * Math.sin(angle), y: -radius * Math.cos(angle) };
  const sweep = turns > 0 ? 1 : 0;
  const far = part > 0.5 ? 1 : 0;
  return `M0 ${-radius}A${radius} ${radius} 0 ${far} ${sweep} ${end.x.toFixed(2)} ${end.y.toFixed(2)}`;
}

/** The two barbs of the arrow at the end of that arc. */
export function turnHead(turns: number, radius: number, barb: number): string {
  const part = Math.min(Math.abs(turns), 0.97);
  if (part === 0) return "";
  const way = Math.sign(turns);
  const angle = part * 2 * Math.PI * way;
  const end = { x: radius * Math.sin(angle), y: -radius * Math.cos(angle) };
  const along = angle + (way * Math.PI) / 2 - Math.PI / 2;
  const at = (spread: number): string => {
    const back = along + Math.PI + spread;
    return `${(end.x + barb * Math.cos(back)).toFixed(2)} ${(end.y + barb * Math.sin(back)).toFixed(2)}`;
  };
  return `M${at(0.5)}L${end.x.toFixed(2)} ${end.y.toFixed(2)}L${at(-0.5)}`;
}
