import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import createKernel from 'clipper2-wasm/dist/es/clipper2z.js';
import { loadKernel } from '../core/geometry/index.js';

/** Loads the polygon kernel in Node, where its WebAssembly lies beside its script on disk. Call once per process or worker. */
export async function loadKernelInNode(): Promise<void> {
  const wasm = createRequire(import.meta.url).resolve('clipper2-wasm/dist/es/clipper2z.wasm');
  await loadKernel(createKernel, await readFile(wasm));
}
