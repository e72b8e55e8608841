import {
  boundsOf,
  pointCount,
  regionsOf,
  ringsToPathData,
  simplifyRing,
  type Box,
  type Rings,
} from '../../geometry/index.js';

/**
 * An area as the page draws it, as path data in mm, as fine as the picture needs: seen as a whole, `coarse`; seen nearer, the parts of `fine` that are
 * in view. What has few points has no coarse one.
 */
export interface DrawnPath {
  readonly fine: readonly string[];
  readonly coarse: string | null;
  /** Up to so many px per mm the coarse one cannot be told from the fine one. */
  readonly coarseUpTo: number;
}

export const NOTHING_DRAWN: DrawnPath = { fine: [], coarse: null, coarseUpTo: 0 };

/** Path data to a micron: finer than a screen shows at any zoom a hand uses. */
const DIGITS = 3;
/** Areas of fewer points are drawn whole at any zoom. */
const MANY_POINTS = 8000;
/** A large area is drawn in so many squares across and down, so that what is out of view costs nothing. */
const CELLS = 6;
/** The coarse outline strays by so much of the longest side: under half a pixel where all of it is in view. */
const STRAY = 1 / 2500;
const HALF_A_PIXEL = 0.45;

/** @param rings kernel-clean: outer rings positive, holes negative */
export function drawnPath(rings: Rings): DrawnPath {
  const box = boundsOf(rings);
  if (!box) return NOTHING_DRAWN;
  if (pointCount(rings) < MANY_POINTS) return { fine: [ringsToPathData(rings, DIGITS)], coarse: null, coarseUpTo: 0 };
  const strayMm = Math.max(box.maxX - box.minX, box.maxY - box.minY) * STRAY;
  return {
    fine: inCells(rings, box),
    coarse: ringsToPathData(
      rings.map((ring) => simplifyRing(ring, strayMm)),
      DIGITS,
    ),
    coarseUpTo: HALF_A_PIXEL / strayMm,
  };
}

/** Pieces with their holes, those that lie near each other in one path. */
function inCells(rings: Rings, box: Box): string[] {
  const cells = new Map<number, Rings[number][]>();
  const at = (v: number, from: number, to: number) =>
    Math.min(CELLS - 1, Math.floor(((v - from) / Math.max(to - from, 1e-9)) * CELLS));
  for (const { outer, holes } of regionsOf(rings)) {
    const own = boundsOf([outer])!;
    const cell =
      at((own.minX + own.maxX) / 2, box.minX, box.maxX) + CELLS * at((own.minY + own.maxY) / 2, box.minY, box.maxY);
    const there = cells.get(cell) ?? [];
    there.push(outer, ...holes);
    cells.set(cell, there);
  }
  return [...cells.values()].map((there) => ringsToPathData(there, DIGITS));
}
