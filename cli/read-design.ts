import { basename } from 'node:path';
import {
  ArtworkReader,
  flattenTolerance,
  NOTHING_PUT_RIGHT,
  paintedBox,
  paintPlaced,
  pictureKind,
  type Artwork,
  type Noticed,
  type PaintedRegion,
} from '../core/engines/artwork/index.js';
import { compose, IDENTITY, longestSide, scaling, translation } from '../core/geometry/index.js';
import { DEFAULT_TRACING, inWords, NO_REPAIR, NOTHING_PAINTED } from '../core/stations/artwork/index.js';
import { EVERYWHERE, InputError } from '../core/words/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { readInput } from './input.js';

/** A drawing as it is, or a picture traced as the app sees fit, specks measured at its own size. @throws InputError when it cannot be read */
export async function readAnyArtwork(file: string): Promise<Artwork> {
  const reader = new ArtworkReader(resourcesInNode);
  const bytes = await readInput(file);
  const source = basename(file);
  return inWords(async () =>
    pictureKind(bytes)
      ? reader.traced(await reader.picture(bytes, source, DEFAULT_TRACING), DEFAULT_TRACING.speckMm)
      : reader.drawing(bytes, source, NO_REPAIR),
  );
}

/** A design at its final size: its upper left corner is that of what is cut, at 0, 0. */
export interface DesignAtSize {
  readonly artwork: Artwork;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly regions: readonly PaintedRegion[];
  readonly noticed: readonly Noticed[];
}

/** A box is found to this share of its longer side. */
const TRUE_SHARE = 1e-6;

/**
 * A file as a design so wide: the width is that of what is cut, whatever paper it is drawn on. Curves are true to a share of the tolerance of cutting, for what
 * is made of them next. @throws InputError when it cannot be read, or paints nothing
 */
export async function readDesign(file: string, widthMm: number, truer = 1): Promise<DesignAtSize> {
  const artwork = await readAnyArtwork(file);
  const how = { repair: NOTHING_PUT_RIGHT, rules: EVERYWHERE };
  const box = paintedBox(
    artwork,
    { ...how, matrix: IDENTITY, toleranceMm: Math.max(artwork.widthMm, artwork.heightMm) * TRUE_SHARE },
    null,
  );
  if (!box || box.maxX - box.minX <= 0)
    throw new InputError(NOTHING_PAINTED.code, NOTHING_PAINTED.message, { source: basename(file) });
  const scale = widthMm / (box.maxX - box.minX);
  const matrix = compose(scaling(scale), translation(-box.minX, -box.minY));
  const { regions, noticed } = paintPlaced(artwork, {
    ...how,
    matrix,
    toleranceMm: flattenTolerance(longestSide(box) * scale) * truer,
  });
  return { artwork, widthMm, heightMm: (box.maxY - box.minY) * scale, regions, noticed };
}
