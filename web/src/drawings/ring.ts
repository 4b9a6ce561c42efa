/** A ring of straight segments as paths, the middle at 0, 0. */

/** Corners of one segment: outer and inner faces stand square to their radius. */
function corner(radius: number, half: number, angle: number): string {
  const reach = radius / Math.cos(half);
  return `${(reach * Math.cos(angle)).toFixed(1)} ${(reach * Math.sin(angle)).toFixed(1)}`;
}

/** One path a segment; `radius` to the middle of an outer face, `width` of the joint. */
export function ringPaths(segments: number, radius: number, width: number): string[] {
  if (!(segments >= 3)) return [];
  const half = Math.PI / segments;
  const inner = radius - width;
  return Array.from({ length: segments }, (_, i) => {
    const at = 2 * half * i;
    const [a, b] = [at - half, at + half];
    const corners = [
      corner(radius, half, a),
      corner(radius, half, b),
      corner(inner, half, b),
      corner(inner, half, a),
    ];
    return `M${corners.join("L")}Z`;
  });
}
