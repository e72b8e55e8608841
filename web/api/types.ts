import type { Recipe } from '../../core/job/index.js';

export type JobState = 'new' | 'in work' | 'cutting' | 'cut';

export interface JobSummary {
  readonly id: string;
  readonly title: string;
  readonly customer: string;
  readonly due: string | null;
  readonly state: JobState;
  readonly updatedAt: string;
  readonly artworkId: string | null;
}

export interface Job extends JobSummary {
  readonly recipe: Recipe;
  readonly revision: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
}

export type RunState = 'cutting' | 'paused' | 'waiting' | 'stuck' | 'interrupted' | 'finished' | 'cancelled' | 'failed';

export interface Run {
  readonly id: string;
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
