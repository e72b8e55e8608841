import { MOST_BANDS } from '../../engines/artwork/index.js';
import { PLACE_REMEDIES } from '../../words/index.js';
import { colour, coordinate, few, mm, object, orNull, text } from '../../words/schema.js';
import type { Patch, Slice } from '../slice.js';
import { AT_ORIGIN, type ArtworkPart } from './artwork-part.js';
import { NO_REPAIR, type Repair } from './repair.js';

export interface ArtworkDecisions {
  /** What stands on the design, the lowest first. */
  readonly artworks: readonly ArtworkPart[];
  readonly repair: Repair;
}

export type ArtworkPatch = Patch<ArtworkDecisions>;

const source = object({ id: text, fileName: text, sha256: { type: 'string', pattern: '^[0-9a-f]{64}$' } });
export const PLACEMENT_SCHEMA = object({
  xMm: coordinate,
  yMm: coordinate,
  scale: { type: 'number', minimum: 0.0001, maximum: 10_000 },
  turnDeg: { type: 'number', minimum: -360, maximum: 360 },
  mirrored: { type: 'boolean' },
});
const tracing = object({
  colours: orNull({ type: 'integer', minimum: 1, maximum: 12 }),
  background: { enum: ['everywhere', 'around', 'keep'] },
  speckMm: few,
});
const lettering = object({
  text: { type: 'string', minLength: 1, maxLength: 500 },
  font: text,
  capHeightMm: { type: 'number', minimum: 1, maximum: 5000 },
  trackingPct: { type: 'number', minimum: -50, maximum: 500 },
  lineSpacing: { type: 'number', minimum: 0.5, maximum: 10 },
  align: { enum: ['left', 'centre', 'right'] },
  arc: orNull(object({ radiusMm: { type: 'number', minimum: 1, maximum: 100_000 }, bend: { enum: ['up', 'down'] } })),
  kerning: { type: 'boolean' },
  ligatures: { type: 'boolean' },
  joinWords: { type: 'boolean' },
  colourBy: { enum: ['all', 'line', 'word', 'letter', 'band'] },
  colours: { type: 'array', items: colour, minItems: 1, maxItems: 24 },
  share: {
    anyOf: [
      object({ kind: { enum: ['turn', 'runs'] } }),
      object({ kind: { const: 'fade' }, steps: { type: 'integer', minimum: 2, maximum: 12 } }),
    ],
  },
  bands: object({
    heights: { type: 'array', items: { type: 'number', minimum: 0.02, maximum: 0.98 }, maxItems: MOST_BANDS - 1 },
    along: { enum: ['line', 'letter'] },
  }),
  alternates: {
    type: 'object',
    propertyNames: { pattern: '^\\d{1,3}$' },
    additionalProperties: { type: 'string', pattern: '^[a-z0-9]{4}$' },
  },
});
const group = orNull(text);
const recolour = {
  type: 'object',
  propertyNames: { pattern: colour.pattern },
  additionalProperties: colour,
  required: [],
  maxProperties: 64,
};
const part = {
  anyOf: [
    object({
      kind: { const: 'drawing' },
      id: text,
      group,
      source,
      recolour,
      page: { type: 'integer', minimum: 1, maximum: 10_000 },
      place: PLACEMENT_SCHEMA,
    }),
    object({ kind: { const: 'picture' }, id: text, group, source, recolour, tracing, place: PLACEMENT_SCHEMA }),
    object({
      kind: { const: 'lettering' },
      id: text,
      group,
      lettering,
      fontSource: orNull(source),
      place: PLACEMENT_SCHEMA,
    }),
  ],
};
const where = { part: text, xMm: coordinate, yMm: coordinate, acrossMm: mm };
const placeLists = (item: object) => ({
  type: 'object',
  additionalProperties: false,
  properties: Object.fromEntries(PLACE_REMEDIES.map((kind) => [kind, { type: 'array', maxItems: 2000, items: item }])),
});
const reasons = { type: 'object', maxProperties: 64, additionalProperties: text };

export const artworkSlice: Slice<ArtworkDecisions> = {
  schema: {
    artworks: { type: 'array', maxItems: 200, items: part },
    repair: object({
      recolour: {
        type: 'object',
        propertyNames: { pattern: colour.pattern },
        additionalProperties: colour,
        required: [],
      },
      noFilm: { type: 'array', items: colour, maxItems: 64, uniqueItems: true },
      tidy: { type: 'boolean' },
      speckMm2: few,
      thickenMm: few,
      closeGapsMm: few,
      simplifyMm: { type: 'number', minimum: 0, maximum: 1 },
      hairlines: { enum: ['keep', 'drop', 'fill'] },
      fillCrossings: { type: 'boolean' },
      joinEndsMm: few,
      gradientBands: { type: 'integer', minimum: 1, maximum: 24 },
      shines: { enum: ['drop', 'keep'] },
      blurs: { enum: ['drop', 'keep'] },
      beyondArtboard: { enum: ['cut', 'take'] },
      patterns: { enum: ['drop', 'flat'] },
      pictures: { enum: ['drop', 'trace'] },
      fonts: reasons,
      only: placeLists(object(where)),
      spared: placeLists(object({ ...where, reason: text })),
      letBe: reasons,
    }),
  },
  beginning: { artworks: [], repair: NO_REPAIR },
  upgrades: {
    // Version 1 knew no remedies.
    1: () => ({
      repair: {
        recolour: {},
        noFilm: [],
        tidy: false,
        speckMm2: 0,
        thickenMm: 0,
        closeGapsMm: 0,
        simplifyMm: 0,
        letBe: [],
      },
    }),
    // Version 2 had one drawing, at the origin, and let findings be without a reason.
    2: ({ artworks, repair }) => ({
      ...(Array.isArray(artworks)
        ? {
            artworks: artworks.map((file: { readonly id?: unknown } | null) => ({
              kind: 'drawing',
              id: file?.id,
              source: file,
              place: AT_ORIGIN,
            })),
          }
        : {}),
      ...(isRepairOfVersion2(repair)
        ? {
            repair: {
              hairlines: 'keep',
              fillCrossings: false,
              joinEndsMm: 0,
              gradientBands: 1,
              patterns: 'drop',
              pictures: 'drop',
              fonts: {},
              only: {},
              spared: {},
              ...repair,
              letBe: Object.fromEntries(repair.letBe.map((code) => [String(code), ''])),
            },
          }
        : {}),
    }),
    // Version 3 cut shines and shadows as solid film.
    3: ({ repair }) =>
      typeof repair === 'object' && repair !== null
        ? { repair: { ...repair, shines: 'keep', beyondArtboard: 'cut' } }
        : {},
    // Version 5 knew no bands, letters took their colours in turn, and words stayed as they were set.
    5: ({ artworks }) => (Array.isArray(artworks) ? { artworks: artworks.map(withPlainLetters) } : {}),
    // Version 6 knew no groups, one page a file, and cut what is blurred as if it were sharp.
    6: ({ artworks, repair }) => ({
      ...(Array.isArray(artworks)
        ? {
            artworks: artworks.map((one: unknown) =>
              isPart(one)
                ? {
                    group: null,
                    ...(one.kind === 'lettering' ? {} : { recolour: {} }),
                    ...(one.kind === 'drawing' ? { page: 1 } : {}),
                    ...one,
                  }
                : one,
            ),
          }
        : {}),
      ...(typeof repair === 'object' && repair !== null ? { repair: { ...repair, blurs: 'keep' } } : {}),
    }),
  },
};

function isPart(part: unknown): part is { readonly kind: unknown } {
  return typeof part === 'object' && part !== null && 'kind' in part;
}

function withPlainLetters(part: unknown): unknown {
  if (typeof part !== 'object' || part === null || !('lettering' in part) || typeof part.lettering !== 'object')
    return part;
  return {
    ...part,
    lettering: { ...part.lettering, joinWords: false, share: { kind: 'turn' }, bands: { heights: [], along: 'line' } },
  };
}

function isRepairOfVersion2(repair: unknown): repair is { readonly letBe: readonly unknown[] } {
  return typeof repair === 'object' && repair !== null && 'letBe' in repair && Array.isArray(repair.letBe);
}
