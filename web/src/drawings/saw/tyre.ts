/** A tyre cut across, and where a band rides on it; mm, the front edge at zero. */

const CROWN_SHARE = 0.012;

/** Height of a crowned tyre's face at a place across it: a flat arc, highest in the middle. */
export function crownHeight(at_mm: number, width_mm: number, crowned: boolean): number {
  if (!crowned) return 0;
  const off = (at_mm - width_mm / 2) / (width_mm / 2);
  return CROWN_SHARE * width_mm * (1 - off * off);
}

/** Points along the tyre's face as an SVG path, so many pixels to the mm. */
export function facePath(width_mm: number, crowned: boolean, scale: number, grow: number): string {
  const points = Array.from({ length: 25 }, (_, i) => {
    const at = (width_mm * i) / 24;
    return `${at * scale} ${-crownHeight(at, width_mm, crowned) * scale * grow}`;
  });
  return `M${points.join("L")}`;
}
