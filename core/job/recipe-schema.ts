import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import { AT_ORIGIN } from './artwork-part.js';
import { InputError } from './input-error.js';
import { PLACE_REMEDIES } from './places.js';
import { emptyRecipe, NO_REPAIR, type Recipe } from './recipe.js';

const mm = { type: 'number', minimum: 0, maximum: 100_000 } as const;
const size = { type: 'number', minimum: 1, maximum: 100_000 } as const;
const text = { type: 'string', maxLength: 200 } as const;

function object(properties: Record<string, unknown>) {
  return { type: 'object', additionalProperties: false, required: Object.keys(properties), properties };
}

const colour = { type: 'string', pattern: '^#[0-9a-f]{6}$' } as const;
const colours = { type: 'array', items: colour, minItems: 1, maxItems: 24 } as const;
const source = object({ id: text, fileName: text, sha256: { type: 'string', pattern: '^[0-9a-f]{64}$' } });
const place = object({
  xMm: { type: 'number', minimum: -100_000, maximum: 100_000 },
  yMm: { type: 'number', minimum: -100_000, maximum: 100_000 },
  scale: { type: 'number', minimum: 0.0001, maximum: 10_000 },
  turnDeg: { type: 'number', minimum: -360, maximum: 360 },
  mirrored: { type: 'boolean' },
});
const tracing = object({
  colours: { anyOf: [{ type: 'integer', minimum: 1, maximum: 12 }, { type: 'null' }] },
  background: { enum: ['everywhere', 'around', 'keep'] },
  speckMm: { type: 'number', minimum: 0, maximum: 50 },
});
const lettering = object({
  text: { type: 'string', minLength: 1, maxLength: 500 },
  font: text,
  capHeightMm: { type: 'number', minimum: 1, maximum: 5000 },
  trackingPct: { type: 'number', minimum: -50, maximum: 500 },
  lineSpacing: { type: 'number', minimum: 0.5, maximum: 10 },
  align: { enum: ['left', 'centre', 'right'] },
  arc: { anyOf: [object({ radiusMm: { type: 'number', minimum: 1, maximum: 100_000 }, bend: { enum: ['up', 'down'] } }), { type: 'null' }] },
  kerning: { type: 'boolean' },
  ligatures: { type: 'boolean' },
  colourBy: { enum: ['all', 'line', 'word', 'letter'] },
  colours,
  alternates: { type: 'object', propertyNames: { pattern: '^\\d{1,3}$' }, additionalProperties: { type: 'string', pattern: '^[a-z0-9]{4}$' } },
});
const artwork = {
  anyOf: [
    object({ kind: { const: 'drawing' }, id: text, source, place }),
    object({ kind: { const: 'picture' }, id: text, source, tracing, place }),
    object({ kind: { const: 'lettering' }, id: text, lettering, fontSource: { anyOf: [source, { type: 'null' }] }, place }),
  ],
};
const where = { part: text, xMm: place.properties['xMm'], yMm: place.properties['yMm'], acrossMm: mm };
/** Lists by what a remedy does at a place. */
const placeLists = (item: object) => ({ type: 'object', additionalProperties: false, properties: Object.fromEntries(PLACE_REMEDIES.map((kind) => [kind, { type: 'array', maxItems: 2000, items: item }])) });
const trap = { anyOf: [{ type: 'number', minimum: 0, maximum: 20 }, { type: 'null' }] } as const;
const few = { type: 'number', minimum: 0, maximum: 50 } as const;

/** JSON schema of the recipe, version 3. Unknown fields are refused. */
export const RECIPE_SCHEMA: Readonly<Record<string, unknown>> = {
  $id: 'https://wry-lantern.example/schemas/recipe-3.json',
  title: 'Recipe',
  ...object({
    version: { const: 3 },
    title: { ...text, minLength: 1 },
    customer: text,
    due: { anyOf: [{ type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}$' }, { type: 'null' }] },
    artworks: {
      type: 'array',
      maxItems: 200,
      items: artwork,
    },
    repair: object({
      recolour: { type: 'object', propertyNames: { pattern: colour.pattern }, additionalProperties: colour, required: [] },
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
      patterns: { enum: ['drop', 'flat'] },
      pictures: { enum: ['drop', 'trace'] },
      fonts: { type: 'object', maxProperties: 64, additionalProperties: text },
      only: placeLists(object(where)),
      spared: placeLists(object({ ...where, reason: text })),
      letBe: { type: 'object', maxProperties: 64, additionalProperties: text },
    }),
    films: object({
      byColour: {
        type: 'object',
        propertyNames: { pattern: '^#[0-9a-f]{6}$' },
        additionalProperties: text,
        required: [],
      },
    }),
    surface: object({
      kind: { const: 'panel' },
      widthMm: size,
      heightMm: size,
      marginMm: object({ top: mm, right: mm, bottom: mm, left: mm }),
      size: {
        anyOf: [object({ mode: { enum: ['fit', 'own'] } }), object({ mode: { enum: ['width', 'height'] }, mm: size })],
      },
    }),
    build: object({
      school: { enum: ['overlay', 'inlay', 'trapped'] },
      trapMm: trap,
      placementErrorMm: { type: 'number', minimum: 0, maximum: 5 },
      trapForm: { enum: ['worst', 'statistical'] },
      pairs: { type: 'object', maxProperties: 400, additionalProperties: object({ school: { enum: ['overlay', 'inlay', 'trapped', null] }, trapMm: trap }) },
      outlines: {
        type: 'array',
        maxItems: 6,
        items: object({ id: text, filmId: text, widthMm: { anyOf: [{ type: 'number', minimum: 0.1, maximum: 500 }, { type: 'null' }] }, join: { enum: ['round', 'mitred', 'bevelled'] }, fillBelowMm: { type: 'number', minimum: 0, maximum: 100_000 } }),
      },
      knockOuts: { type: 'array', maxItems: 20, items: object({ shapeFilmId: text, baseFilmId: text, clearanceMm: few }) },
      contour: { anyOf: [object({ filmId: text, side: { enum: ['inside', 'outside'] }, byMm: few }), { type: 'null' }] },
      blockOut: { anyOf: [object({ filmId: text, underFilmId: text, insetMm: few }), { type: 'null' }] },
      order: { type: 'array', items: text, maxItems: 64, uniqueItems: true },
    }),
    preparation: object({
      border: { type: 'boolean' },
      borderGapMm: { anyOf: [{ type: 'number', minimum: 0, maximum: 100 }, { type: 'null' }] },
      marks: { type: 'boolean' },
      markSizeMm: { type: 'number', minimum: 2, maximum: 50 },
      markDistanceMm: { anyOf: [size, { type: 'null' }] },
    }),
    sheets: object({
      copies: { type: 'integer', minimum: 1, maximum: 500 },
      spacingMm: { type: 'number', minimum: 0, maximum: 100 },
    }),
    assembly: object({ way: { enum: ['surface', 'tape'] } }),
  }),
};

let compiled: ValidateFunction<Recipe> | null = null;

/** Compiled when first needed: compiling writes code, which a page's security policy refuses, and pages never parse recipes. */
function validator(): ValidateFunction<Recipe> {
  return (compiled ??= new Ajv({ allErrors: true, strict: false }).compile<Recipe>(RECIPE_SCHEMA));
}

/**
 * Reads a recipe of any known version from parsed JSON and returns it in the newest one.
 * @throws InputError (code `recipe-invalid`, path of the first wrong field) when it is not a recipe
 */
export function parseRecipe(stored: unknown, source = 'recipe'): Recipe {
  const json = migrated(stored);
  const validate = validator();
  if (!validate(json)) {
    const { path, reason } = describeSchemaError(validate.errors ?? []);
    throw new InputError('recipe-invalid', `${path} ${reason}.`, { source, path });
  }
  return json;
}

interface OldRecipe {
  readonly version?: unknown;
  readonly artworks?: readonly { readonly id: string; readonly fileName: string; readonly sha256: string }[];
  readonly repair?: { readonly letBe?: readonly string[] };
  readonly build?: object;
  readonly preparation?: object;
}

/** A recipe of an older version in the newest shape; what is no recipe comes back as it is, for the schema to refuse. */
function migrated(json: unknown): unknown {
  if (typeof json !== 'object' || json === null) return json;
  const old = json as OldRecipe;
  // Version 1 knew no remedies.
  if (old.version === 1) return migrated({ ...json, version: 2, repair: { ...NO_REPAIR, letBe: [] } });
  if (old.version !== 2 || !Array.isArray(old.artworks) || !Array.isArray(old.repair?.letBe)) return json;
  // Version 2 had one drawing, at the origin, and let findings be without a reason.
  return {
    ...json,
    version: 3,
    // Nor had it pairs, outlines, knock-outs or a block-out, or a say in where marks stand.
    build: { ...emptyRecipe('').build, ...old.build },
    preparation: { ...emptyRecipe('').preparation, ...old.preparation },
    artworks: old.artworks.map((source) => ({ kind: 'drawing', id: source.id, source, place: AT_ORIGIN })),
    repair: { ...NO_REPAIR, ...old.repair, letBe: Object.fromEntries(old.repair.letBe.map((code) => [code, ''])) },
  };
}

/** The first schema error as a place and a sentence's end: "/surface/widthMm", "must be >= 1". */
export function describeSchemaError(errors: readonly ErrorObject[]): { path: string; reason: string } {
  const error = errors[0];
  if (!error) return { path: '/', reason: 'does not have the expected shape' };
  const extra = error.keyword === 'additionalProperties' ? ` (“${String(error.params['additionalProperty'])}” is unknown)` : '';
  return { path: error.instancePath || '/', reason: `${error.message ?? 'is wrong'}${extra}` };
}
