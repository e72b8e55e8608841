import { ENDED } from './run.js';
import type { CutSoFar } from '../../laying/index.js';
import type { FrozenGroup, FrozenSheet } from './frozen-sheet.js';

/**
 * in-cutter: under the knife, or its rest is; good: cut whole, or kept as it is; undecided: it failed or was cancelled, and the maker has yet to
 * say what becomes of it; rest-undecided: the same of its rest; spoiled: every copy on it is; thrown-away: what it carries is to be cut again;
 * untouched: nothing of it was cut.
 */
export type SheetStanding =
  'in-cutter' | 'good' | 'undecided' | 'rest-undecided' | 'spoiled' | 'thrown-away' | 'untouched';

type Sheet = Pick<FrozenSheet, 'id' | 'restOf' | 'decided'> & {
  readonly runs: readonly Pick<FrozenSheet['runs'][number], 'state' | 'pairsDone'>[];
  readonly groups: readonly Pick<FrozenGroup, 'verdict'>[];
};

/**
 * How each sheet stands, by id. `sheets` must hold all rests of all of them. It follows from all runs of a sheet and from all its rests, never from
 * the last alone: a second try that was cancelled before the knife came down leaves what the first one cut.
 */
export function standings(sheets: readonly Sheet[]): ReadonlyMap<string, SheetStanding> {
  const restsOf = new Map<string, Sheet[]>();
  for (const sheet of sheets)
    if (sheet.restOf) restsOf.set(sheet.restOf, [...(restsOf.get(sheet.restOf) ?? []), sheet]);
  const known = new Map<string, SheetStanding>();
  /** Whatever its copies were judged to be. */
  const onFilm = (sheet: Sheet): SheetStanding => {
    const before = known.get(sheet.id);
    if (before) return before;
    const rests = (restsOf.get(sheet.id) ?? []).map((rest): SheetStanding => {
      const standing = onFilm(rest);
      // What failed of copies that are spoiled anyway asks no question any more.
      return standing !== 'good' && standing !== 'in-cutter' && isSpoiled(rest) ? 'untouched' : standing;
    });
    const standing = ownStanding(sheet, rests);
    known.set(sheet.id, standing);
    return standing;
  };
  return new Map(
    sheets.map((sheet) => {
      const standing = onFilm(sheet);
      return [sheet.id, ASKS_FOR_COPIES.includes(standing) && isSpoiled(sheet) ? 'spoiled' : standing];
    }),
  );
}

const ASKS_FOR_COPIES: readonly SheetStanding[] = ['good', 'undecided', 'rest-undecided'];

function isSpoiled({ groups }: Sheet): boolean {
  return groups.length > 0 && groups.every(({ verdict }) => verdict === 'spoiled');
}

function ownStanding({ decided, runs }: Sheet, rests: readonly SheetStanding[]): SheetStanding {
  if (decided === 'thrown-away') return 'thrown-away';
  if (runs.some(({ state }) => !ENDED.includes(state)) || rests.includes('in-cutter')) return 'in-cutter';
  if (runs.some(({ state }) => state === 'finished') || decided === 'kept' || rests.includes('good')) return 'good';
  if (rests.includes('undecided') || rests.includes('rest-undecided')) return 'rest-undecided';
  return runs.every(({ state, pairsDone }) => state === 'cancelled' && pairsDone === 0) ? 'untouched' : 'undecided';
}

const TAKES: readonly SheetStanding[] = ['in-cutter', 'good', 'undecided', 'rest-undecided'];

/**
 * How many copies of each layer of a job, by fingerprint, need not be planned any more: they are cut, in the cutter, or wait for a decision.
 * With `only` those of one standing. A rest carries no copies of its own: it makes those of its sheet whole. A spoiled copy is none.
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

/** The sheets, of all of a job's, that carry a copy of it that need not be planned any more, in their order; rests among them count with their sheet. */
export function sheetsThatCount(sheets: readonly FrozenSheet[], jobId: string): readonly string[] {
  const how = standings(sheets);
  return sheets
    .filter(({ id, restOf, groups }) => {
      const counts = groups.some((group) => group.jobId === jobId && group.verdict !== 'spoiled');
      return restOf === null && counts && TAKES.includes(how.get(id)!);
    })
    .map(({ id }) => id);
}

function groupsThatStand(sheets: readonly FrozenSheet[], jobId: string, only: readonly SheetStanding[]): FrozenGroup[] {
  const how = standings(sheets);
  return sheets
    .filter(({ id, restOf }) => restOf === null && only.includes(how.get(id)!))
    .flatMap(({ groups }) => groups.filter((group) => group.jobId === jobId && group.verdict !== 'spoiled'));
}

function countsOf(groups: readonly FrozenGroup[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const { fingerprint } of groups) counts[fingerprint] = (counts[fingerprint] ?? 0) + 1;
  return counts;
}
