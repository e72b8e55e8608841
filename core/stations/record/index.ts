/*
 * What the record says of a job: how far it is cut, and how much of that was judged.
 */
export { countCuts, type CutCounts } from './counts.js';
