import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import createKernel from 'clipper2-wasm/dist/es/clipper2z.js';
import { describe, expect, it } from 'vitest';
import { withMemoryBound } from './kernel-memory.js';

const wasm = readFileSync(createRequire(import.meta.url).resolve('clipper2-wasm/dist/es/clipper2z.wasm'));
const MB = 1024 * 1024;

describe('the memory of the kernel', () => {
  it('is bounded by the module itself, and the module is otherwise the same', async () => {
    const bounded = withMemoryBound(wasm, 64 * MB);
    expect(bounded.length).toBe(wasm.length);
    expect([...bounded].filter((byte, i) => byte !== wasm[i]).length).toBeLessThanOrEqual(3);
    const kernel = (await createKernel({ wasmBinary: bounded })) as unknown as {
      PathsD: new () => { delete(): void; push_back(path: unknown): void };
      PathD: new () => { assign(points: Float64Array): void; delete(): void };
    };
    const kept: unknown[] = [];
    const fill = () => {
      for (let i = 0; i < 400; i += 1) {
        const path = new kernel.PathD();
        kept.push(path);
        path.assign(new Float64Array(3 * 40_000));
      }
    };
    // 400 times nearly a megabyte: more than it may have, and far less than it could have had.
    expect(fill).toThrow();
    expect(kept.length).toBeLessThan(80);
  });

  it('cannot be bounded where there is none, or above what it is', () => {
    expect(() => withMemoryBound(Uint8Array.of(0, 0x61, 0x73, 0x6d, 1, 0, 0, 0), MB)).toThrow(RangeError);
    expect(() => withMemoryBound(wasm, 2 ** 50)).toThrow(RangeError);
  });
});
