import {
  areaOf,
  boundsOf,
  countPieces,
  grow,
  growBevelled,
  growMitred,
  intersect,
  regionsOf,
  reversed,
  ringsOf,
  subtract,
  tolerances,
  unite,
  type Region,
  type Rings,
} from '../../geometry/index.js';
import { thinParts } from './thin-parts.js';

export type OutlineJoin = 'round' | 'mitred' | 'bevelled';

/** Solvers answer to this, mm: no hand and no cutter tells finer. */
const STEP_MM = 0.05;

/**
 * A border round an area (kernel-clean rings, mm) that reaches `widthMm` beyond it. Holes of the border narrower than `fillBelowMm` are
 * filled; the area itself is part of the border, which lies behind it.
 */
export function outlineArea(rings: Rings, widthMm: number, join: OutlineJoin, fillBelowMm: number): Rings {
  const grown =
    join === 'round'
      ? grow(rings, widthMm)
      : join === 'mitred'
        ? growMitred(rings, widthMm)
        : growBevelled(rings, widthMm);
  return fillBelowMm > 0 ? withoutNarrowVoids(grown, fillBelowMm) : grown;
}

/** An area with its narrow voids filled. A void is a hole less what stands in it: what is filled takes its islands along, since they are one with it. */
function withoutNarrowVoids(rings: Rings, widthMm: number): Rings {
  const turned = new Map(rings.map((ring) => [reversed(ring), ring]));
  const filled = new Set(
    regionsOf([...turned.keys()])
      .filter((hole) => isNarrower(hole, widthMm))
      .flatMap(({ outer, holes }) => [outer, ...holes])
      .map((ring) => turned.get(ring)!),
  );
  if (filled.size === 0) return rings;
  // Voids within an island that goes are filled or not by themselves; what is left stands inside the filled area and is united with it.
  return unite(rings.filter((ring) => !filled.has(ring)));
}

/** Whether a void vanishes when it is shrunk by half a width from all sides. */
function isNarrower({ outer, holes }: Region, widthMm: number): boolean {
  const box = boundsOf([outer])!;
  if (Math.min(box.maxX - box.minX, box.maxY - box.minY) < widthMm) return true;
  return grow([outer, ...holes], -widthMm / 2).length === 0;
}

/**
 * The least width at which a border round an area is one piece: half the longest edge of the minimum spanning tree of its parts'
 * clearances, found by halving to 0.05 mm. 0 when it is one piece already.
 */
export function leastForOnePiece(rings: Rings): number {
  if (countPieces(rings).pieces <= 1) return 0;
  const box = boundsOf(rings)!;
  return leastWhere(
    Math.hypot(box.maxX - box.minX, box.maxY - box.minY) / 2,
    (d) => countPieces(grow(rings, d)).pieces === 1,
  );
}

/** The least width, not under `fromMm`, at which a border has no part thinner than `thinnestMm`: every bridge can be weeded. */
export function leastForBridges(rings: Rings, fromMm: number, thinnestMm: number): number {
  const isThick = (d: number) => thinParts(grow(rings, d), thinnestMm).length === 0;
  const from = Math.max(fromMm, STEP_MM);
  // A bridge that is as wide as it is asked for at the latest: each side has come half of that further.
  return isThick(from) ? from : from + leastWhere(thinnestMm / 2, (more) => isThick(from + more));
}

/**
 * The widest that borders round some things (kernel-clean rings each, mm) may be before two of them meet, found by halving to 0.05 mm; 0 where two touch already, and
 * null when there are fewer than two.
 */
export function mostApart(things: readonly Rings[]): number | null {
  if (things.length < 2) return null;
  const box = boundsOf(things.flatMap((thing) => [...thing]))!;
  const most = Math.hypot(box.maxX - box.minX, box.maxY - box.minY) / 2;
  const meet = (d: number) => {
    const grown = things.map((thing) => grow(thing, d));
    return countPieces(unite(grown.flat())).pieces < grown.reduce((sum, rings) => sum + countPieces(rings).pieces, 0);
  };
  return Math.max(0, Number((leastWhere(most, meet) - STEP_MM).toFixed(2)));
}

/**
 * An area (kernel-clean rings, mm) made one piece with the least that is added between its pieces: what growing and shrinking again by `byMm` closes. Its outer edge
 * stays where nothing is near it.
 */
export function bridged(rings: Rings, byMm: number): Rings {
  return unite([...rings, ...grow(grow(rings, byMm), -byMm)]);
}

/** The least by which an area is bridged to one piece, with no bridge thinner than a film can be weeded; 0 when it is one piece already. */
export function leastBridging(rings: Rings, thinnestMm: number): number {
  const from = leastForOnePiece(rings);
  if (from === 0) return 0;
  const box = boundsOf(rings)!;
  // What was thin in the area itself is the artwork's, and stays.
  const own = thinParts(rings, thinnestMm).length;
  const holds = (d: number) => {
    const made = bridged(rings, d);
    return countPieces(made).pieces === 1 && thinParts(made, thinnestMm).length <= own;
  };
  return (
    from +
    leastWhere(Math.max(thinnestMm * 4, Math.hypot(box.maxX - box.minX, box.maxY - box.minY) / 2), (more) =>
      holds(from + more),
    )
  );
}

/** The least multiple of the step up to `most` for which a test holds, taken to hold for all above it; `most` when it never does. */
function leastWhere(most: number, holds: (mm: number) => boolean): number {
  let [low, high] = [0, Math.ceil(most / STEP_MM)];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (holds(middle * STEP_MM)) high = middle;
    else low = middle;
  }
  return Number((high * STEP_MM).toFixed(2));
}

/** What is taken out of a base besides shapes themselves. */
export interface KnockOutOptions {
  readonly clearanceMm: number;
  /** Of the base inside the shapes and their clearance, and between them, what is narrower than this. */
  readonly fillBelowMm: number;
  /** Pieces that come off the base and are smaller than this, mm². */
  readonly dropBelowMm2: number;
}

/** A base with shapes and clear space all round them taken out. Pieces that were small in the base itself are a decision of the artwork, and stay. */
export function knockedOut(
  base: Rings,
  shapes: Rings,
  { clearanceMm, fillBelowMm, dropBelowMm2 }: KnockOutOptions,
): Rings {
  const clear = outlineArea(shapes, clearanceMm, 'round', fillBelowMm);
  const open = regionsOf(subtract(base, clear));
  const area = (region: Region) => areaOf(ringsOf([region]));
  const small = open.filter((region) => area(region) < dropBelowMm2);
  if (small.length === 0) return ringsOf(open);
  const before = regionsOf(base).filter((region) => area(region) < dropBelowMm2);
  const wasSmall = ({ outer }: Region) =>
    before.some((region) => areaOf(intersect([outer], ringsOf([region]))) > tolerances.CRUMB_MM2);
  const dropped = new Set(small.filter((region) => !wasSmall(region)));
  return ringsOf(open.filter((region) => !dropped.has(region) && area(region) > tolerances.CRUMB_MM2));
}
