import type { JobState } from '../stations/record/index.js';
import type { Recipe } from './recipe.js';

/** A job as the list shows it. */
export interface JobSummary {
  readonly id: string;
  readonly title: string;
  readonly customer: string;
  readonly due: string | null;
  readonly state: JobState;
  readonly updatedAt: string;
  /** Names what its design looks like, for a small picture; null while it has no parts. */
  readonly design: string | null;
  /** Its first part's words, when that is lettering. */
  readonly words: string | null;
}

/** A job with its current recipe; `revision` guards against two editors. */
export interface Job extends JobSummary {
  readonly recipe: Recipe;
  readonly revision: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
  readonly deleted: boolean;
}

/** A job that was just deleted, and the number of the batch that is laid out without it from now on; null for a job alone. */
export interface DeletedJob extends Job {
  readonly batchNumber: number | null;
}
