import {
  areaOf,
  boundsOf,
  boxesTouch,
  perimeter,
  pointCount,
  simplifyRing,
  type Box,
  type Region,
  type Rings,
} from '../../geometry/index.js';
import { colourFamilies, type ColourFamily } from './colour-families.js';
import { BARE, isWhite, unseenAreas, type UnseenArea, type ColouredArea } from './put-right.js';
import { narrowGaps, thinParts } from './thin-parts.js';
import { cutBesides, pinholes, speckRegions } from './specks.js';

/** Colours nearer than this (CIEDE2000) are often meant as one. */
export const NEAR_COLOUR = 6;
/** Within this an outline keeps its look: a blade's own play is larger. */
export const SIMPLIFY_MM = 0.03;
/** More corners than this to a mm of outline are noise of a tracer, not drawing. */
const MOST_POINTS_PER_MM = 12;
/** A layer as it would be cut. */
export interface CheckedLayer {
  readonly key: string;
  readonly thinnestMm: number;
  /** The thinnest that lasts where the work will live; like what can be weeded when it is not given. */
  readonly durableMm?: number;
  /** What is cut of it. */
  readonly cut: Rings;
}

const boxOf = (region: Region) => boundsOf([region.outer])!;

/** What was found in the artwork as it is painted; the boxes are where, mm. */
export type PaintTrouble = { readonly places: readonly Box[] } & (
  | { readonly code: 'near-colours'; readonly colours: number; readonly families: readonly ColourFamily[] }
  | { readonly code: 'white-ground' | 'white-shapes'; readonly colours: readonly string[] }
  | { readonly code: 'painted-twice' | 'hidden' }
  | {
      readonly code: 'crowded-outline';
      readonly corners: number;
      readonly cornersAfter: number;
      readonly withinMm: number;
    }
);

/** What would spoil the cut in the artwork as it is painted, whatever films it is cut from. `frames` are those of its parts; `difference` is CIEDE2000; `unseen` are those of the areas that are to be named of which nothing shows. */
export function checkPaints(
  areas: readonly ColouredArea[],
  frames: readonly Box[],
  difference: (a: string, b: string) => number,
  unseen: readonly UnseenArea[] = unseenAreas(areas),
): PaintTrouble[] {
  return [
    ...nearColours(areas, difference),
    ...whiteMeaning(areas, frames),
    ...unseenTroubles(areas, unseen),
    ...crowdedOutlines(areas),
  ];
}

const boxesOf = (areas: readonly ColouredArea[]) => areas.map((area) => boundsOf(area.rings)!);

function nearColours(areas: readonly ColouredArea[], difference: (a: string, b: string) => number): PaintTrouble[] {
  const size = new Map<string, number>();
  for (const area of areas)
    if (area.colour !== BARE) size.set(area.colour, (size.get(area.colour) ?? 0) + areaOf(area.rings));
  const families = colourFamilies(
    [...size].map(([colour, areaMm2]) => ({ colour, areaMm2 })),
    NEAR_COLOUR,
    difference,
  );
  const others = new Set(families.flatMap((family) => family.others));
  return families.length > 0
    ? [
        {
          code: 'near-colours',
          colours: size.size,
          families,
          places: boxesOf(areas.filter((area) => others.has(area.colour))),
        },
      ]
    : [];
}

/** White that is only paper, and white that may be: a ground under everything, and other white shapes. */
function whiteMeaning(areas: readonly ColouredArea[], frames: readonly Box[]): PaintTrouble[] {
  const white = areas.filter(({ colour }) => isWhite(colour));
  if (white.length === 0) return [];
  const isGround = ({ rings }: ColouredArea) =>
    frames.some(
      (frame) =>
        areaOf(rings) >= 0.95 * (frame.maxX - frame.minX) * (frame.maxY - frame.minY) &&
        boxesTouch(boundsOf(rings)!, frame),
    );
  const grounds = white.filter(isGround);
  const colours = [...new Set(white.map((area) => area.colour))];
  return grounds.length > 0
    ? [{ code: 'white-ground', colours, places: boxesOf(grounds) }]
    : [{ code: 'white-shapes', colours, places: boxesOf(white) }];
}

function unseenTroubles(areas: readonly ColouredArea[], all: readonly UnseenArea[]): PaintTrouble[] {
  const about = (code: 'painted-twice' | 'hidden', list: readonly { index: number }[]): PaintTrouble[] =>
    list.length === 0 ? [] : [{ code, places: boxesOf(list.map(({ index }) => areas[index]!)) }];
  return [
    ...about(
      'painted-twice',
      all.filter((area) => area.doubled),
    ),
    ...about(
      'hidden',
      all.filter((area) => !area.doubled),
    ),
  ];
}

function crowdedOutlines(areas: readonly ColouredArea[]): PaintTrouble[] {
  const crowded = areas.filter(
    ({ rings }) =>
      pointCount(rings) > 200 &&
      pointCount(rings) > MOST_POINTS_PER_MM * rings.reduce((sum, ring) => sum + perimeter(ring), 0),
  );
  if (crowded.length === 0) return [];
  const corners = crowded.reduce((sum, area) => sum + pointCount(area.rings), 0);
  const cornersAfter = crowded.reduce(
    (sum, area) => sum + area.rings.reduce((n, ring) => n + simplifyRing(ring, SIMPLIFY_MM).length / 2, 0),
    0,
  );
  return [{ code: 'crowded-outline', corners, cornersAfter, withinMm: SIMPLIFY_MM, places: boxesOf(crowded) }];
}

/** One kind of trouble in the layers, layer by layer; `leastMm` is what its film asks for. */
export interface LayerTrouble {
  readonly code: 'thin-parts' | 'not-durable' | 'narrow-gaps' | 'specks' | 'pinholes';
  readonly layers: readonly { readonly key: string; readonly leastMm: number; readonly places: readonly Box[] }[];
}

/** What would spoil the cut at this size in these films: parts too thin to weed or to last, gaps too narrow, specks and pinholes. */
export function checkLayers(layers: readonly CheckedLayer[]): LayerTrouble[] {
  const found = layers.map(({ key, thinnestMm, durableMm = thinnestMm, cut }) => {
    const least = thinnestMm * thinnestMm;
    const specks = speckRegions(cut, least);
    const large = cutBesides(cut, specks);
    const thin = thinParts(large, thinnestMm).map(boxOf);
    return {
      key,
      thinnestMm,
      durableMm,
      'thin-parts': thin,
      // What cannot even be weeded is said once.
      'not-durable':
        durableMm > thinnestMm
          ? thinParts(large, durableMm)
              .map(boxOf)
              .filter((box) => !thin.some((other) => boxesTouch(box, other)))
          : [],
      'narrow-gaps': narrowGaps(large, thinnestMm).map(boxOf),
      specks: specks.map(boxOf),
      pinholes: pinholes(large, least).map((hole) => boundsOf([hole])!),
    };
  });
  return (['thin-parts', 'not-durable', 'narrow-gaps', 'specks', 'pinholes'] as const).flatMap(
    (code): LayerTrouble[] => {
      const troubled = found
        .filter((layer) => layer[code].length > 0)
        .map((layer) => ({
          key: layer.key,
          leastMm: code === 'not-durable' ? layer.durableMm : layer.thinnestMm,
          places: layer[code],
        }));
      return troubled.length > 0 ? [{ code, layers: troubled }] : [];
    },
  );
}
