import type { JobToLay } from '../laying/index.js';
import { builtWithOf, type Planner, type PlanInput } from '../plan/index.js';
import type { BuiltWith } from '../stations/films/index.js';
import type { PrepareOut } from '../stations/prepare/index.js';
import { stopsBatch } from './before-laying.js';

/** A job that is to be laid out, by what it is planned from. */
export interface JobToPrepare extends PlanInput {
  readonly id: string;
}

/** A job whose layers are prepared, with what of the shop they were built with. */
export interface PreparedJob extends JobToLay {
  readonly prepare: PrepareOut;
  readonly title: string;
  readonly builtWithNow: BuiltWith;
  /** How high its layers are as files, mm: what turns their y over. */
  readonly frameHeightMm: number;
}

/** A job that cannot be cut, and why. */
export interface StoppedJob {
  readonly jobId: string;
  readonly why: string;
}

interface PrepareJobsHooks {
  readonly breathe?: () => Promise<void>;
  /** Called after every job with how far along it is, 0 to 1. */
  readonly onProgress?: (done: number) => void;
}

/** Prepares the layers of several jobs, one after the other, and drops the jobs that something stops. */
export async function prepareJobs(
  planner: Planner,
  jobs: readonly JobToPrepare[],
  { breathe, onProgress }: PrepareJobsHooks = {},
): Promise<{ readonly ready: readonly PreparedJob[]; readonly stopped: readonly StoppedJob[] }> {
  const [ready, stopped]: [PreparedJob[], StoppedJob[]] = [[], []];
  for (const [i, { id, ...input }] of jobs.entries()) {
    const { recipe } = input;
    const plan = await planner.prepared(input, breathe ? { breathe } : {});
    const { prepare, surface, findings } = plan;
    const blocked = findings.find(stopsBatch);
    if (blocked || !prepare || !surface)
      stopped.push({ jobId: id, why: blocked?.message ?? 'Nothing of it can be cut.' });
    else
      ready.push({
        id,
        title: recipe.title,
        prepare,
        isInside: recipe.surface.kind === 'glass',
        copies: recipe.sheets.copies,
        taken: input.taken ?? {},
        lies: input.lies ?? {},
        due: recipe.due,
        builtWithNow: builtWithOf(plan, input),
        frameHeightMm: surface.frame.heightMm,
      });
    onProgress?.((i + 1) / jobs.length);
  }
  return { ready, stopped };
}
