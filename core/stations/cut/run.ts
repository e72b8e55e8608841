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
  readonly outcome: 'good' | 'remake' | null;
  readonly note: string;
  readonly startedAt: string;
  readonly finishedAt: string | null;
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
