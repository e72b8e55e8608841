import type { Shop } from '../shop/index.js';
import {
  itemsOf,
  laySheets,
  shopFor,
  type JobToLay,
  type LaidSheets,
  type LaySheetsHooks,
  type LayWish,
} from '../stations/sheets/index.js';

/** A job of a batch: its prepared layers, how often they are cut, and the day it is due; null for none. */
export interface BatchJob extends JobToLay {
  readonly due: string | null;
}

/** The layers of several jobs on the pieces of the shop, everything of one film together. */
export function planBatch(
  jobs: readonly BatchJob[],
  shop: Shop,
  wish: LayWish,
  hooks: LaySheetsHooks = {},
): Promise<LaidSheets> {
  const usable = shopFor(shop, wish);
  return laySheets(
    jobs.flatMap((job, j) => itemsOf(job, j, usable, wish)),
    usable,
    wish,
    jobs.map(({ due }) => due),
    hooks,
  );
}
