/*
 * What helps to pull the waste off: the weeding border, and the map of what comes out.
 */
export { weedingBorder } from './border.js';
export { weedMap, type WeedMap, type WeedSpot } from './weed-map.js';
