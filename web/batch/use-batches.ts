import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { Batch, BatchSheetView, BatchView, BetterView } from '../../core/batch/index.js';
import type { LayWish } from '../../core/laying/index.js';
import type { LayerToCutView } from '../../core/plan/index.js';
import { ask } from '../api/client.js';
import { AT_FIRST, readEvent, streamedWork } from '../api/streamed-work.js';
import { useNotify } from '../ui/notices.js';

/** The batches of the shop that have a number; undefined while they are not known. */
export function useBatches(): readonly Batch[] | undefined {
  return useQuery({ queryKey: ['batches'], queryFn: () => ask<Batch[]>('/api/batches') }).data;
}

/** The batch that a job is cut in: with others, or alone in its own, which has no number. Undefined while it is not known. */
export function useBatchOf(jobId: string): Batch | undefined {
  return useQuery({ queryKey: ['batches', 'of', jobId], queryFn: () => ask<Batch>(`/api/jobs/${jobId}/batch`) }).data;
}

export interface BatchPlanState {
  readonly plan: BatchView | undefined;
  /** How far it is, 0 to 1; null when nothing is under way. */
  readonly done: number | null;
  /** What is worked on instead, while it waits for its turn. */
  readonly waitsFor: readonly string[];
  readonly error: Error | null;
  readonly stop: () => void;
  readonly again: () => void;
}

/** What a batch comes to, told by the server as it is worked out; the last plan stays until there is a newer one. It is worked out again when the batch, one of its jobs or the shop has changed; not while it is not wanted. */
export function useBatchPlan(id: string, isWanted = true): BatchPlanState {
  const client = useQueryClient();
  const [{ done, waitsFor }, setTold] = useState(AT_FIRST);
  const query = useQuery({
    queryKey: ['batch-plan', id],
    // Left for good, it is given up on the server, too.
    queryFn: ({ signal }) => {
      setTold(AT_FIRST);
      return streamedWork<BatchView>(`/api/batches/${id}/plan/events`, {
        event: 'plan',
        signal,
        tell: setTold,
        away: 'The bench computer does not answer, so this batch is not laid out.',
      });
    },
    staleTime: Infinity,
    retry: false,
    structuralSharing: false,
    enabled: isWanted,
  });
  return {
    plan: query.data,
    done: query.isFetching ? done : null,
    waitsFor: query.isFetching ? waitsFor : [],
    error: query.error,
    stop: () => void client.cancelQueries({ queryKey: ['batch-plan', id] }),
    again: () => void query.refetch(),
  };
}

/** Lays the batch of a job out again when what is to be cut of the job (undefined while it is not known) has changed: nobody tells a page of a verdict. */
export function useLaidOutAgain(id: string, toCut: readonly LayerToCutView[] | undefined): void {
  const client = useQueryClient();
  const now = useMemo(() => (toCut ? JSON.stringify(toCut) : null), [toCut]);
  const before = useRef<string | null>(null);
  useEffect(() => {
    if (now === null) return;
    if (before.current !== null && before.current !== now)
      void client.invalidateQueries({ queryKey: ['batch-plan', id] });
    before.current = now;
  }, [client, id, now]);
}

/** What a search has found so far of the sheet that is looked at, else of any; null while nothing is found. */
export function sheetFound(better: BetterView | null, lookedKey: string | undefined): BatchSheetView | null {
  if (!better) return null;
  return better.sheets.find(({ key }) => key === lookedKey) ?? better.sheets[0] ?? null;
}

export interface SearchSoFar {
  /** The best that it has found; null before anything is better. */
  readonly found: BetterView | null;
  /** What is worked on instead, while it waits for its turn. */
  readonly waitsFor: readonly string[];
}
const NOTHING_FOUND: SearchSoFar = { found: null, waitsFor: [] };

/** How far a search for less film is, while one is under way. */
export function useSearchSoFar(batchId: string, isSearching: boolean): SearchSoFar {
  const [soFar, setSoFar] = useState(NOTHING_FOUND);
  useEffect(() => {
    if (!isSearching) return undefined;
    const events = new EventSource(`/api/batches/${batchId}/search/events`);
    events.addEventListener('better', (event) => setSoFar({ found: readEvent<BetterView>(event), waitsFor: [] }));
    events.addEventListener('waits', (event) => {
      const { waitsFor } = readEvent<{ waitsFor: readonly string[] }>(event);
      setSoFar(({ found }) => ({ found, waitsFor }));
    });
    return () => {
      events.close();
      setSoFar(NOTHING_FOUND);
    };
  }, [batchId, isSearching]);
  return soFar;
}

/** Batches and what they come to are asked for anew. */
export function useBatchesAnew(): () => Promise<unknown> {
  const client = useQueryClient();
  return () => Promise.all([['batches'], ['batch-plan']].map((queryKey) => client.invalidateQueries({ queryKey })));
}

export interface BatchActs {
  readonly create: (jobIds: readonly string[], then: (batch: Batch) => void) => void;
  readonly change: (batch: Batch, change: { readonly wish?: LayWish; readonly jobIds?: readonly string[] }) => void;
  readonly end: (batch: Batch, then: () => void) => void;
  readonly isBusy: boolean;
}

/** What can be done with batches. What goes wrong is said. */
export function useBatchActs(): BatchActs {
  const notify = useNotify();
  const act = useMutation({
    mutationFn: ({
      path,
      method,
      json,
    }: {
      path: string;
      method: string;
      json: object;
      then?: (answer: never) => void;
    }) => ask<unknown>(path, { method, json }),
    onError: (error) => notify(error.message),
    onSettled: useBatchesAnew(),
    onSuccess: (answer, { then }) => then?.(answer as never),
  });
  return {
    create: (jobIds, then) => act.mutate({ path: '/api/batches', method: 'POST', json: { jobIds }, then }),
    change: ({ id, revision }, change) =>
      act.mutate({ path: `/api/batches/${id}`, method: 'PATCH', json: { revision, ...change } }),
    end: ({ id, revision }, then) =>
      act.mutate({ path: `/api/batches/${id}/end`, method: 'POST', json: { revision }, then }),
    isBusy: act.isPending,
  };
}
