import { boundsOf, grow, regionsOf, unite, type Rings } from '../../geometry/index.js';
import { NoFits } from './no-fit.js';
import { orientationOf, shapeOf } from './shape.js';

/** How the copies of a gang lie: from one to the next in a row, from one row to the next, and by how much every other row is shifted, mm. */
export interface GangPitch {
  readonly xMm: number;
  readonly yMm: number;
  readonly shiftMm: number;
}

/** How many copies a gang has, and how they lie to each other. */
export interface GangWish {
  readonly across: number;
  readonly down: number;
  /** Straight gutters, which a knife can follow; or as near as the outlines come. */
  readonly rows: 'straight' | 'tight';
  readonly gapMm: number;
}

/** Places this near count as one, mm. */
const HAIR_MM = 1e-6;

/**
 * How copies of one design lie beside each other in a gang, none turned, so that all films can share the layout. `rings` are all that is cut of it, on all films. In straight rows their boxes keep the
 * gap; tight, their outlines do, holes filled, every other row shifted by half where that makes the gang smaller. Outlines of many points are first simplified outwards, so that tight copies keep a
 * few hundredths more than the gap, and never less.
 */
export function gangPitch(rings: Rings, { across, down, rows, gapMm }: GangWish): GangPitch {
  const box = boundsOf(rings);
  if (!box) return { xMm: gapMm, yMm: gapMm, shiftMm: 0 };
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const straight = { xMm: width + gapMm, yMm: height + gapMm, shiftMm: 0 };
  if (rows === 'straight') return straight;
  const group = regionsOf(unite(rings));
  const own = orientationOf(
    group.map(({ outer }) => outer),
    0,
    shapeOf(group, 0, 0),
  );
  const tooNear = grow(new NoFits().between(own, own), gapMm);
  const xMm = Math.min(straight.xMm, farthest(tooNear, 'x'));
  const pitches = [0, xMm / 2].map((shiftMm): GangPitch => {
    // Of the next row whatever is above; two rows on, copies lie above each other again.
    const next = shiftMm > 0 ? offsetsIn(across, xMm, 1).map((x) => x + shiftMm) : offsetsIn(across, xMm, 0);
    return {
      xMm,
      yMm: Math.min(straight.yMm, Math.max(rowAbove(tooNear, next), rowAbove(tooNear, offsetsIn(across, xMm, 0)) / 2)),
      shiftMm,
    };
  });
  const areaOf = ({ yMm, shiftMm }: GangPitch) =>
    ((across - 1) * xMm + width + (down > 1 ? shiftMm : 0)) * ((down - 1) * yMm + height);
  return pitches.reduce((best, pitch) => (areaOf(pitch) < areaOf(best) - HAIR_MM ? pitch : best));
}

/** How far each copy lies from the first, row by row, mm. */
export function gangPlaces(
  { across, down }: Pick<GangWish, 'across' | 'down'>,
  { xMm, yMm, shiftMm }: GangPitch,
): { readonly xMm: number; readonly yMm: number }[] {
  return Array.from({ length: across * down }, (_, i) => {
    const row = Math.floor(i / across);
    return { xMm: (i % across) * xMm + (row % 2) * shiftMm, yMm: row * yMm };
  });
}

/** How far to the side copies of two rows can lie from each other; with `more`, of rows that are shifted against each other either way. */
function offsetsIn(across: number, xMm: number, more: 0 | 1): number[] {
  return Array.from({ length: 2 * across - 1 + more }, (_, i) => (i - across + 1 - more) * xMm);
}

/** How far above a row the next may begin, whose copies lie so far to the side of its own. */
function rowAbove(tooNear: Rings, offsets: readonly number[]): number {
  return Math.max(...offsets.map((x) => farthest(tooNear, 'y', x)));
}

/** The farthest place on a line along x (or, from `at` on the x axis, along y) that is on an outline: beyond it all is free. */
function farthest(rings: Rings, along: 'x' | 'y', at = 0): number {
  let far = 0;
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      // Across the line, and along it.
      const [xs, ys] = [[ring[j]!, ring[i]!] as const, [ring[j + 1]!, ring[i + 1]!] as const];
      const [[a, b], [from, to]] = along === 'x' ? [ys, xs] : [[xs[0] - at, xs[1] - at], ys];
      if (Math.min(a, b) > HAIR_MM || Math.max(a, b) < -HAIR_MM) continue;
      // An edge that lies on the line ends where its farther end is.
      far = Math.max(
        far,
        Math.abs(a - b) < HAIR_MM ? Math.max(from, to) : from + (to - from) * Math.min(1, Math.max(0, a / (a - b))),
      );
    }
  }
  return far;
}
