import { Resvg } from '@resvg/resvg-js';
import type { PaintedRegion } from '../core/engines/artwork/index.js';
import { BARE } from '../core/engines/layers/index.js';
import { boundsOf, joinBoxes, ringsToPathData, type Box } from '../core/geometry/index.js';

/** The longer side of a small picture, px: twice what the list shows, for fine screens. */
const LONGEST_PX = 296;

/** A whole design as a small PNG, its painted areas from the bottom up; empty when there is nothing to see of it. What is bare is the white of the list. */
export function designPicture(regions: readonly PaintedRegion[]): Uint8Array {
  const box = regions.reduce<Box | null>((sum, { colour, rings }) => (colour === BARE ? sum : joinBoxes(sum, boundsOf(rings))), null);
  if (!box) return new Uint8Array();
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  const paths = regions.map(({ colour, rings }) => `<path fill="${colour === BARE ? '#ffffff' : colour}" fill-rule="evenodd" d="${ringsToPathData(rings, 3)}"/>`);
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="${box.minX} ${box.minY} ${width} ${height}">${paths.join('')}</svg>`;
  // Letters are outlines by now: no fonts are looked for.
  return new Resvg(svg, { font: { loadSystemFonts: false }, fitTo: { mode: width >= height ? 'width' : 'height', value: LONGEST_PX } }).render().asPng();
}
