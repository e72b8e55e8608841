/*
 * Several jobs' prepared layers on the sheets of the shop: which pieces, what lies where, in how many passes.
 */
export { BATCH_ORDERS, BATCH_WISH_SCHEMA, NEW_BATCH_WISH, type BatchGroup, type BatchOrder, type BatchPin, type BatchOut, type BatchSheet, type BatchWish, type BatchZone, type Leftover, type Shortage, type Unplaced } from './batch.js';
export { batchView, betterView, type BatchSheetView, type BetterView, type BatchView, type CopiesOnSheet, type LaidCopy, type LeftoverView, type NamedBatchJob, type ShortageView, type StoppedJob } from './batch-view.js';
export { placeByHand, withPin, type HandMove } from './place-by-hand.js';
export type { Batch } from './kept-batch.js';
export { batchProgram, batchSheetToFreeze, type BatchSheetToFreeze } from './freeze-batch-sheet.js';
export { PREPARING_SHARE, stopsBatch } from './before-laying.js';
export { toCutOf, type BatchJob } from './batch-items.js';
export { planBatch, type BatchHooks } from './plan-batch.js';
