import type { Artwork } from './artwork.js';
import { isDxf } from './dxf/is-dxf.js';
import { readDxf } from './dxf/read-dxf.js';
import { READ_AS_IT_IS, type ReadGiven } from './read-given.js';
import { cssReader } from './svg/css.js';
import { readSvg as readSvgWith } from './svg/read-svg.js';
import * as text from './svg/text.js';

/** For a drawing that is read by itself. */
const NOTHING_GIVEN: ReadGiven = {
  repair: READ_AS_IT_IS,
  css: cssReader,
  text,
  hasFont: () => false,
  fontOf: () => null,
  typesetter: null,
  pictureOf: () => null,
};

/** An SVG by itself, without fonts for its text or pictures. @throws Refusal when it cannot be read */
export function readSvg(bytes: Uint8Array, source: string): Artwork {
  return readSvgWith(bytes, source, NOTHING_GIVEN);
}

/**
 * Reads a maker's file by itself, whatever it is called: by its content it is a DXF, or else it is taken for an SVG.
 * @throws Refusal when it cannot be read
 */
export function readArtwork(bytes: Uint8Array, source: string): Artwork {
  return isDxf(bytes, source) ? readDxf(bytes, source) : readSvg(bytes, source);
}
