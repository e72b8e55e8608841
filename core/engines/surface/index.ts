/*
 * Surfaces and what they leave for a design. Each kind has its geometry in a file of its own, behind one small interface.
 */
export type { Panel } from './panel.js';
export { placeOn, widestOn, type Surface } from './surface.js';
export type { PlacedDesign, Placing, Size, SizeWish } from './surface-kind.js';
