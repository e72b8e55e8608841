import createKernel from 'clipper2-wasm/dist/es/clipper2z.js';
import wasmUrl from 'clipper2-wasm/dist/es/clipper2z.wasm?url';
import { expose } from 'comlink';
import { loadKernel } from '../../core/geometry/index.js';
import type { ArtworkResources } from '../../core/artwork/index.js';
import { Planner, schoolsSideBySide, tryGaps, type Plan } from '../../core/job/plan/index.js';
import { crossSection, thinnestPart } from '../../core/layers/index.js';
import type { PlanWorkerApi } from './plan-view.js';
import { changesOf, letterFormsOf, paintsOf, viewOf } from './make-view.js';

const ready = fetch(wasmUrl)
  .then((response) => response.arrayBuffer())
  .then((bytes) => loadKernel(createKernel, new Uint8Array(bytes)));

const resources: ArtworkResources = {
  fontFile: async (path) => (await import('./font-files.js')).fetchFont(path),
  unpackerOf: async (kind) => (await import('./unpackers.js')).fetchUnpacker(kind),
};
const planner = new Planner(resources);
let newest = 0;
let lastPlan: Plan | null = null;

class Overtaken extends Error {}

/** Lets waiting messages in: a newer request then ends this one at its next breath. A timer would wait 4 ms each time. */
const breath = () =>
  new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

const api: PlanWorkerApi = {
  async plan(input, onView, onStep) {
    const mine = ++newest;
    await ready;
    const breathe = async () => {
      await breath();
      if (mine !== newest) throw new Overtaken();
    };
    try {
      await breathe();
      const plan = await planner.plan(input, {
        breathe,
        onStep,
        onProgress: (soFar) => {
          // The build is what a hand is moving; the rest is shown once it is all there.
          if (soFar.build && !soFar.prepare) {
            lastPlan = soFar;
            onView(viewOf(soFar), false);
          }
        },
      });
      lastPlan = plan;
      onView(viewOf(plan), true);
    } catch (error) {
      if (!(error instanceof Overtaken)) throw error;
    }
  },
  stop: () => {
    newest += 1;
    return Promise.resolve();
  },
  adding: async (input, part) => {
    await ready;
    return planner.adding(input, part);
  },
  letterForms: async (lettering, ownFont) => {
    await ready;
    return letterFormsOf(await planner.letterChoices(lettering, ownFont));
  },
  gapTrial: (recipe, shop, wish) => Promise.resolve(lastPlan ? tryGaps(lastPlan, recipe, shop, wish) : null),
  schools: (recipe, shop, wish) => Promise.resolve(lastPlan ? schoolsSideBySide(lastPlan, recipe, shop, wish) : []),
  thinnest: () => {
    const found = (lastPlan?.build?.layers ?? []).flatMap((layer) => {
      const part = thinnestPart(layer.cut);
      return part ? [[layer.film.id, part] as const] : [];
    });
    return Promise.resolve(Object.fromEntries(found));
  },
  section: (atMm, way) => {
    const layers = lastPlan?.build?.layers ?? [];
    const thickness = new Map(layers.map((layer) => [layer.key, layer.film.thicknessUm]));
    return Promise.resolve(crossSection(layers, atMm, (key) => thickness.get(key)!, way));
  },
  paints: (when) => Promise.resolve(lastPlan?.regions ? paintsOf(when === 'before' ? lastPlan.regions.asDrawn : lastPlan.regions.regions) : []),
  changes: () => Promise.resolve(lastPlan?.regions ? changesOf(lastPlan.regions.asDrawn, lastPlan.regions.regions) : { added: '', removed: '' }),
};

expose(api);
