/*
 * Rigid groups of regions in, placements on mats, rolls and offcuts out. x right, y up, as the cutter sees the sheet.
 */
export { gangPitch, gangPlaces, type GangWish } from './gang.js';
export { nearestFree, type LaidByHand } from './nearest-free.js';
export { nest, nesterOf } from './nest.js';
export type { NestHooks, NestItem, NestRequest, NestResult, NestSheet, Placement } from './nest-request.js';
export { turned } from './shape.js';
export { nestingFaults, placedRings } from './verify.js';
