import polylabel from 'polylabel';
import {
  areaOf,
  boundsOf,
  boxRing,
  regionsOf,
  subtract,
  tolerances,
  widenBox,
  type Region,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import type { SpotKind } from './spot-kinds.js';

/** A separate part of a layer, by the place with most room in it. */
export interface LoosePart {
  readonly xMm: number;
  readonly yMm: number;
  readonly areaMm2: number;
  /** Gone with the waste before anybody sees it. */
  readonly easilyLost: boolean;
}

/** Something to look for while weeding. */
export interface WeedSpot {
  readonly kind: SpotKind;
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

/** A part smaller than this is easily lost, mm²; so is one into which no circle of twice the thinnest stroke fits. Source: trade practice. */
const LOST_MM2 = 7;
/** How truly the roomiest place of a part is found, mm; of a larger one than this, mm², less truly. */
const PLACE_MM = 0.02;
const ROOMY_MM2 = 200;

/** How truly the roomiest place is found: a number beside it is larger. */
const SPOT_MM = 0.5;

/** The weed map of a layer's cut (kernel-clean rings, mm), whose separate parts are known. */
export function weedMap(cut: Rings, looseParts: readonly LoosePart[]): WeedMap {
  const counters = countersOf(cut).map((counter) => spot('counter', counter));
  const loose = looseParts
    .filter(({ easilyLost }) => easilyLost)
    .map(({ xMm, yMm, areaMm2 }): WeedSpot => ({ kind: 'loose part', xMm, yMm, areaMm2 }));
  const byPlace = (a: WeedSpot, b: WeedSpot) => a.xMm - b.xMm || a.yMm - b.yMm;
  return {
    pieces: looseParts.length,
    counters: counters.length,
    stays: cut,
    spots: [...counters.sort(byPlace), ...loose.sort(byPlace)],
  };
}

/** The weed map of a stencil: what is cut comes out, and the film round it and the islands in it stay. */
export function stencilMap(cut: Rings, looseParts: readonly LoosePart[]): WeedMap {
  const outs = looseParts.map(({ xMm, yMm, areaMm2 }): WeedSpot => ({ kind: 'cut-out', xMm, yMm, areaMm2 }));
  const islands = countersOf(cut).map((region) => spot('island', region));
  const byPlace = (a: WeedSpot, b: WeedSpot) => a.xMm - b.xMm || a.yMm - b.yMm;
  return {
    pieces: looseParts.length,
    counters: 0,
    stays: cut,
    spots: [...outs.sort(byPlace), ...islands.sort(byPlace)],
  };
}

/** The closed-in parts of the waste, without the pieces that lie in them: a ring of waste round an island is one counter, and lies round it. */
function countersOf(cut: Rings): Region[] {
  const box = boundsOf(cut);
  if (!box) return [];
  const waste = regionsOf(subtract([boxRing(widenBox(box, 1))], cut));
  return waste.filter(
    (region) =>
      boundsOf([region.outer])!.minX > box.minX - 0.5 && areaOf([region.outer, ...region.holes]) > tolerances.CRUMB_MM2,
  );
}

/** Marked where there is most room round it, which is inside the part also when that is bent. */
function spot(kind: WeedSpot['kind'], region: Region): WeedSpot {
  const points = (ring: Float64Array) =>
    Array.from({ length: ring.length / 2 }, (_, i): [number, number] => [ring[2 * i]!, ring[2 * i + 1]!]);
  const areaMm2 = areaOf([region.outer, ...region.holes]);
  const [xMm, yMm] = polylabel(
    [points(region.outer), ...region.holes.map(points)],
    Math.max(SPOT_MM, Math.sqrt(areaMm2) / 40),
  );
  return { kind, xMm: xMm!, yMm: yMm!, areaMm2 };
}

/** All separate parts of a layer's cut, in a film that can be weeded in strokes of `thinnestMm` and more. */
export function loosePartsOf(cut: Rings, thinnestMm: number): LoosePart[] {
  return regionsOf(cut).map((region) => loosePart(region, thinnestMm));
}

function loosePart({ outer, holes }: Region, thinnestMm: number): LoosePart {
  const points = (ring: Ring) =>
    Array.from({ length: ring.length / 2 }, (_, i): [number, number] => [ring[2 * i]!, ring[2 * i + 1]!]);
  const areaMm2 = areaOf([outer, ...holes]);
  const place = polylabel(
    [points(outer), ...holes.map(points)],
    areaMm2 < ROOMY_MM2 ? PLACE_MM : Math.sqrt(areaMm2) / 40,
  );
  return { xMm: place[0]!, yMm: place[1]!, areaMm2, easilyLost: areaMm2 < LOST_MM2 || place.distance < thinnestMm };
}
