import type { Box } from '../../geometry/index.js';
import { layOutMarks, type MarkLayout } from '../../preparation/index.js';
import type { Recipe } from '../recipe.js';

/** Clear film between the artwork and a mark, as a multiple of the mark's size. */
const MARK_GAP_SHARE = 0.5;

/** How far a job's marks stay clear of the artwork, mm. */
export function markGapMm({ markSizeMm }: Recipe['preparation']): number {
  return markSizeMm * MARK_GAP_SHARE;
}

/** Where a job's marks stand round its artwork, whether or not it has any. */
export function marksOf(art: Box, preparation: Recipe['preparation']): MarkLayout {
  return layOutMarks(art, preparation.markSizeMm, markGapMm(preparation), preparation.markDistanceMm);
}
