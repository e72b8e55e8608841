import { useQueries, useQuery } from '@tanstack/react-query';
import { proxy, wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useState } from 'react';
import { sourcesOf, type Recipe, type Shop } from '../../core/job/index.js';
import type { TakenCopies } from '../../core/job/plan/index.js';
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

/** Breaks off what is being planned. */
function breakOff(): void {
  next = null;
  void planWorker().stop();
}

export interface PlanState {
  readonly view: PlanView | null;
  readonly working: boolean;
  /** What takes its time, and how far along it is, 0 to 1. */
  readonly step: { readonly doing: string; readonly done: number } | null;
  readonly error: string | null;
}

interface Asked {
  readonly input: PlanRequest;
  readonly show: (view: PlanView, finished: boolean) => void;
  readonly step: (doing: string, done: number) => void;
  readonly fail: (error: Error) => void;
}

let next: Asked | null = null;
let sent = 0;
let building = false;
/** A picture is being traced: that takes long enough to be overtaken in the middle. */
let tracing = false;

/**
 * Asks the worker for a plan. While it has not yet shown the build of the one before, only the newest request waits: a hand that moves
 * faster than the build then sees every build the worker can make, instead of none. Tracing alone is broken off.
 */
function askForPlan(asked: Asked): void {
  next = asked;
  if (!building || tracing) void sendNext();
}

async function sendNext(): Promise<void> {
  const asked = next;
  if (!asked) return;
  next = null;
  building = true;
  tracing = false;
  const mine = ++sent;
  const built = () => {
    if (!building || mine !== sent) return;
    building = tracing = false;
    void sendNext();
  };
  const onStep = (doing: string, done: number) => {
    tracing = mine === sent;
    asked.step(doing, done);
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
    await Promise.race([planWorker().plan(asked.input, proxy(onView), proxy(onStep)), limit]);
  } catch (error) {
    asked.fail(error as Error);
  } finally {
    clearTimeout(tooLong);
    built();
  }
}

/** The plan of a recipe and of what is cut of it already (null while that is not known), computed beside the page and shown stage by stage; the last view stays until there is a newer one. */
export function usePlan(recipe: Recipe | null, taken: TakenCopies | null): PlanState & { readonly stop: () => void } {
  const shop = useShop();
  const files = recipe ? [...new Map(recipe.artworks.flatMap(sourcesOf).map((source) => [source.id, source])).values()] : [];
  const fetched = useQueries({ queries: files.map((source) => artworkQuery(source.id)) });
  const [state, setState] = useState<PlanState>({ view: null, working: true, step: null, error: null });
  const sourcesReady = fetched.every((query) => query.data);
  const key = recipe && taken ? JSON.stringify([recipe, taken]) : '';
  useEffect(() => {
    if (!recipe || !taken || !shop || !sourcesReady) return undefined;
    let current = true;
    const sources = new Map(files.map((source, i) => [source.id, fetched[i]!.data!]));
    setState((before) => ({ ...before, working: true }));
    askForPlan({
      input: { recipe, shop, sources, taken },
      show: (view, finished) => current && setState({ view, working: !finished, step: null, error: null }),
      step: (doing, done) => current && setState((before) => ({ ...before, step: { doing, done } })),
      fail: (error) => current && setState((before) => ({ ...before, working: false, step: null, error: `The plan could not be computed: ${error.message}` })),
    });
    return () => {
      current = false;
    };
    // The recipe is compared by value: an equal one needs no new plan.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, shop, sourcesReady]);
  const stop = useCallback(() => {
    breakOff();
    setState((before) => ({ ...before, working: false, step: null, error: 'It was stopped, and the last picture stays.' }));
  }, []);
  return { ...state, stop };
}

/** The shop as the server keeps it, with the revision that a write of it must name. */
export type StoredShop = Shop & { readonly revision: number };

export function useShop(): StoredShop | undefined {
  return useQuery({ queryKey: ['shop'], queryFn: () => ask<StoredShop>('/api/shop'), staleTime: Infinity }).data;
}
