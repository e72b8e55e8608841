/**
 * waiting: the cutter does not answer; stuck: it answers but cannot go on; interrupted: this server was stopped meanwhile; cancelling: the
 * cutter has yet to be told to drop what it holds.
 */
export type RunState =
  'cutting' | 'paused' | 'waiting' | 'stuck' | 'interrupted' | 'cancelling' | 'finished' | 'cancelled' | 'failed';

export const ENDED: readonly RunState[] = ['finished', 'cancelled', 'failed'];

/** What lies whole on a piece when its run ended: parts (an outline with its counters), and copies of layers of which all parts are. Marks and borders do not count. */
export interface WholeOnPiece {
  readonly parts: number;
  readonly ofParts: number;
  readonly copies: number;
  readonly ofCopies: number;
  /** Of each copy, by its position on the sheet, how many parts it has and which of them are not whole; null when all are whole. */
  readonly byCopy: readonly { readonly parts: number; readonly open: readonly number[] }[] | null;
}

/** One pass of a frozen sheet through the cutter, and what came of it. */
export interface Run {
  readonly id: string;
  readonly sheetId: string;
  readonly state: RunState;
  readonly message: string;
  readonly pairsTotal: number;
  readonly pairsDone: number;
  /** How much of the way the knife has to go is gone, 0 to 1. */
  readonly share: number;
  readonly estimateSeconds: number;
  readonly actualSeconds: number | null;
  /** Known once it has ended; null for runs from before sheets were kept. */
  readonly whole: WholeOnPiece | null;
  readonly note: string;
  readonly startedAt: string;
  readonly finishedAt: string | null;
}

/** A run with the film that the stock book took for it, mm², and what that cost; null when nothing was booked, since the shop does not have the piece, or the book had none of it left. */
export interface BookedRun extends Run {
  readonly bookedMm2: number | null;
  readonly bookedCost: number | null;
}

/** Whether a run took film: all did but one that was cancelled before the knife came down. Of one that failed nobody knows that. */
export function tookFilm({ state, pairsDone }: Pick<Run, 'state' | 'pairsDone'>): boolean {
  return state !== 'cancelled' || pairsDone > 0;
}

/** The run of a sheet that got farthest, of those that have ended: all runs cut the same in the same order, so what is whole by another is whole by this one. Null while none has ended. */
export function farthestRun<R extends Pick<Run, 'state' | 'pairsDone'>>(runs: readonly R[]): R | null {
  const ended = runs.filter(({ state }) => ENDED.includes(state));
  return (
    ended.find(({ state }) => state === 'finished') ??
    ended.reduce<R | null>((best, run) => (best && best.pairsDone >= run.pairsDone ? best : run), null)
  );
}

/** What a page is shown while a sheet is cut. */
export interface RunProgress {
  readonly runId: string;
  readonly state: RunState;
  readonly message: string;
  readonly pairsDone: number;
  readonly pairsTotal: number;
  readonly share: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly knifeDown: boolean;
  readonly secondsLeft: number;
}
