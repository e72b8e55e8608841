import { isKernelFailure } from '../../core/geometry/index.js';
import type { PlanWorkerApi } from './worker-api.js';

type Method = (...asked: never[]) => Promise<unknown>;

/**
 * The same desk, but once the polygon kernel has failed nothing is answered any more: nothing is known of its memory then, so the worker
 * has to fall over, and the page starts another.
 */
export function dyingWithKernel(desk: PlanWorkerApi, fallOver: (error: unknown) => void): PlanWorkerApi {
  const guarded =
    (method: Method): Method =>
    async (...asked) => {
      try {
        return await method(...asked);
      } catch (error) {
        if (!isKernelFailure(error)) throw error;
        fallOver(error);
        return new Promise(() => {});
      }
    };
  return Object.fromEntries(
    Object.entries(desk).map(([name, method]) => [name, guarded(method as Method)]),
  ) as unknown as PlanWorkerApi;
}
