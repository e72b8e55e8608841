import { flatten, tolerances, type Polyline } from '../../geometry/index.js';
import type { Artwork } from './artwork.js';

/**
 * Takes an artwork apart into what a blade goes round and what it follows. Strokes of elements that have no fill are lines to follow:
 * they come as polylines in mm, y down, closed ones ending on the point they began with. The rest stays an artwork.
 */
export function splitCutLines(artwork: Artwork): { areas: Artwork; lines: Polyline[] } {
  const filled = new Set(
    artwork.paints.filter((paint) => paint.how.kind === 'fill').map((paint) => paint.elementIndex),
  );
  const followed = artwork.paints.filter((paint) => paint.how.kind === 'stroke' && !filled.has(paint.elementIndex));
  const lines = followed
    .flatMap((paint) => flatten(paint.curves, paint.matrix, tolerances.FLATTEN_MM))
    .filter((line) => line.points.length >= 4)
    .map((line) =>
      line.closed ? { points: Float64Array.of(...line.points, line.points[0]!, line.points[1]!), closed: true } : line,
    );
  return { areas: { ...artwork, paints: artwork.paints.filter((paint) => !followed.includes(paint)) }, lines };
}
