/** A kerf seen from above, in mm. */

/** Place of the kerf's middle `back` mm behind the teeth, for a radius. */
export function kerfMiddle(back: number, radius: number): number {
  return (back * back) / (2 * radius);
}
