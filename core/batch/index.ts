/*
 * Several jobs' prepared layers on the sheets of the shop: which pieces, what lies where, in how many passes.
 */
export { BATCH_WISH_SCHEMA } from './batch.js';
export {
  batchView,
  betterView,
  type BatchSheetView,
  type BetterView,
  type BatchView,
  type CopiesOnSheet,
  type LaidCopy,
  type NamedBatchJob,
  type ShortageView,
  type StoppedJob,
} from './batch-view.js';
export { placeByHand, withPin, type HandMove } from './place-by-hand.js';
export type { Batch } from './kept-batch.js';
export { batchSheetToFreeze, type BatchSheetToFreeze } from './freeze-batch-sheet.js';
export { PREPARING_SHARE, stopsBatch } from './before-laying.js';
export { planBatch, type BatchJob } from './plan-batch.js';
