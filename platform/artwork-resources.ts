import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import type { ArtworkResources, PictureKind } from '../core/engines/artwork/index.js';

const require = createRequire(import.meta.url);

const UNPACKERS: Readonly<Record<PictureKind, string>> = {
  png: '@jsquash/png/codec/pkg/squoosh_png_bg.wasm',
  jpeg: '@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm',
  webp: '@jsquash/webp/codec/dec/webp_dec.wasm',
};

/** Fonts, the unpackers of pictures and the renderer of drawings in Node, where they lie in their packages. */
export const resourcesInNode: ArtworkResources = {
  fontFile: async (path) => new Uint8Array(await readFile(require.resolve(path))),
  unpackerOf: async (kind) => WebAssembly.compile(await readFile(require.resolve(UNPACKERS[kind]))),
  rendererModule: async () => WebAssembly.compile(await readFile(require.resolve('@resvg/resvg-wasm/index_bg.wasm'))),
};
