import { scaling, transformBox, type Box } from '../../../geometry/index.js';
import { atPlaces } from '../../../words/index.js';
import type { Artwork, PaintedRegion } from '../artwork.js';
import type { Noticed, NoticedCode } from '../noticed.js';
import { paintRegions } from '../paint-regions.js';
import type { Pixels } from '../picture/pixels.js';
import { differingPlaces, type Difference, type DifferingPlace } from './differing-places.js';
import type { DrawSvg } from './renderer.js';

/** So fine a drawing is compared: on a decal of 200 mm a pixel is half a millimetre. */
const LONGEST_PX = 400;
/** So true its curves are to that, px. */
export const FLATTEN_PX = 0.2;

/** What was noticed of a place explains these differences there. */
const EXPLAINED: { readonly [Code in NoticedCode]?: readonly Difference[] } = {
  'blend-ignored': ['colour'],
  'clip-ignored': ['extra', 'colour'],
  'colour-unknown': ['missing', 'colour'],
  'element-ignored': ['missing', 'colour'],
  'filter-ignored': ['missing', 'extra', 'colour'],
  'blur-left': ['missing', 'colour'],
  blurred: ['missing', 'extra', 'colour'],
  'shadow-left': ['missing', 'colour'],
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

/** What two pictures of an artwork are drawn of: SVG files, or elements in pixels. */
interface TwoPictures {
  /** `scale` is how many pixels a millimetre has. */
  readonly drawn: (scale: number) => Uint8Array | string;
  readonly remade: (regions: readonly PaintedRegion[]) => string;
}

/** Where two pictures of an artwork differ, mm, as far as nothing that was noticed explains it; null when they cannot be drawn. */
export function comparePictures(artwork: Artwork, draw: DrawSvg, pictures: TwoPictures): DifferingPlace[] | null {
  const scale = LONGEST_PX / Math.max(artwork.widthMm, artwork.heightMm);
  const { regions, noticed } = paintRegions(artwork, scale, FLATTEN_PX);
  // What takes the kernel minutes takes the renderer minutes, and nothing can stop it.
  if (noticed.some(({ code }) => code === 'too-tangled' || code === 'too-many-points' || code === 'too-many-colours'))
    return null;
  const [width, height] = [artwork.widthMm * scale, artwork.heightMm * scale];
  const picture = (content: Uint8Array | string) =>
    drawnOrNull(() =>
      draw(
        typeof content === 'string'
          ? `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${content}</svg>`
          : content,
        artwork,
        LONGEST_PX,
      ),
    );
  const drawn = picture(pictures.drawn(scale));
  const remade = drawn && picture(pictures.remade(regions));
  if (!drawn || !remade || drawn.width !== remade.width || drawn.height !== remade.height) return null;
  const open = differingPlaces(drawn, remade).filter((place) => !isExplained(place, artwork.noticed, scale));
  return open.map(({ difference, box }) => ({ difference, box: transformBox(box, scaling(1 / scale)) }));
}

/** What is noticed of the places that differ in one way. */
export function notAsDrawn(open: readonly DifferingPlace[], difference: Difference): Noticed[] {
  const boxes = open.filter((place) => place.difference === difference).map(({ box }) => box);
  return boxes.length > 0 ? [{ code: 'not-as-drawn', difference, ...atPlaces(boxes) }] : [];
}

/** The renderer refuses some drawings that are read, and gives up on others without saying why. */
function drawnOrNull(drawing: () => Pixels): Pixels | null {
  try {
    return drawing();
  } catch {
    return null;
  }
}

/** Whether something that was noticed says why a place differs; `scale` is how many pixels a millimetre has. */
export function isExplained({ difference, box }: DifferingPlace, noticed: readonly Noticed[], scale: number): boolean {
  return noticed.some(
    (one) =>
      EXPLAINED[one.code]?.includes(difference) &&
      (one.places ?? (one.where ? [one.where] : [])).some((place) => holds(transformBox(place, scaling(scale)), box)),
  );
}

function holds(outer: Box, box: Box): boolean {
  return (
    outer.minX - SLACK_PX <= box.minX &&
    outer.maxX + SLACK_PX >= box.maxX &&
    outer.minY - SLACK_PX <= box.minY &&
    outer.maxY + SLACK_PX >= box.maxY
  );
}
