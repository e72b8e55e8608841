import { describe, expect, it, vi } from 'vitest';
import { KernelError } from '../../core/geometry/index.js';
import { dyingWithKernel } from './die-with-kernel.js';
import type { PlanWorkerApi } from './worker-api.js';

const deskThat = (fails: unknown) =>
  ({
    hello: () => Promise.resolve(),
    changes: () => (fails ? Promise.reject(fails as Error) : Promise.resolve({ value: { added: '', removed: '' } })),
  }) as unknown as PlanWorkerApi;

describe('a planning worker', () => {
  it('falls over when its kernel failed, and answers nothing more', async () => {
    const fallOver = vi.fn();
    const answered = vi.fn();
    const error = new KernelError('kernel-failed', 'It gave up.');
    const desk = dyingWithKernel(deskThat(error), fallOver);
    void desk.changes(1).then(answered, answered);
    await vi.waitFor(() => expect(fallOver).toHaveBeenCalledExactlyOnceWith(error));
    await desk.hello();
    expect(answered).not.toHaveBeenCalled();
  });

  it('lives on after any other error, and says it', async () => {
    const fallOver = vi.fn();
    for (const error of [new Error('no such font'), new KernelError('coordinate-not-finite', 'A point is nowhere.')])
      await expect(dyingWithKernel(deskThat(error), fallOver).changes(1)).rejects.toBe(error);
    expect(await dyingWithKernel(deskThat(null), fallOver).changes(1)).toEqual({ value: { added: '', removed: '' } });
    expect(fallOver).not.toHaveBeenCalled();
  });
});
