import type { Box, Ring } from '../geometry/index.js';

/** A registration mark: cut into every layer at the same place, removed at the end. */
export interface Mark {
  readonly shape: 'diamond' | 'bar';
  readonly xMm: number;
  readonly yMm: number;
  readonly ring: Ring;
}

export interface MarkLayout {
  readonly marks: readonly Mark[];
  /** Between the marks' centres: L in the trap formula. */
  readonly distanceMm: number;
}

/**
 * A pair of marks outside the artwork's box, one at each end of its longer side. They differ in shape and stand at a third and at
 * two thirds of the shorter side, so no turning over and no half turn brings the pair onto itself.
 *
 * @param gapMm clear film between artwork and marks
 */
export function layOutMarks(artwork: Box, sizeMm: number, gapMm: number): MarkLayout {
  const [width, height] = [artwork.maxX - artwork.minX, artwork.maxY - artwork.minY];
  const out = gapMm + sizeMm / 2;
  // Low artwork still needs the two heights to differ visibly.
  const spread = (side: number) => Math.max(side / 3, sizeMm) / 2;
  const [midX, midY] = [(artwork.minX + artwork.maxX) / 2, (artwork.minY + artwork.maxY) / 2];
  const [a, b] =
    width >= height
      ? [
          { x: artwork.minX - out, y: midY - spread(height) },
          { x: artwork.maxX + out, y: midY + spread(height) },
        ]
      : [
          { x: midX - spread(width), y: artwork.minY - out },
          { x: midX + spread(width), y: artwork.maxY + out },
        ];
  return {
    marks: [
      { shape: 'diamond', xMm: a.x, yMm: a.y, ring: diamond(a.x, a.y, sizeMm / 2) },
      { shape: 'bar', xMm: b.x, yMm: b.y, ring: bar(b.x, b.y, sizeMm, sizeMm / 2) },
    ],
    distanceMm: Math.hypot(b.x - a.x, b.y - a.y),
  };
}

function diamond(x: number, y: number, r: number): Ring {
  return Float64Array.of(x, y - r, x + r, y, x, y + r, x - r, y);
}

function bar(x: number, y: number, width: number, height: number): Ring {
  const [w, h] = [width / 2, height / 2];
  return Float64Array.of(x - w, y - h, x + w, y - h, x + w, y + h, x - w, y + h);
}
