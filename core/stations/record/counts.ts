import { standings, takenCopies, type FrozenSheet } from '../cut/index.js';

/** How far a job is with cutting. */
export interface CutCounts {
  /** Copies of layers that are cut and fit what is wanted today, of all that are wanted. */
  readonly copies: number;
  readonly ofCopies: number;
  /** Sheets that failed, and of which nobody has said yet what becomes of them. */
  readonly undecided: number;
  /** Finished runs, and those of them that were judged. */
  readonly finished: number;
  readonly judged: number;
}

/** What the record has of a job's cuts; `toCut` is what its plan wants. */
export function countCuts(cuts: readonly FrozenSheet[], jobId: string, toCut: readonly { readonly fingerprint: string; readonly copies: number }[] = []): CutCounts {
  const good = takenCopies(cuts, jobId, ['good']);
  const finished = cuts.flatMap((sheet) => sheet.runs).filter((run) => run.state === 'finished');
  return {
    copies: toCut.reduce((sum, { fingerprint, copies }) => sum + Math.min(copies, good[fingerprint] ?? 0), 0),
    ofCopies: toCut.reduce((sum, { copies }) => sum + copies, 0),
    undecided: [...standings(cuts).values()].filter((standing) => standing === 'undecided').length,
    finished: finished.length,
    judged: finished.filter((run) => run.outcome !== null).length,
  };
}
