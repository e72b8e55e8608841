import { boundsOf, boxRing, joinBoxes, widenBox, type Box, type Ring } from '../../geometry/index.js';
import type { Mark } from '../marks/index.js';

/** The weeding border: a box round the artwork and its marks, `gapMm` clear of both; the waste between comes off in one pull. */
export function weedingBorder(artwork: Box, marks: readonly Mark[], gapMm: number): Ring {
  return boxRing(widenBox(joinBoxes(artwork, boundsOf(marks.map((mark) => mark.ring)))!, gapMm));
}
