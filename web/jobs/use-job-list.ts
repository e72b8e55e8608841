import { keepPreviousData, useInfiniteQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import type { JobSummary } from '../../core/recipe/index.js';
import type { JobState } from '../../core/stations/record/index.js';
import { askWithHeaders } from '../api/client.js';

/** So many jobs are fetched at a time: some screens of them. */
const PAGE = 100;
/** A row of keys is one search; shorter than a hand notices. */
const PAUSE_MS = 20;

export interface JobList {
  /** As far as they are fetched; null before anything is. */
  readonly jobs: readonly JobSummary[] | null;
  /** How many there are in all. */
  readonly total: number;
  readonly error: Error | null;
  readonly more: () => void;
  readonly again: () => void;
}

/** Which jobs are listed: those of one state, all that are not deleted, or those that are. */
export type Listed = JobState | 'all' | 'deleted';

/** Jobs by what their titles and customers hold, fetched as far as they are looked at. */
export function useJobList(search: string, listed: Listed): JobList {
  const [asked, setAsked] = useState(search);
  useEffect(() => {
    const pause = setTimeout(() => setAsked(search), PAUSE_MS);
    return () => clearTimeout(pause);
  }, [search]);
  const query = useInfiniteQuery({
    queryKey: ['jobs', asked, listed],
    queryFn: async ({ pageParam, signal }) => {
      const wish = new URLSearchParams({
        search: asked,
        from: String(pageParam),
        most: String(PAGE),
        ...(listed === 'deleted' ? { deleted: 'yes' } : listed === 'all' ? {} : { state: listed }),
      });
      const { value, headers } = await askWithHeaders<JobSummary[]>(`/api/jobs?${wish}`, { signal });
      return { jobs: value, total: Number(headers.get('Total-Count')) };
    },
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const fetched = pages.reduce((sum, page) => sum + page.jobs.length, 0);
      return last.jobs.length > 0 && fetched < last.total ? fetched : undefined;
    },
    placeholderData: keepPreviousData,
  });
  const { data, error, hasNextPage, isFetchingNextPage, fetchNextPage, refetch } = query;
  const jobs = useMemo(() => data?.pages.flatMap((page) => page.jobs) ?? null, [data]);
  return {
    jobs,
    total: data?.pages.at(-1)?.total ?? 0,
    error,
    more: () => {
      if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
    },
    again: () => void refetch(),
  };
}
