import { createHash } from 'node:crypto';
import { emptyRecipe } from '../../core/recipe/index.js';
import { drawingPart } from '../../core/stations/artwork/index.js';
import { NOTHING_CUT } from '../../core/stations/record/index.js';
import type { PlanJob } from './tasks.js';

const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40">
  <rect width="60" height="40" fill="#20252b"/><path d="M10 10h20v20h-20z M15 15h10v10h-10z" fill="#f7f5ef"/></svg>`;

/** A small job of two films that runs through every stage. */
export function sampleJob(shop: PlanJob['shop']): PlanJob {
  const bytes = new TextEncoder().encode(DRAWING);
  const sha256 = createHash('sha256').update(bytes).digest('hex');
  const part = drawingPart({ id: 'sample', fileName: 'sample.svg', sha256 });
  return {
    recipe: { ...emptyRecipe('Sample'), artworks: [part] },
    shop,
    sources: new Map([['sample', bytes]]),
    taken: {},
    lies: {},
    weeding: undefined,
    recorded: NOTHING_CUT,
  };
}
