import createKernel from 'clipper2-wasm/dist/es/clipper2z.js';
import wasmUrl from 'clipper2-wasm/dist/es/clipper2z.wasm?url';
import { expose, releaseProxy, type Remote } from 'comlink';
import { loadKernel } from '../../core/geometry/index.js';
import { Planner } from '../../core/plan/index.js';
import { dyingWithKernel } from './die-with-kernel.js';
import { planDesk } from './plan-desk.js';
import type { PlanWorkerApi } from './worker-api.js';

const ready = fetch(wasmUrl)
  .then((response) => {
    if (!response.ok) throw new Error(`The polygon kernel answered with ${response.status}.`);
    return response.arrayBuffer();
  })
  .then((bytes) => loadKernel(createKernel, new Uint8Array(bytes)));

/** A timer would wait 4 ms each time. */
const breath = () =>
  new Promise<void>((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(null);
  });

const planner = new Planner({
  fontFile: async (path) => (await import('./font-files.js')).fetchFont(path),
  unpackerOf: async (kind) => (await import('./unpackers.js')).fetchUnpacker(kind),
  rendererModule: async () => (await import('./renderer-module.js')).fetchRenderer(),
});

const desk = dyingWithKernel(planDesk({ planner, ready, breath }), (error) => {
  // Outside of any promise, so that it reaches the page as the worker's own error.
  setTimeout(() => {
    throw error;
  });
});

const api: PlanWorkerApi = {
  ...desk,
  async plan(request, onView, onStep) {
    try {
      await desk.plan(request, onView, onStep);
    } finally {
      // Each is a channel to the page that would stay open for as long as the worker lives.
      for (const call of [onView, onStep] as unknown as Remote<() => void>[]) call[releaseProxy]();
    }
  },
};

expose(api);
