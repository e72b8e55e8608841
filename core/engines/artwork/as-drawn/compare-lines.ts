import { compose, flatten, ringsToPathData, scaling, type Polyline } from '../../../geometry/index.js';
import type { Artwork } from '../artwork.js';
import type { Noticed } from '../noticed.js';
import { comparePictures, FLATTEN_PX, notAsDrawn } from './compare-pictures.js';
import type { DrawSvg } from './renderer.js';

/** Wide enough that half of it covers the pixel it runs through. */
const LINE_PX = 1.5;

/**
 * Holds the lines that a drawing is made of against the edges of the areas that they became, and tells where a line is no edge of any: only what nothing
 * that was noticed explains. For drawings of lines, which no renderer fills.
 */
export function compareLines(artwork: Artwork, draw: DrawSvg): Noticed[] {
  const asLines = (paths: readonly string[]) =>
    `<g fill="none" stroke="#000" stroke-width="${LINE_PX}">${paths.map((d) => `<path d="${d}"/>`).join('')}</g>`;
  const data = ({ points, closed }: Polyline) =>
    `M${Array.from(points, (v) => v.toFixed(1)).join(' ')}${closed ? 'Z' : ''}`;
  const open = comparePictures(artwork, draw, {
    drawn: (scale) =>
      asLines(
        (artwork.lines ?? [])
          .flatMap(({ curves, matrix }) => flatten(curves, compose(scaling(scale), matrix), FLATTEN_PX))
          .map(data),
      ),
    remade: (regions) => asLines(regions.map(({ rings }) => ringsToPathData(rings, 1))),
  });
  return open ? notAsDrawn(open, 'missing') : [{ code: 'not-compared' }];
}
