import { planBatch, type BatchOut, type BatchWish, type NamedBatchJob, type StoppedJob } from '../../core/batch/index.js';
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

/** What a search for less film came to. */
export interface BatchSearch {
  readonly steps: BatchWish['steps'];
  readonly takenMm2: number;
  readonly beforeMm2: number;
}

interface Hooks {
  readonly breathe: () => Promise<void>;
  readonly onProgress?: (done: number) => void;
}

/** Plans batches, and knows the last one: what is looked at is asked for again when it is cut. */
export class BatchPlanner {
  #last: { readonly name: string; readonly planned: PlannedBatch } | null = null;

  constructor(private readonly planner: Planner) {}

  /** Looks for less film for so long, or until it is enough: how many steps in which films made less of it do, and how much is taken with them and without. */
  async search(task: BatchTask, { seconds, isEnough }: { readonly seconds: number; readonly isEnough: () => boolean }, hooks: Hooks): Promise<BatchSearch> {
    const { out: before, jobs } = await this.plan(task, hooks);
    const begun = performance.now();
    const budget: Parameters<typeof planBatch>[3] = { ...hooks, budget: (_, part, of) => () => !isEnough() && performance.now() < begun + (seconds * 1000 * (part + 1)) / of };
    const out = await planBatch(jobs, task.shop, task.wish, budget);
    const taken = ({ sheets }: BatchOut) => sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0);
    const spent = ({ sheets }: BatchOut) => sheets.reduce((sum, { value }) => sum + value, 0);
    // What was found before is kept where nothing better is found now.
    if (spent(out) >= spent(before) - 1e-9) return { steps: task.wish.steps, takenMm2: taken(before), beforeMm2: taken(before) };
    return { steps: out.steps.filter(({ helped }) => helped).map(({ film, steps }) => ({ filmId: film.id, steps })), takenMm2: taken(out), beforeMm2: taken(before) };
  }

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
