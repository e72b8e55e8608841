import type {
  Artwork,
  ArtworkReader,
  Lettering,
  ReadRepair,
  ReducedPicture,
  Tracing,
} from '../../engines/artwork/index.js';
import { InputError, type Finding } from '../../words/index.js';
import type { Stage } from '../stage.js';
import { sourcesOf, type ArtworkPart } from './artwork-part.js';
import type { ArtworkPatch } from './decisions.js';
import type { PartExtents } from './part-extent.js';
import type { Repair } from './repair.js';
import { noticedInWords } from './said-late.js';
import { inWords } from './in-words.js';
import { sayMissingFile } from './say.js';

/** A part of the design as read, before it is placed. */
export interface ReadPart {
  readonly artwork: Artwork;
  /** Of a picture: what its outlines are followed on, once its size is known. */
  readonly reduced: ReducedPicture | null;
  readonly findings: readonly Finding<ArtworkPatch>[];
}

/** A part, what was read of it, and what it takes up. */
export interface PartAsRead {
  readonly part: ArtworkPart;
  readonly read: ReadPart;
  readonly extents: PartExtents;
}

export interface ReadPartContext {
  readonly part: ArtworkPart;
  readonly repair: Repair;
  /** The untouched bytes of each file, by the id of its source. */
  readonly sources: ReadonlyMap<string, Uint8Array>;
}

interface File {
  readonly fileName: string;
  /** Null when it is not at hand. */
  readonly bytes: Uint8Array | null;
}

type ReadPartRead =
  | { readonly kind: 'drawing'; readonly file: File; readonly page: number; readonly repair: ReadRepair }
  | { readonly kind: 'picture'; readonly file: File; readonly tracing: Pick<Tracing, 'colours' | 'background'> }
  | { readonly kind: 'lettering'; readonly lettering: Lettering; readonly font: File | null };

const UNREADABLE: Artwork = { widthMm: 1, heightMm: 1, paints: [], noticed: [] };

/** Reads a part. One that cannot be read becomes a blocker; the others go on. */
export function readPartStage(reader: ArtworkReader): Stage<ReadPartContext, ReadPartRead, ReadPart> {
  return {
    name: 'part',
    read({ part, repair, sources }) {
      const [file = null] = sourcesOf(part).map(({ id, fileName }): File => ({
        fileName,
        bytes: sources.get(id) ?? null,
      }));
      if (part.kind === 'lettering') return { kind: 'lettering', lettering: part.lettering, font: file };
      if (part.kind === 'picture')
        return {
          kind: 'picture',
          file: file!,
          tracing: { colours: part.tracing.colours, background: part.tracing.background },
        };
      const { joinEndsMm, gradientBands, shines, blurs, patterns, pictures, fonts } = repair;
      return {
        kind: 'drawing',
        file: file!,
        page: part.page,
        repair: { joinEndsMm, gradientBands, shines, blurs, patterns, pictures, fonts },
      };
    },
    async run(read, hooks) {
      const file = read.kind === 'lettering' ? read.font : read.file;
      if (file && !file.bytes) return broken(sayMissingFile(file.fileName));
      try {
        return await inWords(async (): Promise<ReadPart> => {
          if (read.kind === 'picture') {
            const reduced = await reader.picture(file!.bytes!, read.file.fileName, read.tracing, hooks);
            return { artwork: { ...UNREADABLE, ...(await reader.pictureSize(reduced)) }, reduced, findings: [] };
          }
          const artwork =
            read.kind === 'drawing'
              ? await reader.drawing(file!.bytes!, read.file.fileName, read.repair, read.page)
              : await reader.lettering(read.lettering, file?.bytes ?? null);
          return {
            artwork,
            reduced: null,
            findings: await noticedInWords(artwork.noticed, {
              fonts: read.kind === 'drawing' ? read.repair.fonts : {},
            }),
          };
        });
      } catch (error) {
        if (!(error instanceof InputError)) throw error;
        return broken(error);
      }
    },
  };
}

function broken({ code, message }: { readonly code: string; readonly message: string }): ReadPart {
  return { artwork: UNREADABLE, reduced: null, findings: [{ code, severity: 'blocker', stage: 'artwork', message }] };
}
