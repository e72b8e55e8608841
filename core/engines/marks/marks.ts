import type { Box, Ring } from '../../geometry/index.js';
import { markRing, type MarkShape, type PlainShape } from './shapes.js';

/** Clear film between the artwork and a mark, as a multiple of the mark's size. */
const GAP_SHARE = 0.5;

/** How far marks stay clear of the artwork, mm. */
export function markGapMm(sizeMm: number): number {
  return sizeMm * GAP_SHARE;
}

/** A registration mark: cut into every layer at the same place, removed at the end. */
export interface Mark {
  readonly shape: MarkShape;
  readonly xMm: number;
  readonly yMm: number;
  readonly ring: Ring;
}

/** What is wanted of the marks. */
export interface MarkWish {
  readonly sizeMm: number;
  /** Between the marks; null puts them as near as they may stand. */
  readonly distanceMm: number | null;
  /** Of the first of them; the other differs from it. A diamond unless it is said. */
  readonly shape?: PlainShape;
}

export interface MarkLayout {
  readonly marks: readonly Mark[];
  /** Between the marks' centres: L in the trap formula. */
  readonly distanceMm: number;
  /** The least that keeps them clear of the artwork. */
  readonly leastMm: number;
}

/**
 * A pair of marks outside the artwork's box, one at each end of its longer side. They differ in shape and stand at a third and at
 * two thirds of the shorter side, so no turning over and no half turn brings the pair onto itself.
 *
 * @param wish a distance less than clears the artwork puts them as near as they may
 */
export function layOutMarks(artwork: Box, { sizeMm, distanceMm, shape = 'diamond' }: MarkWish): MarkLayout {
  const gapMm = markGapMm(sizeMm);
  const [width, height] = [artwork.maxX - artwork.minX, artwork.maxY - artwork.minY];
  const [long, short] = [Math.max(width, height), Math.min(width, height)];
  // Low artwork still needs the two heights to differ visibly.
  const spread = Math.max(short / 3, sizeMm) / 2;
  const leastMm = Math.hypot(long + 2 * gapMm + sizeMm, 2 * spread);
  const out = (Math.sqrt(Math.max(distanceMm ?? 0, leastMm) ** 2 - (2 * spread) ** 2) - long) / 2;
  // Beside a bar only a bar with a notch differs.
  const other = shape === 'bar' ? 'notched bar' : 'bar';
  const [midX, midY] = [(artwork.minX + artwork.maxX) / 2, (artwork.minY + artwork.maxY) / 2];
  const [a, b] =
    width >= height
      ? [
          { x: artwork.minX - out, y: midY - spread },
          { x: artwork.maxX + out, y: midY + spread },
        ]
      : [
          { x: midX - spread, y: artwork.minY - out },
          { x: midX + spread, y: artwork.maxY + out },
        ];
  return {
    marks: [
      { shape, xMm: a.x, yMm: a.y, ring: markRing(shape, a.x, a.y, sizeMm) },
      { shape: other, xMm: b.x, yMm: b.y, ring: markRing(other, b.x, b.y, sizeMm) },
    ],
    distanceMm: Math.hypot(b.x - a.x, b.y - a.y),
    leastMm,
  };
}
