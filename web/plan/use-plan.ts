import { useQueries, useQuery } from '@tanstack/react-query';
import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { Recipe, Shop } from '../../core/job/index.js';
import { ApiProblem, ask } from '../api/client.js';
import type { PlanView, PlanWorkerApi } from './plan-view.js';

let remote: Remote<PlanWorkerApi> | null = null;

/** One worker serves the page: it keeps what it computed for the job last looked at. */
export function planWorker(): Remote<PlanWorkerApi> {
  remote ??= wrap<PlanWorkerApi>(new Worker(new URL('./plan-worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

export interface PlanState {
  readonly view: PlanView | null;
  readonly working: boolean;
  readonly error: string | null;
}

/** The plan of a recipe, computed beside the page and shown stage by stage; the last view stays until there is a newer one. */
export function usePlan(recipe: Recipe | null): PlanState {
  const shop = useShop();
  const artworks = useQueries({
    queries: (recipe?.artworks ?? []).map((artwork) => ({
      queryKey: ['artwork', artwork.id],
      staleTime: Infinity,
      queryFn: async () => new Uint8Array(await fetchArtwork(artwork.id)),
    })),
  });
  const [state, setState] = useState<PlanState>({ view: null, working: true, error: null });
  const sourcesReady = artworks.every((query) => query.data);
  const key = recipe ? JSON.stringify(recipe) : '';
  useEffect(() => {
    if (!recipe || !shop || !sourcesReady) return undefined;
    let current = true;
    const sources = new Map(recipe.artworks.map((artwork, i) => [artwork.id, artworks[i]!.data!]));
    setState((before) => ({ ...before, working: true }));
    planWorker()
      .plan({ recipe, shop, sources }, proxy((view) => current && setState({ view, working: true, error: null })))
      .then((finished) => current && finished && setState((before) => ({ ...before, working: false })))
      .catch((error: unknown) => current && setState((before) => ({ ...before, working: false, error: `The plan could not be computed: ${String((error as Error).message)}` })));
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

async function fetchArtwork(id: string): Promise<ArrayBuffer> {
  const response = await fetch(`/api/artworks/${id}`);
  if (!response.ok) throw new ApiProblem(response.status, 'artwork-unknown', 'The artwork could not be read back.');
  return response.arrayBuffer();
}
