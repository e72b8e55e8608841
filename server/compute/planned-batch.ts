import { planBatch, type BatchOut, type NamedBatchJob, type StoppedJob } from '../../core/batch/index.js';
import type { Planner } from '../../core/plan/index.js';
import type { BatchTask } from './tasks.js';

/** A batch with the jobs of it that can be cut, and why the others cannot. */
export interface PlannedBatch {
  readonly out: BatchOut;
  readonly jobs: readonly NamedBatchJob[];
  readonly stopped: readonly StoppedJob[];
}

/** Of the way to a planned batch, preparing its jobs is this share. */
const PREPARING = 0.7;

interface Hooks {
  readonly breathe: () => Promise<void>;
  readonly onProgress?: (done: number) => void;
}

/** Plans batches, and knows the last one: what is looked at is asked for again when it is cut. */
export class BatchPlanner {
  #last: { readonly name: string; readonly planned: PlannedBatch } | null = null;

  constructor(private readonly planner: Planner) {}

  async plan({ name, jobs, shop, wish }: BatchTask, { breathe, onProgress }: Hooks): Promise<PlannedBatch> {
    if (this.#last?.name === name) return this.#last.planned;
    const [ready, stopped]: [NamedBatchJob[], StoppedJob[]] = [[], []];
    for (const [i, { jobId, job }] of jobs.entries()) {
      const { recipe, taken } = job;
      const { prepare, findings } = await this.planner.prepared({ ...job, shop }, { breathe });
      const blocked = findings.find(({ severity }) => severity === 'blocker');
      if (blocked || !prepare) stopped.push({ jobId, why: blocked?.message ?? 'Nothing of it can be cut.' });
      else ready.push({ id: jobId, title: recipe.title, prepare, isInside: recipe.surface.kind === 'glass', copies: recipe.sheets.copies, taken, due: recipe.due });
      onProgress?.((PREPARING * (i + 1)) / jobs.length);
    }
    const planned = { out: await planBatch(ready, shop, wish, { breathe }), jobs: ready, stopped };
    this.#last = { name, planned };
    return planned;
  }
}
