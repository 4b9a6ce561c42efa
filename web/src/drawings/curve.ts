/** A band seen from above in its own curved kerf: what it must lean to turn, in mm. */

export interface InCurve {
  /** Angle of the body against the cut at the teeth, radians. */
  readonly lean: number;
  /** Least gap left between body and wall, mm; negative where it binds. */
  readonly clearance: number;
}

/** Place of the kerf's middle `back` mm behind the teeth, for a radius. */
export function kerfMiddle(back: number, radius: number): number {
  return (back * back) / (2 * radius);
}

/**
 * The best lean leaves as much room at the outer wall as at the inner one by the back edge.
 * The body's middle runs at `lean * s` behind the teeth, the kerf's at s²/2R, so the outer gap is
 * taken up by lean² R/2 and the inner by w²/2R - lean w: equal at lean = (√2 - 1) w/R.
 */
export function inCurve(width: number, thickness: number, kerf: number, radius: number): InCurve {
  const lean = ((Math.SQRT2 - 1) * width) / radius;
  const outer = (lean * lean * radius) / 2;
  return { lean, clearance: (kerf - thickness) / 2 - outer };
}
