import { proxy, wrap } from 'comlink';
import { PlanClient, type StartedWorker } from './plan-client.js';
import type { PlanWorkerApi } from './worker-api.js';

function startWorker(): StartedWorker {
  const worker = new Worker(new URL('./plan-worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<PlanWorkerApi>(worker) as unknown as PlanWorkerApi;
  const failed = new Promise<never>((_, reject) => {
    const onError = (event: Event) => reject(new Error(event instanceof ErrorEvent ? event.message : event.type));
    worker.addEventListener('error', onError, { once: true });
    worker.addEventListener('messageerror', onError, { once: true });
  });
  return {
    api: {
      hello: () => remote.hello(),
      plan: (request, onView, onStep) => remote.plan(request, proxy(onView), proxy(onStep)),
      stop: () => remote.stop(),
      section: (...asked) => remote.section(...asked),
      thinnest: (plan) => remote.thinnest(plan),
      paints: (...asked) => remote.paints(...asked),
      changes: (plan) => remote.changes(plan),
      gapTrial: (...asked) => remote.gapTrial(...asked),
      schools: (...asked) => remote.schools(...asked),
      adding: (...asked) => remote.adding(...asked),
      repeating: (...asked) => remote.repeating(...asked),
      letterForms: (...asked) => remote.letterForms(...asked),
    },
    terminate: () => worker.terminate(),
    failed,
  };
}

/** One worker serves the page: it keeps what it computed for the job last looked at. */
export const planner = new PlanClient(startWorker);
