import Flatbush from 'flatbush';
import polylabel from 'polylabel';
import { areaOf, perimeter, regionsOf, squareToEdge, type Region, type Ring, type Rings } from '../../geometry/index.js';
import { weedingBorders, type BorderKind } from './border.js';
import type { WeedingWork } from './minutes.js';
import { RELIEF, reliefLines, type ReliefLine } from './relief.js';
import { edgesOf } from './roomy.js';
import { stripsOf, type Strip } from './strips.js';
import { wasteOf } from './waste.js';
import { weedMap, type WeedSpot } from './weed-map.js';

/** A separate part of a layer, by the place with most room in it. */
export interface LoosePart {
  readonly xMm: number;
  readonly yMm: number;
  readonly areaMm2: number;
  /** Gone with the waste before anybody sees it. */
  readonly easilyLost: boolean;
}

/** What is prepared of one layer, and what it takes to weed it. */
export interface LayerWeeding {
  readonly border: readonly Ring[];
  readonly relief: readonly ReliefLine[];
  readonly strips: readonly Strip[];
  readonly counters: readonly WeedSpot[];
  readonly looseParts: readonly LoosePart[];
  readonly work: WeedingWork;
}

export interface LayerWeedingWish {
  readonly border: BorderKind;
  readonly borderGapMm: number;
  /** Whether the waste is parted by relief lines, and how bulky strips may be. */
  readonly relief: boolean;
  readonly bulkMm: number;
  /** The thinnest stroke that the film can be weeded in. */
  readonly thinnestMm: number;
}

/** A part smaller than this is easily lost, mm²; so is one into which no circle of twice the thinnest stroke fits. Source: trade practice. */
const LOST_MM2 = 7;
/** A part smaller than this takes as long as a counter, nearly, mm². Source: trade practice. */
const SMALL_MM2 = 30;
/** How truly the roomiest place of a part is found, mm. */
const PLACE_MM = 0.02;

/**
 * Prepares a layer's cut (kernel-clean rings) for weeding. `marks` stay in the film like parts, and are enclosed by the border, but are not counted.
 * `thin` are the parts of it that are thinner than twice what the film can weed.
 */
export function layerWeeding(cut: Rings, marks: Rings, thin: readonly Region[], { border: kind, borderGapMm, relief: wanted, bulkMm, thinnestMm }: LayerWeedingWish): LayerWeeding {
  const stays = [...cut, ...marks];
  const border = weedingBorders(kind, stays, borderGapMm);
  const waste = wasteOf(border, stays);
  const relief = wanted ? reliefLines(waste, { ...RELIEF, bulkMm }) : [];
  const strips = border.length > 0 ? stripsOf(waste, relief) : [];
  const counters = weedMap(cut).spots.filter(({ kind: of }) => of === 'counter');
  const looseParts = regionsOf(cut).map((region) => loosePart(region, thinnestMm));
  return {
    border,
    relief,
    strips,
    counters,
    looseParts,
    work: {
      sheets: 1,
      counters: counters.length,
      looseParts: looseParts.length,
      smallParts: looseParts.filter(({ areaMm2 }) => areaMm2 < SMALL_MM2).length,
      strips: strips.length,
      outlineMm: cut.reduce((sum, ring) => sum + perimeter(ring), 0),
      thinMm: outlineIn(cut, thin),
    },
  };
}

function loosePart({ outer, holes }: Region, thinnestMm: number): LoosePart {
  const points = (ring: Ring) => Array.from({ length: ring.length / 2 }, (_, i): [number, number] => [ring[2 * i]!, ring[2 * i + 1]!]);
  const areaMm2 = areaOf([outer, ...holes]);
  const place = polylabel([points(outer), ...holes.map(points)], Math.max(PLACE_MM, Math.sqrt(areaMm2) / 200));
  return { xMm: place[0]!, yMm: place[1]!, areaMm2, easilyLost: areaMm2 < LOST_MM2 || place.distance < thinnestMm };
}

/** Edges of thin parts that lie so near an outline are the outline's, mm. */
const ON_OUTLINE_MM = 0.02;

/** How much of an outline belongs to some parts of its area. */
function outlineIn(cut: Rings, parts: readonly Region[]): number {
  if (parts.length === 0) return 0;
  const edges = edgesOf(cut, []);
  const index = new Flatbush(edges.length);
  for (const [x0, y0, x1, y1] of edges) index.add(Math.min(x0, x1), Math.min(y0, y1), Math.max(x0, x1), Math.max(y0, y1));
  index.finish();
  const isOnOutline = (x: number, y: number) => index.search(x - ON_OUTLINE_MM, y - ON_OUTLINE_MM, x + ON_OUTLINE_MM, y + ON_OUTLINE_MM).some((i) => squareToEdge(x, y, ...edges[i]!) < ON_OUTLINE_MM ** 2);
  return edgesOf(parts.flatMap(({ outer, holes }) => [outer, ...holes]), []).reduce((sum, [x0, y0, x1, y1]) => (isOnOutline((x0 + x1) / 2, (y0 + y1) / 2) ? sum + Math.hypot(x1 - x0, y1 - y0) : sum), 0);
}
