import type { Artwork } from './artwork.js';
import { looksLikeDxf } from './dxf/tags.js';
import { readDxf } from './dxf/read-dxf.js';
import { NOTHING_GIVEN, type ReadGiven } from './read-given.js';
import { readSvg } from './svg/read-svg.js';

/**
 * Reads a maker's file, whatever it is called: by its content it is a DXF, or else it is taken for an SVG.
 * @throws InputError when it cannot be read
 */
export function readArtwork(bytes: Uint8Array, source: string, given: ReadGiven = NOTHING_GIVEN): Artwork {
  return looksLikeDxf(bytes) || /\.dxf$/i.test(source) ? readDxf(bytes, source, given.repair.joinEndsMm) : readSvg(bytes, source, given);
}
