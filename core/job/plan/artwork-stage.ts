import type { Artwork, ArtworkReader, ReducedPicture, TraceHooks } from '../../artwork/index.js';
import { compose, joinBoxes, scaling, translation, type Box, type Matrix } from '../../geometry/index.js';
import { placedBox, placementMatrix } from '../arrangement.js';
import { nameOfPart, sourcesOf, type ArtworkPart, type PicturePart } from '../artwork-part.js';
import type { Finding } from '../finding.js';
import { InputError } from '../input-error.js';
import type { Recipe } from '../recipe.js';
import type { Ruling } from '../ruling.js';

import { keyOf, type StageCache } from './stage-cache.js';

/** A part of the design as read, before it is placed. */
export interface ReadPart {
  readonly part: ArtworkPart;
  readonly key: string;
  readonly artwork: Artwork;
  /** Of a picture: what its outlines are followed on, once its size is known. */
  readonly reduced: ReducedPicture | null;
  readonly findings: readonly Finding[];
}

/** All parts arranged: each with its place on the design before the surface sizes it. */
export interface Arrangement {
  readonly parts: readonly ReadPart[];
  /** Round everything, mm. */
  readonly frame: Box;
  readonly widthMm: number;
  readonly heightMm: number;
}

const UNREADABLE: Artwork = { widthMm: 1, heightMm: 1, paints: [], findings: [] };

/** Reads every part whose file, decisions or remedies have changed. A part that cannot be read becomes a blocker; the others go on. */
export async function readParts(recipe: Recipe, sources: ReadonlyMap<string, Uint8Array>, reader: ArtworkReader, cache: StageCache, hooks: TraceHooks): Promise<ReadPart[]> {
  const { joinEndsMm, gradientBands, patterns, pictures, fonts } = recipe.repair;
  const repair = { joinEndsMm, gradientBands, patterns, pictures, fonts };
  const parts: ReadPart[] = [];
  for (const part of recipe.artworks) {
    const missing = sourcesOf(part).find((source) => !sources.has(source.id));
    if (missing) {
      parts.push(broken(part, '', { code: 'file-missing', message: `The file ${missing.fileName} is not at hand.` }));
      continue;
    }
    const key = keyOf(sourcesOf(part).map((source) => source.sha256), part.kind === 'drawing' ? repair : part.kind === 'lettering' ? part.lettering : [part.tracing.colours, part.tracing.background]);
    parts.push({
      ...(await cache.takeLater(part.kind === 'picture' ? 'picture' : `part ${part.kind}`, key, async (): Promise<ReadPart> => {
        try {
          const bytes = (index = 0) => sources.get(sourcesOf(part)[index]!.id)!;
          if (part.kind === 'picture') {
            const reduced = await reader.picture(bytes(), part.source.fileName, part.tracing, hooks);
            return { part, key, artwork: { ...UNREADABLE, ...(await reader.pictureSize(reduced)) }, reduced, findings: [] };
          }
          const artwork = part.kind === 'drawing' ? await reader.drawing(bytes(), part.source.fileName, repair) : await reader.lettering(part.lettering, part.fontSource ? bytes() : null);
          return { part, key, artwork, reduced: null, findings: artwork.findings };
        } catch (error) {
          if (!(error instanceof InputError)) throw error;
          return broken(part, key, error);
        }
      })),
      part,
    });
  }
  return parts;
}

function broken(part: ArtworkPart, key: string, { code, message }: { readonly code: string; readonly message: string }): ReadPart {
  return { part, key, artwork: UNREADABLE, reduced: null, findings: [{ code, severity: 'blocker', stage: 'artwork', message }] };
}

export function arranged(parts: readonly ReadPart[]): Arrangement {
  const frame = parts.reduce<Box | null>((box, { part, artwork }) => joinBoxes(box, placedBox(part.place, artwork)), null) ?? { minX: 0, minY: 0, maxX: 1, maxY: 1 };
  return { parts, frame, widthMm: frame.maxX - frame.minX, heightMm: frame.maxY - frame.minY };
}

/** From a part's own mm to the design's at its final size. */
export function partMatrix({ part, artwork }: ReadPart, { frame }: Arrangement, scale: number): Matrix {
  return [translation(-frame.minX, -frame.minY), placementMatrix(part.place, artwork)].reduce(compose, scaling(scale));
}

/** Follows the outlines of pictures at the size they will be made: what counts as a speck depends on it. */
export async function traceParts(parts: readonly ReadPart[], scale: number, reader: ArtworkReader, cache: StageCache, hooks: TraceHooks): Promise<ReadPart[]> {
  const out: ReadPart[] = [];
  for (const read of parts) {
    const { part, reduced } = read;
    if (part.kind !== 'picture' || !reduced) {
      out.push(read);
      continue;
    }
    // To a hundredth of a millimetre: a size that a hand moves does not trace anew for less.
    const speckMm = Math.round((part.tracing.speckMm / (part.place.scale * scale)) * 100) / 100;
    const key = keyOf(read.key, speckMm);
    const artwork = await cache.takeLater('traced', key, () => reader.traced(reduced, speckMm, hooks));
    out.push({ ...read, key, artwork, findings: artwork.findings });
  }
  return out;
}

const OTHERWISE = { everywhere: 'Bare wherever it is', around: 'Bare only round the outside', keep: 'Everything in it is film' } as const;

/** What the app ruled in tracing a picture, with the other ways it could go. */
export function tracingRulings(recipe: Recipe, { part, reduced, artwork }: ReadPart, scale: number): Ruling[] {
  if (part.kind !== 'picture' || !reduced) return [];
  const { tracing } = part;
  const retraced = (change: Partial<PicturePart['tracing']>) => ({ artworks: recipe.artworks.map((other) => (other.id === part.id ? { ...part, tracing: { ...tracing, ...change } } : other)) });
  const name = nameOfPart(part);
  const pixelMm = artwork.widthMm > 0 ? (artwork.widthMm * part.place.scale * scale) / reduced.frame.width : 0;
  const said = { everywhere: 'The colour at its edge is bare surface wherever it is', around: 'The colour at its edge is bare surface where it reaches the edge', keep: 'Everything in it is film' } as const;
  return [
    {
      id: `artwork.trace.colours.${part.id}`,
      stage: 'artwork',
      subject: `Colours of ${name}`,
      sentence: `${name} is traced in {value}${(tracing.colours ?? reduced.inks) === 1 ? ' colour' : ' colours'}.`,
      value: tracing.colours ?? reduced.inks,
      unit: '',
      because: [tracing.colours === null ? 'So many can be told apart where the picture is flat; mixtures along edges do not count.' : 'You chose so many.', `A pixel of it is ${pixelMm.toFixed(2)} mm at this size.`],
      overridden: tracing.colours !== null,
      proposed: reduced.inks,
      alternatives: [...(tracing.colours === null ? [] : [{ label: 'Let the app decide', patch: retraced({ colours: null }) }])],
    },
    {
      id: `artwork.trace.background.${part.id}`,
      stage: 'artwork',
      subject: `Background of ${name}`,
      sentence: '{value}.',
      value: reduced.background === 'none' && tracing.background !== 'keep' ? 'No even colour was found at its edge, so all of it is film' : reduced.background === 'transparent' ? 'What is transparent in it is bare surface' : said[tracing.background],
      unit: '',
      because: reduced.background === 'colour' ? ['Its edge is mostly one colour, as paper is.'] : ['Its edge says so.'],
      alternatives: (['everywhere', 'around', 'keep'] as const).filter((way) => way !== tracing.background && reduced.background !== 'transparent').map((way) => ({ label: OTHERWISE[way], patch: retraced({ background: way }) })),
    },
  ];
}
