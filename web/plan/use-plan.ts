import { useQueries, useQuery } from '@tanstack/react-query';
import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { Recipe, Shop } from '../../core/job/index.js';
import { ask } from '../api/client.js';
import { artworkQuery } from '../jobs/artwork-picture.js';
import type { PlanRequest, PlanView, PlanWorkerApi } from './plan-view.js';

let remote: Remote<PlanWorkerApi> | null = null;
let worker: Worker | null = null;

/** A drawing that takes longer than this to be planned is given up, or the page would wait for ever. */
const LONGEST_MS = 60_000;

/** One worker serves the page: it keeps what it computed for the job last looked at. */
export function planWorker(): Remote<PlanWorkerApi> {
  if (!remote) {
    worker = new Worker(new URL('./plan-worker.ts', import.meta.url), { type: 'module' });
    remote = wrap<PlanWorkerApi>(worker);
  }
  return remote;
}

/** Ends the worker in the middle of what it does; the next request starts another. */
function giveUp(): void {
  worker?.terminate();
  worker = remote = null;
}

export interface PlanState {
  readonly view: PlanView | null;
  readonly working: boolean;
  readonly error: string | null;
}

interface Asked {
  readonly input: PlanRequest;
  readonly show: (view: PlanView, finished: boolean) => void;
  readonly fail: (error: Error) => void;
}

let next: Asked | null = null;
let building = false;

/**
 * Asks the worker for a plan. While it has not yet shown the build of the one before, only the newest request waits: a hand that moves
 * faster than the build then sees every build the worker can make, instead of none.
 */
function askForPlan(asked: Asked): void {
  next = asked;
  if (!building) void sendNext();
}

async function sendNext(): Promise<void> {
  const asked = next;
  if (!asked) return;
  next = null;
  building = true;
  const built = () => {
    if (!building) return;
    building = false;
    void sendNext();
  };
  const onView = (view: PlanView, finished: boolean) => {
    asked.show(view, finished);
    built();
  };
  let tooLong: ReturnType<typeof setTimeout> | undefined;
  const limit = new Promise<never>((_, reject) => {
    tooLong = setTimeout(() => {
      giveUp();
      reject(new Error('it took longer than a minute and was stopped; simplify the artwork.'));
    }, LONGEST_MS);
  });
  try {
    await Promise.race([planWorker().plan(asked.input, proxy(onView)), limit]);
  } catch (error) {
    asked.fail(error as Error);
  } finally {
    clearTimeout(tooLong);
    built();
  }
}

/** The plan of a recipe, computed beside the page and shown stage by stage; the last view stays until there is a newer one. */
export function usePlan(recipe: Recipe | null): PlanState {
  const shop = useShop();
  const artworks = useQueries({ queries: (recipe?.artworks ?? []).map((artwork) => artworkQuery(artwork.id)) });
  const [state, setState] = useState<PlanState>({ view: null, working: true, error: null });
  const sourcesReady = artworks.every((query) => query.data);
  const key = recipe ? JSON.stringify(recipe) : '';
  useEffect(() => {
    if (!recipe || !shop || !sourcesReady) return undefined;
    let current = true;
    const sources = new Map(recipe.artworks.map((artwork, i) => [artwork.id, artworks[i]!.data!]));
    setState((before) => ({ ...before, working: true }));
    askForPlan({
      input: { recipe, shop, sources },
      show: (view, finished) => current && setState({ view, working: !finished, error: null }),
      fail: (error) => current && setState((before) => ({ ...before, working: false, error: `The plan could not be computed: ${error.message}` })),
    });
    return () => {
      current = false;
    };
    // The recipe is compared by value: an equal one needs no new plan.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, shop, sourcesReady]);
  return state;
}

export function useShop(): Shop | undefined {
  return useQuery({ queryKey: ['shop'], queryFn: () => ask<Shop>('/api/shop'), staleTime: Infinity }).data;
}
