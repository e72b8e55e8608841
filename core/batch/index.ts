/*
 * Several jobs' prepared layers on the sheets of the shop: which pieces, what lies where, in how many passes.
 */
export { BATCH_WISH_SCHEMA } from './batch-wish-schema.js';
export {
  batchView,
  betterView,
  type BatchSheetView,
  type BetterView,
  type BatchView,
  type CopiesOnSheet,
  type LaidCopy,
} from './batch-view.js';
export { placeByHand, withPin, type HandMove } from './place-by-hand.js';
export type { Batch } from './batch.js';
export type { ShortageView } from './say.js';
export { freezeSheet, type SheetMade } from './freeze-sheet.js';
export { prepareJobs, type JobToPrepare, type PreparedJob, type StoppedJob } from './prepare-jobs.js';
export { PREPARING_SHARE } from './before-laying.js';
