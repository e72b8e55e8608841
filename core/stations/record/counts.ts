import { standings, takenCopies, type FrozenSheet } from '../cut/index.js';

/** What the record has of a job's cuts, whatever its plan wants today. */
export interface RecordedCuts {
  /** Good copies of layers, by fingerprint. */
  readonly good: Readonly<Record<string, number>>;
  /** Sheets that failed, and of which nobody has said yet what becomes of them. */
  readonly undecided: number;
  /** Finished runs, and those of them that were judged. */
  readonly finished: number;
  readonly judged: number;
}

export const NOTHING_CUT: RecordedCuts = { good: {}, undecided: 0, finished: 0, judged: 0 };

/** What the sheets of a job come to. */
export function recordedCuts(sheets: readonly FrozenSheet[], jobId: string): RecordedCuts {
  const finished = sheets.flatMap((sheet) => sheet.runs).filter((run) => run.state === 'finished');
  return {
    good: takenCopies(sheets, jobId, ['good']),
    undecided: [...standings(sheets).values()].filter((standing) => standing === 'undecided').length,
    finished: finished.length,
    judged: finished.filter((run) => run.outcome !== null).length,
  };
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
    copies: [...wanted].reduce((sum, [fingerprint, copies]) => sum + Math.min(copies, recorded.good[fingerprint] ?? 0), 0),
    ofCopies: toCut.reduce((sum, { copies }) => sum + copies, 0),
  };
}
