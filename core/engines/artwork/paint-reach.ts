import {
  boundsOf,
  compose,
  IDENTITY,
  stretchOf,
  transformRing,
  widenBox,
  type Box,
  type Curves,
  type Matrix,
} from '../../geometry/index.js';
import type { Paint } from './artwork.js';

/** A box that holds all of a paint, by default in mm on the artboard: its curves lie within their control points, its stroke within its width. Null for nothing. */
export function paintReach({ curves, matrix: own, how }: Paint, to: Matrix = IDENTITY): Box | null {
  const matrix = compose(to, own);
  const box = curvesReach(curves, matrix);
  if (!box || how.kind === 'fill') return box;
  // A square cap's corner is √2 times half the width away; a mitred corner as far as its limit lets it.
  const { width, cap, join, miterLimit } = how.style;
  const by =
    (width / 2) * stretchOf(matrix) * Math.max(cap === 'square' ? Math.SQRT2 : 1, join === 'miter' ? miterLimit : 1);
  return widenBox(box, by);
}

/** A box that holds curves after `matrix`; null when there are none. */
export function curvesReach(curves: Curves, matrix: Matrix): Box | null {
  const points: number[] = [];
  let at = 0;
  for (const op of curves.ops) {
    if (op === 'A') {
      const [x, y, rx, ry] = curves.coords.slice(at, at + 4) as [number, number, number, number];
      const far = Math.max(Math.abs(rx), Math.abs(ry));
      points.push(x - far, y - far, x + far, y - far, x + far, y + far, x - far, y + far);
    } else {
      for (let i = 0; i < COORDS[op]; i += 1) points.push(curves.coords[at + i]!);
    }
    at += COORDS[op];
  }
  return boundsOf([transformRing(Float64Array.from(points), matrix)]);
}

const COORDS = { M: 2, L: 2, C: 6, A: 7, Z: 0 } as const;
