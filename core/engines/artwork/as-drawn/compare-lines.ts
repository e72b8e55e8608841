import { compose, flatten, ringsToPathData, scaling, transformBox } from '../../../geometry/index.js';
import { atPlaces } from '../../../words/index.js';
import type { Artwork } from '../artwork.js';
import type { Noticed } from '../noticed.js';
import { paintRegions } from '../paint-regions.js';
import { drawnOrNull, FLATTEN_PX, isExplained, isTooMuch, LONGEST_PX } from './compare-with-drawing.js';
import { differingPlaces } from './differing-places.js';
import type { DrawSvg } from './renderer.js';

/** Wide enough that half of it covers the pixel it runs through. */
const LINE_PX = 1.5;

/**
 * Holds the lines that a drawing is made of against the edges of the areas that they became, and tells where a line is no edge of any: only what nothing
 * that was noticed explains. For drawings of lines, which no renderer fills.
 */
export function compareLines(artwork: Artwork, draw: DrawSvg): Noticed[] {
  const scale = LONGEST_PX / Math.max(artwork.widthMm, artwork.heightMm);
  const { regions, noticed } = paintRegions(artwork, scale, FLATTEN_PX);
  const lines = (artwork.lines ?? []).flatMap(({ curves, matrix }) => flatten(curves, compose(scaling(scale), matrix), FLATTEN_PX));
  const asSvg = (paths: readonly string[]) => {
    const [width, height] = [artwork.widthMm * scale, artwork.heightMm * scale];
    return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><g fill="none" stroke="#000" stroke-width="${LINE_PX}">${paths.map((d) => `<path d="${d}"/>`).join('')}</g></svg>`;
  };
  const data = ({ points, closed }: (typeof lines)[number]) => `M${Array.from(points, (v) => v.toFixed(1)).join(' ')}${closed ? 'Z' : ''}`;
  const drawn = isTooMuch(noticed) ? null : drawnOrNull(() => draw(asSvg(lines.map(data)), artwork, LONGEST_PX));
  const remade = drawn && drawnOrNull(() => draw(asSvg(regions.map(({ rings }) => ringsToPathData(rings, 1))), artwork, LONGEST_PX));
  if (!drawn || !remade) return [{ code: 'not-compared' }];
  const boxes = differingPlaces(drawn, remade).filter((place) => place.difference === 'missing' && !isExplained(place, artwork.noticed, scale)).map(({ box }) => transformBox(box, scaling(1 / scale)));
  return boxes.length > 0 ? [{ code: 'not-as-drawn', difference: 'missing', ...atPlaces(boxes) }] : [];
}
