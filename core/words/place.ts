import type { Box } from '../geometry/index.js';

/** Remedies that can act at single places. */
export const PLACE_REMEDIES = [
  'tidy',
  'specks',
  'thicken',
  'gaps',
  'simplify',
  'hairlines',
  'crossings',
  'bare',
] as const;
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

/** Lists of places by what a remedy does there. */
export type PlaceLists<P> = Readonly<Partial<Record<PlaceRemedy, readonly P[]>>>;

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
