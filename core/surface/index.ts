/*
 * The surface that the work goes on, and the size the design gets on it. Sizing comes before any offset is made.
 */
export { fitToPanel, type Panel, type PlacedDesign, type SizeWish } from './panel.js';
