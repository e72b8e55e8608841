/** An affine map as in SVG: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** The map that does `inner` first, then `outer`. */
export function compose(outer: Matrix, inner: Matrix): Matrix {
  const [a, b, c, d, e, f] = outer;
  const [g, h, i, j, k, l] = inner;
  return [a * g + c * h, b * g + d * h, a * i + c * j, b * i + d * j, a * k + c * l + e, b * k + d * l + f];
}

export const translation = (x: number, y: number): Matrix => [1, 0, 0, 1, x, y];
export const scaling = (x: number, y = x): Matrix => [x, 0, 0, y, 0, 0];

/** Turns by `deg` degrees from the x axis towards the y axis. */
export function rotation(deg: number): Matrix {
  const r = (deg * Math.PI) / 180;
  return [Math.cos(r), Math.sin(r), -Math.sin(r), Math.cos(r), 0, 0];
}

/** The largest factor by which the map lengthens any direction (its greater singular value): bounds how errors grow. */
export function stretchOf([a, b, c, d]: Matrix): number {
  const s = (a * a + b * b + c * c + d * d) / 2;
  const det = a * d - b * c;
  return Math.sqrt(s + Math.sqrt(Math.max(0, s * s - det * det)));
}

/** The map back, or null when the map flattens the plane. */
export function inverse([a, b, c, d, e, f]: Matrix): Matrix | null {
  const det = a * d - b * c;
  if (!(Math.abs(det) > 1e-18)) return null;
  return [d / det, -b / det, -c / det, a / det, (c * f - d * e) / det, (b * e - a * f) / det];
}
