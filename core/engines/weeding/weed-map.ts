import polylabel from 'polylabel';
import { areaOf, boundsOf, boxRing, regionsOf, signedArea, subtract, tolerances, widenBox, type Region, type Rings } from '../../geometry/index.js';

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

/** How truly the roomiest place is found: a number beside it is larger. */
const SPOT_MM = 0.5;

/** The weed map of a layer's cut (kernel-clean rings, mm). */
export function weedMap(cut: Rings): WeedMap {
  const regions = regionsOf(cut);
  const counters = countersOf(cut).map((counter) => spot('counter', counter));
  const loose = regions.filter((r) => signedArea(r.outer) < EASILY_LOST_MM2).map((r) => spot('loose part', r));
  const byPlace = (a: WeedSpot, b: WeedSpot) => a.xMm - b.xMm || a.yMm - b.yMm;
  return { pieces: regions.length, counters: counters.length, stays: cut, spots: [...counters.sort(byPlace), ...loose.sort(byPlace)] };
}

/** The closed-in parts of the waste, without the pieces that lie in them: a ring of waste round an island is one counter, and lies round it. */
function countersOf(cut: Rings): Region[] {
  const box = boundsOf(cut);
  if (!box) return [];
  const waste = regionsOf(subtract([boxRing(widenBox(box, 1))], cut));
  return waste.filter((region) => boundsOf([region.outer])!.minX > box.minX - 0.5 && areaOf([region.outer, ...region.holes]) > tolerances.CRUMB_MM2);
}

/** Marked where there is most room round it, which is inside the part also when that is bent. */
function spot(kind: WeedSpot['kind'], region: Region): WeedSpot {
  const points = (ring: Float64Array) => Array.from({ length: ring.length / 2 }, (_, i): [number, number] => [ring[2 * i]!, ring[2 * i + 1]!]);
  const areaMm2 = areaOf([region.outer, ...region.holes]);
  const [xMm, yMm] = polylabel([points(region.outer), ...region.holes.map(points)], Math.max(SPOT_MM, Math.sqrt(areaMm2) / 40));
  return { kind, xMm: xMm!, yMm: yMm!, areaMm2 };
}
