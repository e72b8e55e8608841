import { ringsToPathData, scaling, transformBox, type Box } from '../../../geometry/index.js';
import { atPlaces } from '../../../words/index.js';
import type { Artwork, Clip, PaintedRegion } from '../artwork.js';
import type { Noticed, NoticedCode } from '../noticed.js';
import type { Pixels } from '../picture/pixels.js';
import { paintRegions } from '../paint-regions.js';
import { differingPlaces, type Difference, type DifferingPlace } from './differing-places.js';
import type { DrawSvg } from './renderer.js';

/** So fine a drawing is compared: on a decal of 200 mm a pixel is half a millimetre. */
export const LONGEST_PX = 400;
/** So true its curves are to that, px. */
export const FLATTEN_PX = 0.2;

/** What was noticed of a place explains these differences there. */
const EXPLAINED: { readonly [Code in NoticedCode]?: readonly Difference[] } = {
  'blend-ignored': ['colour'],
  'clip-ignored': ['extra', 'colour'],
  'colour-unknown': ['missing', 'colour'],
  'element-ignored': ['missing', 'colour'],
  'filter-ignored': ['missing', 'extra', 'colour'],
  'foreign-left': ['missing', 'colour'],
  'gradient-banded': ['colour'],
  'gradient-flattened': ['missing', 'extra', 'colour'],
  'mask-ignored': ['extra', 'colour'],
  'opacity-flattened': ['extra', 'colour'],
  'open-outline': ['missing'],
  'pattern-flattened': ['missing', 'extra', 'colour'],
  'pattern-left': ['missing', 'colour'],
  'picture-damaged': ['missing', 'colour'],
  'picture-left': ['missing', 'colour'],
  'picture-traced': ['missing', 'extra', 'colour'],
  'shape-cut-short': ['missing', 'extra', 'colour'],
  'shines-left': ['missing', 'colour'],
  'stroke-scaled': ['missing', 'extra', 'colour'],
  'transform-ignored': ['missing', 'extra', 'colour'],
  'use-cycle': ['missing', 'colour'],
  'use-ignored': ['missing', 'colour'],
};

/** An edge may lie a pixel off, on either side. */
const SLACK_PX = 2;

/**
 * Holds what was read of an SVG against a picture of it that a renderer makes, and tells where something drawn has no area, where there is more than was
 * drawn, and where a colour is another: only what nothing that was noticed explains. Letters and what they clip are not compared, since the renderer has no
 * fonts, nor are traced pictures.
 * A drawing that the renderer cannot draw is told as not compared.
 */
export function compareWithDrawing(svg: Uint8Array, artwork: Artwork, draw: DrawSvg): Noticed[] {
  const scale = LONGEST_PX / Math.max(artwork.widthMm, artwork.heightMm);
  const { regions, noticed } = paintRegions({ ...artwork, paints: artwork.paints.filter((paint) => !paint.mayCross && !paint.clips.some(hasLetters)) }, scale, FLATTEN_PX);
  const drawn = isTooMuch(noticed) ? null : drawnOrNull(() => draw(svg, artwork, LONGEST_PX));
  const remade = drawn && drawnOrNull(() => draw(areasSvg(regions, artwork, scale), artwork, LONGEST_PX));
  if (!drawn || !remade || drawn.width !== remade.width || drawn.height !== remade.height) return [{ code: 'not-compared' }];
  const open = differingPlaces(drawn, remade).filter((place) => !isExplained(place, artwork.noticed, scale));
  return (['missing', 'extra', 'colour'] as const).flatMap((difference): Noticed[] => {
    const boxes = open.filter((place) => place.difference === difference).map(({ box }) => transformBox(box, scaling(1 / scale)));
    return boxes.length > 0 ? [{ code: 'not-as-drawn', difference, ...atPlaces(boxes) }] : [];
  });
}

/** What takes the kernel minutes takes the renderer minutes, and nothing can stop it. */
export function isTooMuch(noticed: readonly Noticed[]): boolean {
  return noticed.some(({ code }) => code === 'too-tangled' || code === 'too-many-points' || code === 'too-many-colours');
}

/** The renderer refuses some drawings that are read, and gives up on others without saying why. */
export function drawnOrNull(drawing: () => Pixels): Pixels | null {
  try {
    return drawing();
  } catch {
    return null;
  }
}

/** Whether something that was noticed says why a place differs; `scale` is how many pixels a millimetre has. */
export function isExplained({ difference, box }: DifferingPlace, noticed: readonly Noticed[], scale: number): boolean {
  return noticed.some((one) => EXPLAINED[one.code]?.includes(difference) && (one.places ?? (one.where ? [one.where] : [])).some((place) => holds(transformBox(place, scaling(scale)), box)));
}

function holds(outer: Box, box: Box): boolean {
  return outer.minX - SLACK_PX <= box.minX && outer.maxX + SLACK_PX >= box.maxX && outer.minY - SLACK_PX <= box.minY && outer.maxY + SLACK_PX >= box.maxY;
}

/** Painted areas as a drawing of its own in pixels. */
function areasSvg(regions: readonly PaintedRegion[], artwork: Artwork, scale: number): string {
  const paths = regions.map(({ colour, rings }) => `<path fill="${colour}" fill-rule="evenodd" d="${ringsToPathData(rings, 1)}"/>`);
  const [width, height] = [artwork.widthMm * scale, artwork.heightMm * scale];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${paths.join('')}</svg>`;
}

function hasLetters({ outlines, clips }: Clip): boolean {
  return outlines.some((outline) => outline.isLetter || outline.clips.some(hasLetters)) || clips.some(hasLetters);
}
