/*
 * Several jobs' prepared layers on the sheets of the shop: which pieces, what lies where, in how many passes.
 */
export { BATCH_ORDERS, type BatchGroup, type BatchOrder, type BatchOut, type BatchSheet, type BatchWish, type BatchZone, type Leftover, type Unplaced } from './batch.js';
export { planBatch, type BatchJob } from './plan-batch.js';
