import { resourcesInNode } from '../../platform/artwork-resources.js';
import { prepareJobs, type PreparedJob } from '../batch/index.js';
import { Planner } from '../plan/planner.js';
import { emptyRecipe, parseRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { BENCH_SHOP } from './bench-shop.js';

/** A drawing in mm. */
export const svg = (w: number, h: number, inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">${inner}</svg>`;

let made = 0;

/** A drawing as a job that is prepared for a batch in the bench's shop, as large as it is drawn. */
export async function batchJob(
  drawing: string,
  copies: number,
  due: string | null = null,
  patch: RecipePatch = {},
): Promise<PreparedJob> {
  const recipe = parseRecipe(
    patchRecipe(
      patchRecipe(emptyRecipe('Job'), {
        artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
        surface: { size: { mode: 'own' } },
      }),
      patch,
    ),
  );
  const { ready } = await prepareJobs(new Planner(resourcesInNode), [
    {
      id: `job-${(made += 1)}`,
      recipe,
      shop: BENCH_SHOP,
      sources: new Map([['a', new TextEncoder().encode(drawing)]]),
    },
  ]);
  return { ...ready[0]!, copies, due };
}
