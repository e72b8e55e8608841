import {
  betterView,
  prepareJobs,
  PREPARING_SHARE,
  type BetterView,
  type PreparedJob,
  type StoppedJob,
} from '../../core/batch/index.js';
import { layJobs, type LaidSheets, type LayJobsHooks, type LayWish } from '../../core/laying/index.js';
import type { Planner } from '../../core/plan/index.js';
import type { BatchTask } from './tasks.js';

/** A batch with the jobs of it that can be cut, and why the others cannot. */
export interface PlannedBatch {
  readonly out: LaidSheets;
  readonly jobs: readonly PreparedJob[];
  readonly stopped: readonly StoppedJob[];
}

/** What a search for less film came to. */
export interface BatchSearch {
  /** Of the films in which it spends less; null where nothing better was found, and what was found before stays. */
  readonly steps: LayWish['steps'] | null;
  readonly takenMm2: number;
  readonly beforeMm2: number;
}

interface Hooks {
  readonly breathe: () => Promise<void>;
  readonly onProgress?: (done: number) => void;
}

/** What is found on the way is told this often at most, ms: drawing it takes time, and nobody sees more. */
const TELL_MS = 400;

/** Plans batches, and knows the last one: what is looked at is asked for again when it is cut. */
export class BatchPlanner {
  #last: { readonly name: string; readonly planned: PlannedBatch } | null = null;

  constructor(private readonly planner: Planner) {}

  /** Looks for less film for so long, or until it is enough: how many steps in which films made less of it do, and how much is taken with them and without. */
  async search(
    task: BatchTask,
    {
      seconds,
      isEnough,
      heldMs,
      onBetter,
    }: {
      readonly seconds: number;
      readonly isEnough: () => boolean;
      /** How long others have had their turn meanwhile: that is not counted. */
      readonly heldMs: () => number;
      readonly onBetter: (found: BetterView) => void;
    },
    hooks: Hooks,
  ): Promise<BatchSearch> {
    const { out: before, jobs } = await this.plan(task, hooks);
    const worked = () => performance.now() - heldMs();
    const begun = worked();
    let told = -Infinity;
    const budget: LayJobsHooks = {
      ...hooks,
      onBetter(film, found) {
        if (performance.now() < told + TELL_MS) return;
        told = performance.now();
        onBetter(betterView(film.id, found(), { jobs, cutter: task.shop.cutter }));
      },
      budget: (_, part, of) => () => !isEnough() && worked() < begun + (seconds * 1000 * (part + 1)) / of,
    };
    const out = await layJobs(jobs, task.shop, task.wish, budget);
    const taken = ({ sheets }: LaidSheets) => sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0);
    const spent = ({ sheets }: LaidSheets) => sheets.reduce((sum, { value }) => sum + value, 0);
    const isLess = spent(out) < spent(before) - 1e-9 && taken(out) < taken(before);
    return {
      steps: isLess
        ? out.steps.filter(({ helped }) => helped).map(({ film, steps }) => ({ filmId: film.id, steps }))
        : null,
      takenMm2: taken(isLess ? out : before),
      beforeMm2: taken(before),
    };
  }

  async plan({ name, jobs, shop, wish }: BatchTask, { breathe, onProgress }: Hooks): Promise<PlannedBatch> {
    if (this.#last?.name === name) return this.#last.planned;
    const { ready, stopped } = await prepareJobs(
      this.planner,
      jobs.map(({ jobId, job }) => ({ ...job, id: jobId, shop })),
      { breathe, onProgress: (done) => onProgress?.(PREPARING_SHARE * done) },
    );
    const planned = { out: await layJobs(ready, shop, wish, { breathe }), jobs: ready, stopped };
    this.#last = { name, planned };
    return planned;
  }
}
