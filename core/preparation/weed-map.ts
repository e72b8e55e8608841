import { boundsOf, regionsOf, signedArea, type Ring, type Rings } from '../geometry/index.js';

/** Something to look for while weeding: a counter to take out, or a loose part that is easily lost. */
export interface WeedSpot {
  readonly kind: 'counter' | 'loose part';
  readonly xMm: number;
  readonly yMm: number;
  readonly areaMm2: number;
}

/** What stays and what comes out of one layer. */
export interface WeedMap {
  readonly pieces: number;
  readonly counters: number;
  readonly stays: Rings;
  /** Counters from left to right, then the small loose parts: ticked off as they come out or are seen to be there. */
  readonly spots: readonly WeedSpot[];
}

/** Parts under this area are lost with the waste more often than not: about the size of an i's dot. */
const EASILY_LOST_MM2 = 30;

/** The weed map of a layer's cut (kernel-clean rings, mm). */
export function weedMap(cut: Rings): WeedMap {
  const regions = regionsOf(cut);
  const counters = regions.flatMap((region) => region.holes).map((hole) => spot('counter', hole));
  const loose = regions.filter((r) => signedArea(r.outer) < EASILY_LOST_MM2).map((r) => spot('loose part', r.outer));
  const byPlace = (a: WeedSpot, b: WeedSpot) => a.xMm - b.xMm || a.yMm - b.yMm;
  return { pieces: regions.length, counters: counters.length, stays: cut, spots: [...counters.sort(byPlace), ...loose.sort(byPlace)] };
}

function spot(kind: WeedSpot['kind'], ring: Ring): WeedSpot {
  const box = boundsOf([ring])!;
  return { kind, xMm: (box.minX + box.maxX) / 2, yMm: (box.minY + box.maxY) / 2, areaMm2: Math.abs(signedArea(ring)) };
}
