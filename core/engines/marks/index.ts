/*
 * Registration marks: cut into every layer at the same place, and lifted at the end.
 */
export { layOutMarks, markGapMm, type Mark, type MarkLayout, type MarkWish } from './marks.js';
export { placeMarks, type MarksWish, type PlacedMarks } from './place-marks.js';
export { faultsOfMarks, movedMarks } from './moved-marks.js';
export { PLAIN_SHAPES, markRing, type MarkShape, type PlainShape } from './shapes.js';
export { MARK_SCHOOLS, type MarkSchool } from './schools.js';
