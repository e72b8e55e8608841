import { Resvg } from '@resvg/resvg-js';

/** Channels that differ by no more than this look the same: rounding of the renderer. */
const SAME = 24;

/**
 * Share of the pixels that differ between two drawings of the same proportions, pixels within one of an edge of the first left out.
 * Both are drawn on white at `widthPx`.
 */
export function pictureDifference(original: string, remade: string, widthPx = 512): number {
  return pixelDifference(drawn(original, widthPx), drawn(remade, widthPx));
}

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly pixels: Buffer;
}

/** The same of two pictures that are drawn already. */
export function pixelDifference(a: Picture, b: Picture, same = SAME): number {
  const [w, h] = [a.width, Math.min(a.height, b.height)];
  const apart = (p: Buffer, i: number, q: Buffer, j: number) =>
    Math.max(Math.abs(p[i]! - q[j]!), Math.abs(p[i + 1]! - q[j + 1]!), Math.abs(p[i + 2]! - q[j + 2]!));
  const nearEdge = (i: number) => {
    for (let dy = -1; dy <= 1; dy += 1)
      for (let dx = -1; dx <= 1; dx += 1) if (apart(a.pixels, i, a.pixels, i + 4 * (dy * w + dx)) > SAME) return true;
    return false;
  };
  let bad = 0;
  for (let y = 1; y < h - 1; y += 1) {
    for (let x = 1; x < w - 1; x += 1) {
      const i = 4 * (y * w + x);
      if (apart(a.pixels, i, b.pixels, i) > same && !nearEdge(i)) bad += 1;
    }
  }
  return bad / (w * h);
}

/** A drawing on white, so many pixels wide. */
export function drawn(svg: string, widthPx: number): Picture {
  const picture = new Resvg(svg, { fitTo: { mode: 'width', value: widthPx }, background: 'white' }).render();
  return { width: picture.width, height: picture.height, pixels: picture.pixels };
}

/** Layers as one drawing, the lowest first, in a frame of mm. */
export function layersSvg(
  layers: readonly { readonly colour: string; readonly path: string }[],
  frame: { readonly widthMm: number; readonly heightMm: number },
): string {
  const { widthMm: w, heightMm: h } = frame;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">${layers.map((l) => `<path fill="${l.colour}" fill-rule="evenodd" d="${l.path}"/>`).join('')}</svg>`;
}
