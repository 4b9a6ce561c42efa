/** An outline on the page: fitted to a frame, and parted by what a band can turn. */
import type { Outline, OutlineSample } from "../api/schema";

export type Fit = (p: readonly [number, number]) => readonly [number, number];

export interface Piece {
  readonly kind: "line" | "turns" | "tight";
  readonly d: string;
}

/** Places millimetres into a frame, whole and undistorted. */
export function fitOutline(outline: Outline, width: number, height: number, pad: number): Fit {
  const all = outline.chains.flat();
  const xs = all.map((p) => p.x_mm);
  const ys = all.map((p) => p.y_mm);
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const wide = Math.max(Math.max(...xs) - left, 1e-6);
  const high = Math.max(Math.max(...ys) - top, 1e-6);
  const k = Math.min((width - 2 * pad) / wide, (height - 2 * pad) / high);
  const [dx, dy] = [(width - wide * k) / 2, (height - high * k) / 2];
  return ([x, y]) => [(x - left) * k + dx, (y - top) * k + dy];
}

function kindOf(sample: OutlineSample, turns: number | null): Piece["kind"] {
  if (sample.radius_mm === null || turns === null) return "line";
  return sample.radius_mm >= turns * (1 - 1e-6) ? "turns" : "tight";
}

/** A chain as runs of one kind each; runs share their joints, so no gap shows. */
export function pieces(chain: readonly OutlineSample[], turns: number | null, fit: Fit): Piece[] {
  const found: Piece[] = [];
  let points: string[] = [];
  let kind: Piece["kind"] | null = null;
  for (const sample of chain) {
    const [x, y] = fit([sample.x_mm, sample.y_mm]);
    const at = `${x.toFixed(1)} ${y.toFixed(1)}`;
    const now = kindOf(sample, turns);
    points.push(at);
    if (kind !== null && now !== kind) {
      found.push({ kind, d: `M${points.join("L")}` });
      points = [at];
    }
    kind = now;
  }
  if (kind !== null && points.length > 1) found.push({ kind, d: `M${points.join("L")}` });
  return found;
}
