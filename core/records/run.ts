/** waiting: the cutter does not answer; stuck: it answers but cannot go on; interrupted: this server was stopped meanwhile. */
export type RunState = 'cutting' | 'paused' | 'waiting' | 'stuck' | 'interrupted' | 'finished' | 'cancelled' | 'failed';

export const ENDED: readonly RunState[] = ['finished', 'cancelled', 'failed'];

/** One pass of one sheet through the cutter, and what came of it. */
export interface Run {
  readonly id: string;
  readonly jobId: string;
  readonly sheet: number;
  readonly filmId: string;
  readonly state: RunState;
  readonly message: string;
  readonly pairsTotal: number;
  readonly pairsDone: number;
  readonly estimateSeconds: number;
  readonly actualSeconds: number | null;
  readonly cutMm: number;
  readonly filmMm2: number;
  readonly filmCost: number;
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
  readonly xMm: number;
  readonly yMm: number;
  readonly knifeDown: boolean;
  readonly secondsLeft: number;
}
