import { warpPoint, type TaperMap } from '../../engines/surface/index.js';
import {
  boundsOf,
  boxesTouch,
  inverse,
  stretchOf,
  transformRing,
  type Box,
  type Matrix,
} from '../../geometry/index.js';
import type { PaintedRegion } from '../../engines/artwork/index.js';
import {
  EVERYWHERE,
  type ArtworkPlace,
  type Finding,
  type PlaceLists,
  type PlaceRemedy,
  type PlaceRules,
  type Remedy,
} from '../../words/index.js';
import type { ArtworkPatch } from './decisions.js';
import { NO_REPAIR, type Repair } from './repair.js';

/*
 * A remedy acts everywhere, or only at the places a maker chose; and a place may be let be while the remedy acts everywhere else.
 * Places are kept in a part's own mm, so that they stay with what they mean when the part is moved, turned or made larger.
 */

/** Which field of a recipe's repair a remedy sets; white at single places sets none. */
const FIELDS = {
  tidy: 'tidy',
  specks: 'speckMm2',
  thicken: 'thickenMm',
  gaps: 'closeGapsMm',
  simplify: 'simplifyMm',
  hairlines: 'hairlines',
  crossings: 'fillCrossings',
} as const satisfies Record<Exclude<PlaceRemedy, 'bare'>, keyof Repair>;

/**
 * The middle of what lies at a place may move by this much, mm, though never by more than half of its own length, or by a quarter of its width and
 * height each way: outlines differ a little from one size to the next, and long thin ones in their length.
 */
const NEAR_MM = 0.1;
const NEAR_SHARE = 0.25;
/** Its length may change by this factor either way: that of a square's box does by 1.41 when it is turned. So a ring and the dot in its middle are told apart. */
const ALIKE = 1.5;

/** A chosen place where it is on the design at its final size, mm. */
export interface PlaceSpot {
  readonly xMm: number;
  readonly yMm: number;
  readonly acrossMm: number;
}

/** What was decided about single places, where they are on the design. */
export interface PlaceSpots {
  readonly only: PlaceLists<PlaceSpot>;
  readonly spared: PlaceLists<PlaceSpot>;
}

/** The places of a recipe on the design, of the remedies named. `matrixOf` goes from a part's own mm to the design's, which may be bent by `map` after that; places on parts that are gone mean nothing. */
export function spotsOf(
  { only, spared }: Pick<Repair, 'only' | 'spared'>,
  kinds: readonly PlaceRemedy[],
  matrixOf: (part: string) => Matrix | undefined,
  map: TaperMap | null = null,
): PlaceSpots {
  const spots = (lists: PlaceLists<ArtworkPlace>): PlaceLists<PlaceSpot> =>
    Object.fromEntries(
      kinds.flatMap((kind) =>
        lists[kind] ? [[kind, lists[kind].flatMap((place) => spotOf(place, matrixOf(place.part), map))]] : [],
      ),
    );
  return { only: spots(only), spared: spots(spared) };
}

function spotOf({ xMm, yMm, acrossMm }: ArtworkPlace, matrix: Matrix | undefined, map: TaperMap | null): PlaceSpot[] {
  if (!matrix) return [];
  const [u, v] = transformRing(Float64Array.of(xMm, yMm), matrix);
  const [x, y] = map ? warpPoint(map, u!, v!) : [u!, v!];
  return [{ xMm: x, yMm: y, acrossMm: acrossMm * stretchOf(matrix) }];
}

/** The rules that chosen places make. */
export function placeRules({ only, spared }: PlaceSpots): PlaceRules {
  if (Object.keys(only).length + Object.keys(spared).length === 0) return EVERYWHERE;
  const isIn = (list: readonly PlaceSpot[] | undefined, box: Box) => list?.some((spot) => isAt(box, spot)) ?? false;
  const chose = (kind: PlaceRemedy, box: Box) => isIn(only[kind], box);
  const spares = (kind: PlaceRemedy, box: Box) => isIn(spared[kind], box);
  return { chose, spares, reaches: (kind, box) => (!only[kind] || chose(kind, box)) && !spares(kind, box) };
}

function isAt(box: Box, spot: PlaceSpot): boolean {
  const across = Math.hypot(box.maxX - box.minX, box.maxY - box.minY);
  const near = Math.min(NEAR_MM, spot.acrossMm / 2);
  const isNear = (low: number, high: number, at: number) =>
    Math.abs((low + high) / 2 - at) <= Math.max(near, NEAR_SHARE * (high - low));
  return (
    isNear(box.minX, box.maxX, spot.xMm) &&
    isNear(box.minY, box.maxY, spot.yMm) &&
    across <= ALIKE * spot.acrossMm + near &&
    spot.acrossMm <= ALIKE * across + near
  );
}

/** What was found with its places as a recipe keeps them, without those that are let be. A place belongs to the uppermost part that has something there. */
export function withRecipePlaces<F extends Finding>(
  findings: readonly F[],
  rules: PlaceRules,
  regions: readonly PaintedRegion[],
  matrices: ReadonlyMap<string, Matrix>,
): F[] {
  const [only] = matrices.size === 1 ? [...matrices.keys()] : [];
  const boxes =
    only === undefined ? regions.map(({ part, rings }) => ({ part: part!, box: boundsOf(rings)! })).reverse() : [];
  const partAt = (box: Box) => only ?? boxes.find((area) => boxesTouch(area.box, box))?.part;
  return findings.flatMap((finding) => {
    const left = besidesSpared(finding, rules);
    if (!left) return [];
    if (!left.places || !left.remedies?.some((remedy) => remedy.acts)) return [left];
    const at = left.places.map((box) => {
      const part = partAt(box);
      return part === undefined ? null : placeOf(box, part, matrices.get(part)!);
    });
    return [{ ...left, at }];
  });
}

/** The place of a box on the design as a recipe keeps it; null on a part that is flattened to nothing. */
export function placeOf(box: Box, part: string, matrix: Matrix): ArtworkPlace | null {
  const back = inverse(matrix);
  if (!back) return null;
  const [x, y] = transformRing(Float64Array.of((box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2), back);
  const round = (mm: number) => Math.round(mm * 1e4) / 1e4;
  return {
    part,
    xMm: round(x!),
    yMm: round(y!),
    acrossMm: round(Math.hypot(box.maxX - box.minX, box.maxY - box.minY) / stretchOf(matrix)),
  };
}

/** A remedy taken everywhere, whatever single places were chosen for it before. */
export function takenEverywhere({ only }: Repair, { acts, patch }: Remedy<ArtworkPatch>): ArtworkPatch {
  return acts && only[acts] ? { ...patch, repair: { ...patch.repair, only: without(only, acts) } } : patch;
}

/** A remedy taken at one place more; where it acts everywhere already, it goes on doing so. */
export function takenAt(
  repair: Repair,
  { acts, patch }: Remedy<ArtworkPatch> & { readonly acts: PlaceRemedy },
  place: ArtworkPlace,
): ArtworkPatch {
  // White shapes are of colours that are film elsewhere: the colour itself is left alone.
  if (acts === 'bare') return { repair: { only: withPlace(repair.only, acts, place) } };
  const isOn = repair[FIELDS[acts]] !== NO_REPAIR[FIELDS[acts]];
  return isOn && !repair.only[acts]
    ? patch
    : { ...patch, repair: { ...patch.repair, only: withPlace(repair.only, acts, place) } };
}

/** A place let be: no remedy of this kind acts there, and it is not found any more. A reason can be added afterwards. */
export function spared(repair: Repair, acts: PlaceRemedy, place: ArtworkPlace): ArtworkPatch {
  return { repair: { spared: withPlace(repair.spared, acts, { ...place, reason: '' }) } };
}

/** The reason for all places of a kind that were let be and have none yet. */
export function sparedFor(repair: Repair, acts: PlaceRemedy, reason: string): ArtworkPatch {
  const places = (repair.spared[acts] ?? []).map((place) => (place.reason === '' ? { ...place, reason } : place));
  return { repair: { spared: { ...repair.spared, [acts]: places } } };
}

/** The repair with a remedy taken back, everywhere and at single places. */
export function takenBack(repair: Repair, acts: PlaceRemedy): ArtworkPatch {
  return {
    repair: {
      ...(acts === 'bare' ? {} : { [FIELDS[acts]]: NO_REPAIR[FIELDS[acts]] }),
      only: without(repair.only, acts),
    },
  };
}

/** The repair with no place of a kind let be any more. */
export function sparedNoMore(repair: Repair, acts: PlaceRemedy): ArtworkPatch {
  return { repair: { spared: without(repair.spared, acts) } };
}

/** A finding without the places that are let be; null when none is left. */
export function besidesSpared<F extends Finding>(finding: F, rules: PlaceRules): F | null {
  const acts = finding.remedies?.find((remedy) => remedy.acts)?.acts;
  if (!acts || !finding.places) return finding;
  const places = finding.places.filter((box) => !rules.spares(acts, box));
  if (places.length === finding.places.length) return finding;
  return places.length === 0
    ? null
    : {
        ...finding,
        places,
        count: (finding.count ?? finding.places.length) - (finding.places.length - places.length),
        where: places[0]!,
      };
}

function withPlace<P>(lists: PlaceLists<P>, kind: PlaceRemedy, place: P): PlaceLists<P> {
  return { ...lists, [kind]: [...(lists[kind] ?? []), place] };
}

function without<P>(lists: PlaceLists<P>, kind: PlaceRemedy): PlaceLists<P> {
  return Object.fromEntries(Object.entries(lists).filter(([key]) => key !== kind));
}
