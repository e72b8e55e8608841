import type { Box } from '../geometry/index.js';
import type { ArtworkPlace, PlaceRemedy } from './place.js';
import type { StationName } from './station.js';

/** A change to the recipe that answers a finding. `Patch` is what of a recipe it may change. */
export interface Remedy<Patch = unknown> {
  readonly label: string;
  readonly patch: Patch;
  /** It cannot change the look: taken with all its like in one go. */
  readonly safe?: boolean;
  /** What it does at a single place, where it can act at one alone. */
  readonly acts?: PlaceRemedy;
}

/** Something the app noticed. `where` is in mm on the design, y down; a blocker stops the job at its station. */
export interface Finding<Patch = unknown> {
  readonly code: string;
  readonly severity: 'blocker' | 'warning' | 'note';
  readonly stage: StationName;
  readonly message: string;
  readonly count?: number;
  readonly where?: Box;
  /** All places, when there are several. */
  readonly places?: readonly Box[];
  /** The places as a recipe keeps them, for those that a remedy can act at alone; null where the design has no part. */
  readonly at?: readonly (ArtworkPlace | null)[];
  readonly remedies?: readonly Remedy<Patch>[];
}

/** At most so many places are told of one finding. */
export const MOST_PLACES = 300;

/** A finding's places, of which there must be one at least, in the order in which one looks over a sheet: from the top down. */
export function atPlaces(places: readonly Box[]): {
  readonly count: number;
  readonly where: Box;
  readonly places: readonly Box[];
} {
  const ordered = [...places].sort((a, b) => a.minY - b.minY || a.minX - b.minX).slice(0, MOST_PLACES);
  return { count: places.length, where: ordered[0]!, places: ordered };
}
