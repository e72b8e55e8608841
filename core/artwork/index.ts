/*
 * A maker's file becomes painted areas in z-order. Reading gives curves at the artwork's own size; only when the size of the
 * job is known are they flattened, since a tolerance means nothing before that.
 */
export type { Artwork, Clip, Paint, PaintedRegion } from './artwork.js';
export { splitCutLines } from './cut-lines.js';
export { colourDifference, colourLightness, parseColour } from './colour.js';
export { flattenTolerance, paintPlaced, paintRegions, type PaintPlace } from './paint-regions.js';
export { ArtworkReader, type ArtworkResources } from './read-part.js';
export { readArtwork, readSvg } from './read-artwork.js';
export type { LetterChoice } from './lettering/set-lettering.js';
export { SHIPPED_FONTS, type ShippedFont } from './lettering/shipped-fonts.js';
export type { UnpackerOf } from './picture/decode-picture.js';
export { pictureKind, type PictureKind } from './picture/pixels.js';
export type { ReducedPicture, TraceHooks } from './picture/trace-picture.js';
