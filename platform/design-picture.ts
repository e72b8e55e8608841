import { Resvg } from '@resvg/resvg-js';
import type { PaintedRegion } from '../core/engines/artwork/index.js';
import { BARE } from '../core/engines/layers/index.js';
import { boundsOf, joinBoxes, ringsToPathData, widenBox, type Box } from '../core/geometry/index.js';

/** The longer side of a small picture, px: twice what the list shows, for fine screens. */
const LONGEST_PX = 296;

/** What it goes on is seen so far round it, as a share of its longer side. */
const MARGIN_SHARE = 0.06;

/** A whole design as a small PNG, its painted areas from the bottom up; empty when there is nothing to see of it. What is bare is the colour of what it goes on, or the white of the list. */
export function designPicture(regions: readonly PaintedRegion[], ground: string | null): Uint8Array {
  const box = regions.reduce<Box | null>(
    (sum, { colour, rings }) => (colour === BARE ? sum : joinBoxes(sum, boundsOf(rings))),
    null,
  );
  if (!box) return new Uint8Array();
  const around = ground === null ? 0 : Math.max(box.maxX - box.minX, box.maxY - box.minY) * MARGIN_SHARE;
  const { minX, minY } = widenBox(box, around);
  const [width, height] = [box.maxX - box.minX + 2 * around, box.maxY - box.minY + 2 * around];
  const bare = ground ?? '#ffffff';
  const paths = regions.map(
    ({ colour, rings }) =>
      `<path fill="${colour === BARE ? bare : colour}" fill-rule="evenodd" d="${ringsToPathData(rings, 3)}"/>`,
  );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="${minX} ${minY} ${width} ${height}">${ground === null ? '' : `<path fill="${ground}" d="M${minX} ${minY}h${width}v${height}h${-width}z"/>`}${paths.join('')}</svg>`;
  // Letters are outlines by now: no fonts are looked for.
  return new Resvg(svg, {
    font: { loadSystemFonts: false },
    fitTo: { mode: width >= height ? 'width' : 'height', value: LONGEST_PX },
  })
    .render()
    .asPng();
}
