import { ringsToPathData } from '../../../geometry/index.js';
import type { Artwork, Clip, PaintedRegion } from '../artwork.js';
import type { Noticed } from '../noticed.js';
import { comparePictures, notAsDrawn } from './compare-pictures.js';
import type { DrawSvg } from './renderer.js';

/**
 * Holds what was read of an SVG against a picture of it that a renderer makes, and tells where something drawn has no area, where there is more than was
 * drawn, and where a colour is another: only what nothing that was noticed explains. Letters and what they clip are not compared, since the renderer has no
 * fonts, nor are traced pictures.
 * A drawing that the renderer cannot draw is told as not compared.
 */
export function compareWithDrawing(svg: Uint8Array, artwork: Artwork, draw: DrawSvg): Noticed[] {
  // The renderer paints these black.
  if (/context-(fill|stroke)/.test(new TextDecoder().decode(svg))) return [{ code: 'not-compared' }];
  const compared = {
    ...artwork,
    paints: artwork.paints.filter((paint) => !paint.mayCross && !paint.clips.some(hasLetters)),
  };
  const asAreas = ({ colour, rings }: PaintedRegion) =>
    `<path fill="${colour}" fill-rule="evenodd" d="${ringsToPathData(rings, 1)}"/>`;
  const open = comparePictures(compared, draw, {
    drawn: () => svg,
    remade: (regions) => regions.map(asAreas).join(''),
  });
  if (!open) return [{ code: 'not-compared' }];
  return (['missing', 'extra', 'colour'] as const).flatMap((difference) => notAsDrawn(open, difference));
}

function hasLetters({ outlines, clips }: Clip): boolean {
  return outlines.some((outline) => outline.isLetter || outline.clips.some(hasLetters)) || clips.some(hasLetters);
}
