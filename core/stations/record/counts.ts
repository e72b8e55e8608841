import {
  carriesJob,
  copiesOnFilm,
  filmOfGroup,
  openPlaces,
  standings,
  takenCopies,
  type FrozenSheet,
} from '../cut/index.js';

/** What the record has of a job's cuts, whatever its plan wants today. */
export interface RecordedCuts {
  /** Good copies of layers, by fingerprint. */
  readonly good: Readonly<Record<string, number>>;
  /** Sheets that failed, and of which nobody has said yet what becomes of them. */
  readonly undecided: number;
  /** Finished runs, and those of them of which every copy of this job was judged. */
  readonly finished: number;
  readonly judged: number;
  /** What was not ticked off yet on the weed maps of good copies, by film. */
  readonly unweeded: readonly Unweeded[];
}

export interface Unweeded {
  readonly film: string;
  /** Counters and small parts, of how many copies. */
  readonly left: number;
  readonly copies: number;
}

export const NOTHING_CUT: RecordedCuts = { good: {}, undecided: 0, finished: 0, judged: 0, unweeded: [] };

/** What the sheets of a job come to. */
export function recordedCuts(sheets: readonly FrozenSheet[], jobId: string): RecordedCuts {
  // Rests may carry other jobs alone; they say how their sheet stands.
  const own = sheets.filter((sheet) => carriesJob(sheet, jobId));
  const how = standings(sheets);
  const finished = own.filter(({ runs }) => runs.some(({ state }) => state === 'finished'));
  return {
    good: takenCopies(sheets, jobId, ['good']),
    undecided: own.filter(({ id }) => how.get(id) === 'undecided').length,
    finished: finished.length,
    judged: finished.filter(({ groups }) => groups.every((group) => group.jobId !== jobId || group.verdict !== null))
      .length,
    unweeded: unweededIn(sheets, jobId),
  };
}

function unweededIn(sheets: readonly FrozenSheet[], jobId: string): Unweeded[] {
  const how = standings(sheets);
  const byFilm = new Map<string, Unweeded>();
  for (const copy of copiesOnFilm(sheets, jobId)) {
    const { sheet, group, isWhole } = copy;
    // What is to be decided of a sheet is decided first. Where there is nothing to miss, nobody has to tick it off.
    const left = how.get(sheet.id) === 'good' ? openPlaces(copy).filter(({ kind }) => kind !== 'all out').length : 0;
    if (left === 0) continue;
    const film = filmOfGroup(sheet, group);
    const before = byFilm.get(film.id);
    byFilm.set(film.id, {
      film: film.name,
      left: left + (before?.left ?? 0),
      // One that lies on two pieces counts where it was made whole.
      copies: (isWhole ? 1 : 0) + (before?.copies ?? 0),
    });
  }
  return [...byFilm.values()];
}

/** How far a job is with cutting. */
export interface CutCounts extends RecordedCuts {
  /** Copies of layers that are cut and fit what is wanted today, of all that are wanted. */
  readonly copies: number;
  readonly ofCopies: number;
}

/** A copy of a layer that is wanted, and how often. */
interface Wanted {
  readonly fingerprint: string;
  readonly copies: number;
}

/** The record held against what a plan wants. */
export function countCuts(recorded: RecordedCuts, toCut: readonly Wanted[] = []): CutCounts {
  // Designs that are alike share what is cut of them.
  const wanted = new Map<string, number>();
  for (const { fingerprint, copies } of toCut) wanted.set(fingerprint, (wanted.get(fingerprint) ?? 0) + copies);
  return {
    ...recorded,
    copies: [...wanted].reduce(
      (sum, [fingerprint, copies]) => sum + Math.min(copies, recorded.good[fingerprint] ?? 0),
      0,
    ),
    ofCopies: toCut.reduce((sum, { copies }) => sum + copies, 0),
  };
}
