import type { Box } from '../geometry/index.js';
import type { ArtworkPlace, PlaceRemedy } from './places.js';
import type { RecipePatch } from './recipe.js';

/** The stations of the job card, in working order. */
export const STAGES = ['artwork', 'films', 'surface', 'build', 'prepare', 'sheets', 'cut', 'assemble', 'record'] as const;
export type Stage = (typeof STAGES)[number];

/** A change to the recipe that answers a finding. */
export interface Remedy {
  readonly label: string;
  readonly patch: RecipePatch;
  /** It cannot change the look: taken with all its like in one go. */
  readonly safe?: boolean;
  /** What it does at a single place, where it can act at one alone. */
  readonly acts?: PlaceRemedy;
}

/** Something the app noticed. `where` is in mm on the design, y down; a blocker stops the job at its station. */
export interface Finding {
  readonly code: string;
  readonly severity: 'blocker' | 'warning' | 'note';
  readonly stage: Stage;
  readonly message: string;
  readonly count?: number;
  readonly where?: Box;
  /** All places, when there are several. */
  readonly places?: readonly Box[];
  /** The places as a recipe keeps them, for those that a remedy can act at alone; null where the design has no part. */
  readonly at?: readonly (ArtworkPlace | null)[];
  readonly remedies?: readonly Remedy[];
}

/** Joins findings of one code and message into one that counts them; keeps first-seen order and the first place. */
export function countFindings(findings: readonly Finding[]): Finding[] {
  const seen = new Map<string, Finding>();
  for (const finding of findings) {
    const key = `${finding.code}\n${finding.message}`;
    const before = seen.get(key);
    seen.set(key, before ? { ...before, count: (before.count ?? 1) + (finding.count ?? 1) } : finding);
  }
  return [...seen.values()];
}

/** At most so many places are told of one finding. */
export const MOST_PLACES = 300;

/** A finding's places, of which there must be one at least, in the order in which one looks over a sheet: from the top down. */
export function atPlaces(places: readonly Box[]): Pick<Finding, 'count' | 'where' | 'places'> {
  const ordered = [...places].sort((a, b) => a.minY - b.minY || a.minX - b.minX).slice(0, MOST_PLACES);
  return { count: places.length, where: ordered[0]!, places: ordered };
}
