import { inverse, stretchOf, transformRing, type Box, type Matrix } from '../geometry/index.js';
import type { Finding, Remedy } from './finding.js';
import { NO_REPAIR, type Recipe, type RecipePatch } from './recipe.js';

/*
 * A remedy acts everywhere, or only at the places a maker chose; and a place may be let be while the remedy acts everywhere else.
 * Places are kept in a part's own mm, so that they stay with what they mean when the part is moved, turned or made larger.
 */

/** Remedies that can act at single places. */
export const PLACE_REMEDIES = ['tidy', 'specks', 'thicken', 'gaps', 'simplify', 'hairlines', 'crossings', 'bare'] as const;
export type PlaceRemedy = (typeof PLACE_REMEDIES)[number];

/** A place on a part of the design: the middle of what lies there and how long it is across its corners, in the part's own mm. */
export interface ArtworkPlace {
  readonly part: string;
  readonly xMm: number;
  readonly yMm: number;
  readonly acrossMm: number;
}

/** A place that is let be, and why. */
export interface SparedPlace extends ArtworkPlace {
  readonly reason: string;
}

/** What the maker decided about single places. `box` is mm on the design at its final size. */
export interface PlaceRules {
  /** Whether a remedy that is taken acts on what lies in a box. */
  reaches(kind: PlaceRemedy, box: Box): boolean;
  /** Whether the maker chose just this place for a remedy. */
  chose(kind: PlaceRemedy, box: Box): boolean;
  /** Whether the maker lets be what was found there. */
  spares(kind: PlaceRemedy, box: Box): boolean;
}

/** Nothing decided about single places. */
export const EVERYWHERE: PlaceRules = { reaches: () => true, chose: () => false, spares: () => false };

/** Which field of a recipe's repair a remedy sets; white at single places sets none. */
const FIELDS = {
  tidy: 'tidy',
  specks: 'speckMm2',
  thicken: 'thickenMm',
  gaps: 'closeGapsMm',
  simplify: 'simplifyMm',
  hairlines: 'hairlines',
  crossings: 'fillCrossings',
} as const satisfies Record<Exclude<PlaceRemedy, 'bare'>, keyof Recipe['repair']>;

/** The middle of what lies at a place may move by this much, mm, or by a quarter of its length: outlines differ a little from one size to the next. */
const NEAR_MM = 0.1;
const NEAR_SHARE = 0.25;
/** Its length may change by this factor either way; so a ring and the dot in its middle are told apart. */
const ALIKE = 1.4;

interface Spot {
  readonly x: number;
  readonly y: number;
  readonly across: number;
}

function isAt(box: Box, spot: Spot): boolean {
  const across = Math.hypot(box.maxX - box.minX, box.maxY - box.minY);
  const apart = Math.hypot((box.minX + box.maxX) / 2 - spot.x, (box.minY + box.maxY) / 2 - spot.y);
  return apart <= Math.max(NEAR_MM, NEAR_SHARE * across) && across <= ALIKE * spot.across + NEAR_MM && spot.across <= ALIKE * across + NEAR_MM;
}

/** The rules that a recipe's decisions make. `matrixOf` goes from a part's own mm to the design's; places on parts that are gone mean nothing. */
export function placeRules({ only, spared }: Pick<Recipe['repair'], 'only' | 'spared'>, matrixOf: (part: string) => Matrix | undefined): PlaceRules {
  if (Object.keys(only).length + Object.keys(spared).length === 0) return EVERYWHERE;
  const spots = (lists: Readonly<Partial<Record<PlaceRemedy, readonly ArtworkPlace[]>>>) =>
    new Map(Object.entries(lists).map(([kind, places]) => [kind as PlaceRemedy, places.flatMap(({ part, xMm, yMm, acrossMm }): Spot[] => {
      const matrix = matrixOf(part);
      if (!matrix) return [];
      const [x, y] = transformRing(Float64Array.of(xMm, yMm), matrix);
      return [{ x: x!, y: y!, across: acrossMm * stretchOf(matrix) }];
    })]));
  const [chosen, letBe] = [spots(only), spots(spared)];
  const isIn = (list: readonly Spot[] | undefined, box: Box) => list?.some((spot) => isAt(box, spot)) ?? false;
  const chose = (kind: PlaceRemedy, box: Box) => isIn(chosen.get(kind), box);
  const spares = (kind: PlaceRemedy, box: Box) => isIn(letBe.get(kind), box);
  return { chose, spares, reaches: (kind, box) => (!chosen.has(kind) || chose(kind, box)) && !spares(kind, box) };
}

/** The place of a box on the design as a recipe keeps it; null on a part that is flattened to nothing. */
export function placeOf(box: Box, part: string, matrix: Matrix): ArtworkPlace | null {
  const back = inverse(matrix);
  if (!back) return null;
  const [x, y] = transformRing(Float64Array.of((box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2), back);
  const round = (mm: number) => Math.round(mm * 1e4) / 1e4;
  return { part, xMm: round(x!), yMm: round(y!), acrossMm: round(Math.hypot(box.maxX - box.minX, box.maxY - box.minY) / stretchOf(matrix)) };
}

/** A remedy taken everywhere, whatever single places were chosen for it before. */
export function takenEverywhere({ only }: Recipe['repair'], { acts, patch }: Remedy): RecipePatch {
  return acts && only[acts] ? { ...patch, repair: { ...patch.repair, only: without(only, acts) } } : patch;
}

/** A remedy taken at one place more; where it acts everywhere already, it goes on doing so. */
export function takenAt(repair: Recipe['repair'], { acts, patch }: Remedy & { readonly acts: PlaceRemedy }, place: ArtworkPlace): RecipePatch {
  // White shapes are of colours that are film elsewhere: the colour itself is left alone.
  if (acts === 'bare') return { repair: { only: withPlace(repair.only, acts, place) } };
  const isOn = repair[FIELDS[acts]] !== NO_REPAIR[FIELDS[acts]];
  return isOn && !repair.only[acts] ? patch : { ...patch, repair: { ...patch.repair, only: withPlace(repair.only, acts, place) } };
}

/** A place let be: no remedy of this kind acts there, and it is not found any more. */
export function spared(repair: Recipe['repair'], acts: PlaceRemedy, place: ArtworkPlace, reason: string): RecipePatch {
  return { repair: { spared: withPlace(repair.spared, acts, { ...place, reason }) } };
}

/** The repair with a remedy taken back, everywhere and at single places. */
export function takenBack(repair: Recipe['repair'], acts: PlaceRemedy): RecipePatch {
  return { repair: { ...(acts === 'bare' ? {} : { [FIELDS[acts]]: NO_REPAIR[FIELDS[acts]] }), only: without(repair.only, acts) } };
}

/** The repair with no place of a kind let be any more. */
export function sparedNoMore(repair: Recipe['repair'], acts: PlaceRemedy): RecipePatch {
  return { repair: { spared: without(repair.spared, acts) } };
}

/** A finding without the places that are let be; null when none is left. */
export function besidesSpared(finding: Finding, rules: PlaceRules): Finding | null {
  const acts = finding.remedies?.find((remedy) => remedy.acts)?.acts;
  if (!acts || !finding.places) return finding;
  const places = finding.places.filter((box) => !rules.spares(acts, box));
  if (places.length === finding.places.length) return finding;
  return places.length === 0 ? null : { ...finding, places, count: (finding.count ?? finding.places.length) - (finding.places.length - places.length), where: places[0]! };
}

type PlaceLists<P> = Readonly<Partial<Record<PlaceRemedy, readonly P[]>>>;

function withPlace<P>(lists: PlaceLists<P>, kind: PlaceRemedy, place: P): PlaceLists<P> {
  return { ...lists, [kind]: [...(lists[kind] ?? []), place] };
}

function without<P>(lists: PlaceLists<P>, kind: PlaceRemedy): PlaceLists<P> {
  return Object.fromEntries(Object.entries(lists).filter(([key]) => key !== kind));
}
