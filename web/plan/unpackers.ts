import jpegUrl from '@jsquash/jpeg/codec/dec/mozjpeg_dec.wasm?url';
import pngUrl from '@jsquash/png/codec/pkg/squoosh_png_bg.wasm?url';
import webpUrl from '@jsquash/webp/codec/dec/webp_dec.wasm?url';
import type { PictureKind } from '../../core/engines/artwork/index.js';

const URLS: Readonly<Record<PictureKind, string>> = { png: pngUrl, jpeg: jpegUrl, webp: webpUrl };

/** The compiled unpacker of a kind of picture, from the files that came with the pages. */
export async function fetchUnpacker(kind: PictureKind): Promise<WebAssembly.Module> {
  return WebAssembly.compile(await (await fetch(URLS[kind])).arrayBuffer());
}
