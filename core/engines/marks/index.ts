/*
 * Registration marks: cut into every layer at the same place, and lifted at the end.
 */
export { layOutMarks, markGapMm, type Mark, type MarkLayout, type MarkWish } from './marks.js';
