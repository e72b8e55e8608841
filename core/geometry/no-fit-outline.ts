import { convexParts, convexSum } from './convex-parts.js';
import { unite } from './kernel.js';
import { outerBoundary } from './outer-boundary.js';
import { mirrored, signedArea, type Ring, type Rings } from './rings.js';

/**
 * All positions of the origin of `b` at which the outlines of `a` and `b` touch or cross, with every hole filled: the outer boundary of the no-fit area of two simple outlines. A position on the
 * boundary makes them touch, to 1e-4 mm.
 */
export function noFitOutline(a: Ring, b: Ring): Ring[] {
  return noFitOfParts(convexParts(a), convexParts(mirrored(b)));
}

/** The same of an outline in parts and of another in parts that was mirrored in the origin. */
export function noFitOfParts(parts: Rings, mirroredParts: Rings): Ring[] {
  const sums = parts.flatMap((part) => mirroredParts.map((other) => convexSum(part, other)));
  if (sums.length <= 1) return sums;
  const walked = outerBoundary(sums);
  return walked ? [walked] : unite(sums, 'nonzero').filter((ring) => signedArea(ring) > 0);
}
