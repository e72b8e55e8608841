/*
 * A maker's file becomes painted areas in z-order. Reading gives curves at the artwork's own size; only when the size of the
 * job is known are they flattened, since a tolerance means nothing before that.
 */
export type { Artwork, Clip, Paint, PaintedRegion } from './artwork.js';
export { splitCutLines } from './cut-lines.js';
export { colourDifference, parseColour } from './colour.js';
export { paintRegions } from './paint-regions.js';
export { readArtwork } from './read-artwork.js';
export { readSvg } from './svg/read-svg.js';
