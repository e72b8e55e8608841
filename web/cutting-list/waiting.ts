import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { stopsBatch } from '../../core/batch/before-laying.js';
import type { PlanReport } from '../../core/plan/index.js';
import type { JobSummary } from '../../core/recipe/index.js';
import { ask } from '../api/client.js';

/** So many jobs are looked through for what waits; a shop of three has fewer at work. */
const MOST_JOBS = 500;

/** What of a job's film waits to be cut. */
export interface WaitingLayer {
  readonly filmId: string;
  /** Copies of layers that are left. */
  readonly copies: number;
  readonly areaMm2: number;
}

/** A job of which something may be left to be cut. */
export interface WaitingJob {
  readonly job: JobSummary;
  /** Null while it is not known. */
  readonly report: PlanReport | null;
  readonly error: string | null;
  readonly layers: readonly WaitingLayer[];
  /** What stops it; null when nothing does. */
  readonly stopped: { readonly stage: string; readonly message: string } | null;
  readonly warnings: number;
}

/** What is needed of a film over all jobs that wait. */
export interface WaitingFilm extends WaitingLayer {
  /** The jobs that need it, each once. */
  readonly jobIds: readonly string[];
}

export interface Waiting {
  /** The soonest due first; those of which nothing is left are not among them. Undefined while no list is there. */
  readonly jobs: readonly WaitingJob[] | undefined;
  /** How many of them are known. */
  readonly known: number;
  readonly error: Error | null;
}

export const reportQuery = (jobId: string) => ({
  queryKey: ['waiting', jobId],
  queryFn: ({ signal }: { readonly signal: AbortSignal }) => ask<PlanReport>(`/api/jobs/${jobId}/plan`, { signal }),
  staleTime: 10_000,
});

/** What waits to be cut in the whole shop, job by job as the server knows it. */
export function useWaiting(): Waiting {
  const list = useQuery({
    queryKey: ['jobs', 'waiting'],
    queryFn: async ({ signal }) => {
      const of = (state: string) =>
        ask<JobSummary[]>(`/api/jobs?${new URLSearchParams({ state, from: '0', most: String(MOST_JOBS) })}`, {
          signal,
        });
      return [...(await of('in work')), ...(await of('cutting'))].sort((a, b) =>
        (a.due ?? '9').localeCompare(b.due ?? '9'),
      );
    },
  });
  const jobs = list.data;
  const reports = useQueries({
    queries: (jobs ?? []).map(({ id }) => reportQuery(id)),
    combine: (all) => all.map(({ data, error }) => ({ report: data ?? null, error: error?.message ?? null })),
  });
  const waiting = useMemo(
    () => jobs?.map((job, i) => waitingOf(job, reports[i] ?? { report: null, error: null })),
    [jobs, reports],
  );
  const left = useMemo(
    () => waiting?.filter(({ report, layers, stopped }) => report === null || stopped !== null || layers.length > 0),
    [waiting],
  );
  return {
    jobs: left,
    known: waiting?.filter(({ report, error }) => report !== null || error !== null).length ?? 0,
    error: list.error,
  };
}

/** What waits of one job: copies that no cut has taken yet, by film. */
export function waitingOf(
  job: JobSummary,
  { report, error }: { readonly report: PlanReport | null; readonly error: string | null },
): WaitingJob {
  const byFilm = new Map<string, WaitingLayer>();
  for (const { film, copies, areaMm2, taken } of report?.toCut ?? []) {
    const left = copies - taken;
    if (left <= 0) continue;
    const before = byFilm.get(film) ?? { filmId: film, copies: 0, areaMm2: 0 };
    byFilm.set(film, {
      filmId: film,
      copies: before.copies + left,
      areaMm2: before.areaMm2 + left * areaMm2,
    });
  }
  const blocked = report?.findings.find(stopsBatch);
  return {
    job,
    report,
    error,
    layers: [...byFilm.values()],
    stopped: blocked ? { stage: blocked.stage, message: blocked.message } : null,
    warnings: report?.findings.filter(({ severity }) => severity === 'warning').length ?? 0,
  };
}

/** What is needed of each film, over all jobs that nothing stops. The film that most jobs need comes first, then the largest area. */
export function filmsThatWait(jobs: readonly WaitingJob[]): WaitingFilm[] {
  const films = new Map<string, WaitingFilm>();
  for (const { job, layers, stopped } of jobs) {
    if (stopped) continue;
    for (const { filmId, copies, areaMm2 } of layers) {
      const film = films.get(filmId) ?? { filmId, jobIds: [], copies: 0, areaMm2: 0 };
      films.set(filmId, {
        filmId,
        jobIds: [...film.jobIds, job.id],
        copies: film.copies + copies,
        areaMm2: film.areaMm2 + areaMm2,
      });
    }
  }
  return [...films.values()].sort((a, b) => b.jobIds.length - a.jobIds.length || b.areaMm2 - a.areaMm2);
}
