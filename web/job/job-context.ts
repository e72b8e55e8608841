import { createContext, useContext } from 'react';
import type { Job, Recipe, JobFinding, JobRuling } from '../../core/recipe/index.js';
import type { LengthUnit, StationName } from '../../core/words/index.js';
import type { FrozenSheet } from '../../core/stations/cut/index.js';
import type { Box } from '../../core/geometry/index.js';
import type { KnownShop } from '../plan/use-shop.js';
import type { PlanView } from '../../core/plan/page/plan-view.js';
import type { JobHandle } from './use-job.js';

/** What every station works with. */
export interface JobContextValue {
  readonly handle: JobHandle;
  readonly job: Job;
  /** What is shown: what is decided, with what a control is trying. */
  readonly recipe: Recipe;
  /** What is decided, with or without the server knowing it yet. */
  readonly decided: Recipe;
  readonly plan: PlanView | null;
  /** What the plan was made of: behind the recipe while a newer one is being made. */
  readonly plannedFrom: Recipe | null;
  readonly working: boolean;
  /** What takes its time, and how far along it is; and how to stop it. */
  readonly step: { readonly doing: string; readonly done: number } | null;
  readonly stop: () => void;
  readonly shop: KnownShop;
  readonly unit: LengthUnit;
  /** Every sheet of the job that was sent to the cutter, the oldest first. */
  readonly cuts: readonly FrozenSheet[];
  /** The finding being looked at, and what of the design that brings into view, mm. */
  readonly looked: Looked | null;
  readonly lookAt: Box | null;
  /** Looks at all places of a finding, or at one of them. */
  readonly look: (finding: JobFinding, index?: number) => void;
}

/** A finding being looked at: as a whole, or one of its places. */
export interface Looked {
  readonly finding: JobFinding;
  readonly index: number | null;
}

export const JobContext = createContext<JobContextValue | null>(null);

export function useJobContext(): JobContextValue {
  return useContext(JobContext)!;
}

/** What was said of one station. */
export function useSaid(stage: StationName): { findings: readonly JobFinding[]; rulings: readonly JobRuling[] } {
  const { plan } = useJobContext();
  return {
    findings: plan?.findings.filter((finding) => finding.stage === stage) ?? [],
    rulings: plan?.rulings.filter((ruling) => ruling.stage === stage) ?? [],
  };
}
