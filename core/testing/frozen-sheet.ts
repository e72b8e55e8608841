import { freezeSheet, type PreparedJob, type SheetMade } from '../batch/index.js';
import { builtWithOf, type Plan } from '../plan/index.js';
import { emptyRecipe } from '../recipe/index.js';
import { BENCH_SHOP } from './bench-shop.js';

/** A sheet of a job's plan as it is kept when it is sent to the bench's cutter. @throws InputError as freezeSheet() does */
export function frozenSheet(
  { prepare, sheets }: Pick<Plan, 'prepare' | 'sheets'>,
  sheetId: string,
): SheetMade['sheet'] {
  const taken: Record<string, number> = {};
  for (const layer of sheets!.toCut) taken[layer.fingerprint] = (taken[layer.fingerprint] ?? 0) + layer.taken;
  const recipe = emptyRecipe('Job');
  const job: PreparedJob = {
    id: 'job',
    title: recipe.title,
    prepare: prepare!,
    isInside: false,
    copies: 1,
    taken,
    lies: {},
    due: null,
    builtWithNow: builtWithOf({}, { recipe, shop: BENCH_SHOP }),
    frameHeightMm: 0,
  };
  return freezeSheet({ sheets: sheets!.sheets, short: [], missingFoil: [] }, sheetId, {
    jobs: [job],
    stopped: [],
    cutter: BENCH_SHOP.cutter,
    isAlone: true,
  }).sheet;
}
