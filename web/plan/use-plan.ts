import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { sourcesOf } from '../../core/stations/artwork/index.js';
import type { Recipe } from '../../core/recipe/index.js';
import { shopForPlans } from '../../core/shop/index.js';
import type { LearnedWeeding } from '../../core/stations/prepare/index.js';
import { artworkQuery } from '../api/artwork-picture.js';
import type { PlanFailure } from './plan-client.js';
import { planner } from './planner.js';
import type { JobSoFar } from '../../core/plan/index.js';
import type { PlanView } from '../../core/plan/page/plan-view.js';
import { useShop } from './use-shop.js';

export interface PlanState {
  readonly view: PlanView | null;
  /** What the view was made of; null while there is none. */
  readonly madeOf: Recipe | null;
  readonly working: boolean;
  /** What takes its time, and how far along it is, 0 to 1. */
  readonly step: { readonly doing: string; readonly done: number } | null;
  readonly failure: PlanFailure | { readonly why: 'stopped' } | null;
}

const NOTHING: PlanState = { view: null, madeOf: null, working: true, step: null, failure: null };

/** The plan of a recipe, of what is cut of it already and of what the shop's log of weeding has taught (null for nothing; undefined, or null of what is cut, while that is not known), computed beside the page and shown stage by stage; the last view stays until there is a newer one. */
export function usePlan(
  jobId: string,
  recipe: Recipe | null,
  cut: JobSoFar | null,
  weeding: LearnedWeeding | null | undefined,
): PlanState & { readonly stop: () => void; readonly tryAgain: () => void } {
  const shop = useShop();
  const client = useQueryClient();
  const ids = recipe ? [...new Set(recipe.artworks.flatMap(sourcesOf).map((source) => source.id))] : [];
  const { data: sources } = useQuery({
    queryKey: ['artworks', ...ids],
    queryFn: async () =>
      new Map(await Promise.all(ids.map(async (id) => [id, await client.ensureQueryData(artworkQuery(id))] as const))),
    staleTime: Infinity,
    structuralSharing: false,
  });
  const [state, setState] = useState(NOTHING);
  const [tries, setTries] = useState(0);
  const key = recipe && cut && weeding !== undefined ? JSON.stringify([recipe, cut, weeding]) : '';
  useEffect(() => () => planner.leave(jobId), [jobId]);
  useEffect(() => {
    if (!recipe || !cut || weeding === undefined || !shop || !sources) return undefined;
    let current = true;
    setState((before) => ({ ...before, working: true }));
    planner.plan(
      { jobId, recipe, shop: shopForPlans(shop), sources, ...cut, weeding: weeding ?? undefined },
      {
        show: (view, finished) =>
          current && setState({ view, madeOf: recipe, working: !finished, step: null, failure: null }),
        step: (doing, done) => current && setState((before) => ({ ...before, step: { doing, done } })),
        fail: (failure) => current && setState((before) => ({ ...before, working: false, step: null, failure })),
      },
    );
    return () => {
      current = false;
    };
    // The recipe is compared by value: an equal one needs no new plan.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [jobId, key, shop, sources, tries]);
  const stop = useCallback(() => {
    planner.stop();
    setState((before) => ({ ...before, working: false, step: null, failure: { why: 'stopped' } }));
  }, []);
  const tryAgain = useCallback(() => setTries((n) => n + 1), []);
  return { ...state, stop, tryAgain };
}
