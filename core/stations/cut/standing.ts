import { ENDED } from './run.js';
import type { CutSoFar } from '../sheets/index.js';
import type { FrozenGroup, FrozenSheet } from './frozen-sheet.js';

/**
 * in-cutter: under the knife, or its rest is; good: cut, and not to be remade; undecided: it failed or was cancelled, and the maker has yet to
 * say what becomes of it; rest-undecided: the same of its rest; to-remake, thrown-away: what it carries is to be cut again; untouched: nothing
 * of it was cut.
 */
export type SheetStanding =
  'in-cutter' | 'good' | 'undecided' | 'rest-undecided' | 'to-remake' | 'thrown-away' | 'untouched';

type Sheet = Pick<FrozenSheet, 'id' | 'restOf' | 'decided'> & {
  readonly runs: readonly Pick<FrozenSheet['runs'][number], 'state' | 'outcome' | 'pairsDone'>[];
};

/** How each sheet stands, by id. `sheets` must hold all rests of all of them, the oldest first. */
export function standings(sheets: readonly Sheet[]): ReadonlyMap<string, SheetStanding> {
  const newestRest = new Map(sheets.flatMap((sheet) => (sheet.restOf ? [[sheet.restOf, sheet] as const] : [])));
  const known = new Map<string, SheetStanding>();
  const standingOf = (sheet: Sheet): SheetStanding => {
    const before = known.get(sheet.id);
    if (before) return before;
    const rest = newestRest.get(sheet.id);
    const standing = ownStanding(sheet, rest ? standingOf(rest) : null);
    known.set(sheet.id, standing);
    return standing;
  };
  for (const sheet of sheets) standingOf(sheet);
  return known;
}

function ownStanding(sheet: Sheet, rest: SheetStanding | null): SheetStanding {
  if (sheet.decided === 'thrown-away') return 'thrown-away';
  const run = sheet.runs.at(-1);
  if (!run) return 'untouched';
  if (!ENDED.includes(run.state)) return 'in-cutter';
  if (run.outcome === 'remake') return 'to-remake';
  if (run.state === 'finished' || sheet.decided === 'kept') return 'good';
  if (rest === 'in-cutter' || rest === 'good') return rest;
  if (rest === 'undecided' || rest === 'rest-undecided') return 'rest-undecided';
  return run.state === 'cancelled' && run.pairsDone === 0 ? 'untouched' : 'undecided';
}

const TAKES: readonly SheetStanding[] = ['in-cutter', 'good', 'undecided', 'rest-undecided'];

/**
 * How many copies of each layer of a job, by fingerprint, need not be planned any more: they are cut, in the cutter, or wait for a decision.
 * With `only` those of one standing. A rest carries no copies of its own: it makes those of its sheet whole.
 */
export function takenCopies(
  sheets: readonly FrozenSheet[],
  jobId: string,
  only: readonly SheetStanding[] = TAKES,
): Record<string, number> {
  return countsOf(groupsThatStand(sheets, jobId, only));
}

/** How many copies of a job were spoiled while they were weeded and laid; null while nobody has said. `cut` is how many are cut well by now. */
export interface SpoiledOfJob {
  readonly spoiled: number | null;
  readonly cut: number;
}

/**
 * How many copies of a job are cut well in all their layers, by how many of each are `toCut`, by fingerprint (of several designs the copies of all), and whether they are of several films. None while one of the layers is not cut at all.
 */
export function copiesCut(
  sheets: readonly FrozenSheet[],
  jobId: string,
  toCut: readonly { readonly fingerprint: string; readonly copies: number }[],
): { readonly copies: number; readonly isLayered: boolean } {
  const wanted = toCut.filter(({ copies }) => copies > 0);
  const good = groupsThatStand(sheets, jobId, ['good']);
  const counts = countsOf(good);
  const share = Math.min(...wanted.map(({ fingerprint, copies }) => (counts[fingerprint] ?? 0) / copies));
  if (wanted.length === 0 || share === 0) return { copies: 0, isLayered: false };
  const ofFilm = new Map<string, number>();
  for (const { fingerprint, copies } of wanted) {
    const { filmId, perStrip } = good.find((group) => group.fingerprint === fingerprint)!;
    ofFilm.set(filmId, (ofFilm.get(filmId) ?? 0) + copies * perStrip);
  }
  return { copies: Math.floor(share * Math.min(...ofFilm.values()) + 1e-9), isLayered: ofFilm.size > 1 };
}

/** The same, and how those copies lie on their films: as the design is drawn, or turned a quarter. */
export function cutSoFar(sheets: readonly FrozenSheet[], jobId: string): CutSoFar {
  const groups = groupsThatStand(sheets, jobId, TAKES);
  return {
    taken: countsOf(groups),
    lies: Object.fromEntries(
      groups.map(
        ({ fingerprint, matrix: [a, b] }) => [fingerprint, Math.abs(a) >= Math.abs(b) ? 'as drawn' : 'across'] as const,
      ),
    ),
  };
}

function groupsThatStand(sheets: readonly FrozenSheet[], jobId: string, only: readonly SheetStanding[]): FrozenGroup[] {
  const how = standings(sheets);
  return sheets
    .filter(({ id, restOf }) => restOf === null && only.includes(how.get(id)!))
    .flatMap(({ groups }) => groups.filter((group) => group.jobId === jobId));
}

function countsOf(groups: readonly FrozenGroup[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const { fingerprint } of groups) counts[fingerprint] = (counts[fingerprint] ?? 0) + 1;
  return counts;
}
