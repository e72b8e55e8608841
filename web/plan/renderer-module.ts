import rendererUrl from '@resvg/resvg-wasm/index_bg.wasm?url';

/** The compiled renderer of drawings, from the files that came with the pages. */
export async function fetchRenderer(): Promise<WebAssembly.Module> {
  return WebAssembly.compile(await (await fetch(rendererUrl)).arrayBuffer());
}
