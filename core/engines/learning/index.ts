/*
 * What a shop's own log teaches: figures that began as trade practice come to be the shop's.
 */
export { learnSpares, SPARES, type SparesOfKinds, type SpoiledRun } from './spares.js';
export { learnWeeding, type LoggedWeeding } from './weeding.js';
