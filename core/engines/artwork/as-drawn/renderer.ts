import type { Pixels } from '../picture/pixels.js';

/** Gives the renderer's compiled WebAssembly: only the caller knows whether its bytes come from a disk or over the network. */
export type RendererModule = () => Promise<object>;

/** Draws an SVG on nothing, its longer side so many pixels. Text is not drawn: it has no fonts. @throws when the renderer cannot */
export type DrawSvg = (
  svg: Uint8Array | string,
  frame: { readonly widthMm: number; readonly heightMm: number },
  longestPx: number,
) => Pixels;

let opened: Promise<DrawSvg> | null = null;

/** An SVG renderer that shares no code with the reader, opened once. */
export function openRenderer(moduleOf: RendererModule): Promise<DrawSvg> {
  opened ??= open(moduleOf);
  // A fetch that failed is tried again next time.
  opened.catch(() => (opened = null));
  return opened;
}

async function open(moduleOf: RendererModule): Promise<DrawSvg> {
  const [{ initWasm, Resvg }, module] = await Promise.all([import('@resvg/resvg-wasm'), moduleOf()]);
  await initWasm(module as WebAssembly.Module);
  return (svg, { widthMm, heightMm }, longestPx) => {
    const drawing = new Resvg(svg, {
      font: { fontBuffers: [] },
      fitTo: { mode: widthMm >= heightMm ? 'width' : 'height', value: longestPx },
    });
    const image = drawing.render();
    const { width, height, pixels } = image;
    image.free();
    drawing.free();
    return { width, height, data: new Uint8ClampedArray(pixels.buffer, pixels.byteOffset, pixels.length) };
  };
}
