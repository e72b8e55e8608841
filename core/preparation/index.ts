/*
 * What is added to every layer so that it can be weeded and laid true: registration marks, the weeding border, the weed map.
 */
export { layOutMarks, type Mark, type MarkLayout } from './marks.js';
export { weedingBorder } from './border.js';
export { weedMap, type WeedMap, type WeedSpot } from './weed-map.js';
