import { letterFormsOf, changesOf, paintsOf, viewOf } from '../../core/plan/page/make-view.js';
import type { Plan, Planner } from '../../core/plan/index.js';
import { crossSection, thinnestPart } from '../../core/engines/layers/index.js';
import type { Recipe } from '../../core/recipe/index.js';
import type { Shop } from '../../core/shop/index.js';
import { sayStep } from '../../core/stations/artwork/index.js';
import type { Answer, PlanWorkerApi } from './worker-api.js';

interface DeskOptions {
  readonly planner: Planner;
  /** Resolves when the polygon kernel is there; rejects when it cannot be had. */
  readonly ready: Promise<unknown>;
  /** Lets waiting messages in: a newer request then ends this one at its next breath. */
  readonly breath: () => Promise<void>;
}

interface Made {
  readonly id: number;
  readonly plan: Plan;
  readonly recipe: Recipe;
  readonly shop: Shop;
}

class Overtaken extends Error {}

/** What the planning worker does, whatever it runs in. One plan at a time is looked at; what is asked of another is not answered. */
export function planDesk({ planner, ready, breath }: DeskOptions): PlanWorkerApi {
  let newest = 0;
  let last: Made | null = null;
  let jobId: string | null = null;
  /** Files of the job that is looked at, each sent once. */
  const sources = new Map<string, Uint8Array>();

  const of = async <T>(id: number, answer: (made: Made) => T | Promise<T>): Promise<Answer<T>> =>
    last?.id === id ? { value: await answer(last) } : null;
  // Not every build is tried: it is fetched with the first that is.
  const trials = () => import('../../core/stations/layers/trials.js');
  const take = (id: string, fresh: ReadonlyMap<string, Uint8Array>) => {
    if (id !== jobId) sources.clear();
    jobId = id;
    for (const [name, bytes] of fresh) sources.set(name, bytes);
  };

  return {
    hello: async () => {
      await ready;
    },
    async plan(
      { id, jobId: job, recipe, shop, taken, lies, builtWith, lone, weeding, sources: fresh },
      onView,
      onStep,
    ) {
      const mine = ++newest;
      take(job, fresh);
      await ready;
      const breathe = async () => {
        await breath();
        if (mine !== newest) throw new Overtaken();
      };
      // Heard before this is answered: a call back goes another way to the page than the answer, and may be slower.
      const told: (void | Promise<void>)[] = [];
      const show = (plan: Plan, isFinished: boolean) => {
        last = { id, plan, recipe, shop };
        told.push(onView({ ...viewOf(plan), id }, isFinished));
      };
      try {
        await breathe();
        const plan = await planner.plan(
          {
            recipe,
            shop,
            taken,
            lies,
            ...(builtWith ? { builtWith } : {}),
            ...(lone ? { lone } : {}),
            weeding,
            sources,
          },
          {
            breathe,
            onStep: (step, done) => onStep(sayStep(step), done),
            onProgress: (soFar) => {
              // The build is what a hand is moving; the rest is shown once it is all there.
              if (soFar.build && !soFar.prepare) show(soFar, false);
            },
          },
        );
        if (mine === newest) show(plan, true);
        await Promise.all(told);
      } catch (error) {
        if (!(error instanceof Overtaken)) throw error;
      }
    },
    stop: () => {
      newest += 1;
      return Promise.resolve();
    },
    adding: async ({ jobId: job, recipe, shop, taken, sources: fresh }, part) => {
      take(job, fresh);
      await ready;
      return planner.adding({ recipe, shop, taken, sources }, part);
    },
    repeating: async ({ jobId: job, recipe, shop, taken, sources: fresh }, wish) => {
      take(job, fresh);
      await ready;
      return planner.repeating({ recipe, shop, taken, sources }, wish);
    },
    letterForms: async (lettering, ownFont) => {
      await ready;
      return letterFormsOf(await planner.letterChoices(lettering, ownFont));
    },
    gapTrial: (id, wish) =>
      of(id, async ({ plan: { build, panels }, recipe, shop }) =>
        build && panels
          ? (await trials()).tryGaps({ build, panels, recipe, repeatabilityMm: shop.cutter.repeatabilityMm }, wish)
          : null,
      ),
    schools: (id, wish) =>
      of(id, async ({ plan: { separated, panels, surface }, recipe, shop }) =>
        separated && panels && surface
          ? (await trials()).schoolsSideBySide(
              { separated, recipe, shop, panels, heightMm: surface.design.heightMm },
              wish,
            )
          : [],
      ),
    thinnest: (id) =>
      of(id, ({ plan }) =>
        Object.fromEntries(
          (plan.build?.layers ?? []).flatMap((layer) => {
            const part = thinnestPart(layer.cut);
            return part ? [[layer.film.id, part] as const] : [];
          }),
        ),
      ),
    section: (id, atMm, way) =>
      of(id, ({ plan }) => {
        const layers = plan.build?.layers ?? [];
        const thickness = new Map(layers.map((layer) => [layer.key, layer.film.thicknessUm]));
        return crossSection(layers, atMm, (key) => thickness.get(key)!, way);
      }),
    paints: (id, when) =>
      of(id, ({ plan: { regions } }) =>
        regions ? paintsOf(when === 'before' ? regions.asDrawn : regions.regions) : [],
      ),
    changes: (id) =>
      of(id, ({ plan: { regions } }) =>
        regions ? changesOf(regions.asDrawn, regions.regions) : { added: '', removed: '' },
      ),
  };
}
