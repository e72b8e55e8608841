import { createContext, useContext } from 'react';
import type { Box } from '../../core/geometry/index.js';
import type { LengthUnit, Recipe, Shop } from '../../core/job/index.js';
import type { Job } from '../api/types.js';
import type { PlanView } from '../plan/plan-view.js';
import type { JobHandle } from './use-job.js';

/** What every station works with. */
export interface JobContextValue {
  readonly handle: JobHandle;
  readonly job: Job;
  readonly recipe: Recipe;
  readonly plan: PlanView | null;
  readonly working: boolean;
  readonly shop: Shop;
  readonly unit: LengthUnit;
  readonly lookAt: Box | null;
}

export const JobContext = createContext<JobContextValue | null>(null);

export function useJobContext(): JobContextValue {
  return useContext(JobContext)!;
}
