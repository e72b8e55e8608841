/*
 * A maker's file becomes painted areas in z-order. Reading gives curves at the artwork's own size; only when the size of the
 * job is known are they flattened, since a tolerance means nothing before that. What is noticed, and why a file is refused, comes as
 * codes with figures: the words are another room's.
 */
export type { Artwork, Clip, Paint, PaintedRegion } from './artwork.js';
export { splitCutLines } from './cut-lines.js';
export { colourDifference, colourLightness, parseColour } from './colour.js';
export { colourName } from './colour-name.js';
export { bandHeights, coloursOf, MOST_BANDS } from './lettering/letter-colours.js';
export type { Lettering } from './lettering/lettering.js';
export type { LetterChoice } from './lettering/set-lettering.js';
export { scriptsIn, setsScriptsOf } from './lettering/scripts.js';
export { shippedFont, SHIPPED_FONTS, type OtherScript, type ShippedFont } from './lettering/shipped-fonts.js';
export type { Noticed, NoticedCode, NoticedOf } from './noticed.js';
export {
  flattenTolerance,
  NOTHING_PUT_RIGHT,
  paintPlaced,
  paintRegions,
  type PaintPlace,
  type PaintRepair,
} from './paint-regions.js';
export { paintedBox } from './painted-box.js';
export type { UnpackerOf } from './picture/decode-picture.js';
export { pictureKind, type PictureKind } from './picture/pixels.js';
export type { ReducedPicture } from './picture/trace-picture.js';
export type { TraceHooks, TraceStep, Tracing } from './picture/tracing.js';
export { ArtworkReader, type ArtworkResources } from './read-part.js';
export { readArtwork, readSvg } from './read-artwork.js';
export { READ_AS_IT_IS, type ReadRepair } from './read-given.js';
export { Refusal, type RefusalCode, type RefusalFigures } from './refusal.js';
