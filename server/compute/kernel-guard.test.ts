import { afterAll, describe, expect, it } from 'vitest';
import { Compute } from './compute.js';

const compute = new Compute(new URL('../testing/failing-worker.mjs', import.meta.url));
afterAll(() => compute.close());

const none = new Uint8Array();

describe('a worker whose kernel failed', () => {
  it('answers with a sentence, is replaced, and no later task meets it', async () => {
    for (let round = 0; round < 4; round += 1) {
      await expect(compute.fontName('fails', none)).rejects.toMatchObject({ code: 'kernel-failed', status: 422 });
      // Asked one after the other, so a thread that had failed and lived on would count on.
      expect(Number(await compute.fontName('sound', none))).toBeGreaterThan(0);
    }
    const failing = Array.from({ length: 6 }, () =>
      compute.fontName('fails', none).catch((error: { readonly code: string }) => error.code),
    );
    const sound = Array.from({ length: 6 }, () => compute.fontName('sound', none));
    expect(new Set(await Promise.all(failing))).toEqual(new Set(['kernel-failed']));
    expect((await Promise.all(sound)).every((name) => Number(name) >= 1)).toBe(true);
  });
});
