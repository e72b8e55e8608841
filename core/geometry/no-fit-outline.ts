import { convexParts, convexSum } from './convex-parts.js';
import { unite } from './kernel.js';
import { outerBoundary } from './outer-boundary.js';
import { signedArea, type Ring } from './rings.js';

/** An outline in convex parts, as it is asked against many others. */
export type Parts = readonly Ring[];

/**
 * All positions of the origin of `b` at which the outlines of `a` and `b` touch or cross, with every hole filled: the outer boundary of the no-fit area of two simple outlines. A position on the
 * boundary makes them touch, to 1e-4 mm.
 */
export function noFitOutline(a: Ring, b: Ring): Ring[] {
  return noFitOfParts(convexParts(a), convexParts(mirrored(b)));
}

/** The same of an outline in parts and of another in parts that was mirrored in the origin. */
export function noFitOfParts(parts: Parts, mirroredParts: Parts): Ring[] {
  const sums = parts.flatMap((part) => mirroredParts.map((other) => convexSum(part, other)));
  if (sums.length <= 1) return sums;
  const walked = outerBoundary(sums);
  return walked ? [walked] : unite(sums, 'nonzero').filter((ring) => signedArea(ring) > 0);
}

/** An outline turned by a half about the origin. */
export function mirrored(ring: Ring): Ring {
  return ring.map((v) => -v);
}
