import { isKernelFailure } from '../../core/geometry/index.js';

/** What the flag of a task says: go on, stop at the next breath, wait there until it says something else, or (from the worker) that the polygon kernel failed. */
export const FLAG = { go: 0, stop: 1, kernelFailed: 2, hold: 3 } as const;

/** Ends its thread when the kernel fails, since nothing is known of its memory any more; the pool starts another. Says so in the task's flag first. */
export function endingWithKernel<Task extends { readonly stopFlag: Int32Array }, T>(
  work: (task: Task) => Promise<T>,
  end: () => void,
): (task: Task) => Promise<T> {
  return async (task) => {
    try {
      return await work(task);
    } catch (error) {
      if (isKernelFailure(error)) {
        Atomics.store(task.stopFlag, 0, FLAG.kernelFailed);
        end();
      }
      throw error;
    }
  };
}
