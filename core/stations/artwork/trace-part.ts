import type { ArtworkReader } from '../../engines/artwork/index.js';
import type { Stage } from '../stage.js';
import type { PicturePart } from './artwork-part.js';
import type { ReadPart } from './read-part.js';
import { noticedInWords } from './said-late.js';

export interface TracePartContext {
  readonly part: PicturePart;
  readonly read: ReadPart;
  /** Times the design's own size. */
  readonly scale: number;
}

interface TracePartRead {
  readonly picture: ReadPart;
  readonly speckMm: number;
}

/** Follows the outlines of a picture at the size it will be made: what counts as a speck depends on it. A picture that could not be read stays as it is. */
export function tracePartStage(reader: ArtworkReader): Stage<TracePartContext, TracePartRead, ReadPart> {
  return {
    name: 'traced',
    // To a hundredth of a millimetre: a size that a hand moves does not trace anew for less.
    read: ({ part, read, scale }) => ({
      picture: read,
      speckMm: Math.round((part.tracing.speckMm / (part.place.scale * scale)) * 100) / 100,
    }),
    async run({ picture, speckMm }, hooks) {
      if (!picture.reduced) return picture;
      const artwork = await reader.traced(picture.reduced, speckMm, hooks);
      return { artwork, reduced: picture.reduced, findings: await noticedInWords(artwork.noticed, { fonts: {} }) };
    },
  };
}
