import { Ajv, type ErrorObject, type ValidateFunction } from 'ajv';
import { object } from '../words/schema.js';
import { InputError } from '../words/index.js';
import { RECIPE_VERSION, SLICES, type Recipe } from './recipe.js';

/** JSON schema of the recipe's newest version, put together from its stations' parts. Unknown fields are refused. */
export const RECIPE_SCHEMA: Readonly<Record<string, unknown>> = {
  $id: `https://wry-lantern.example/schemas/recipe-${RECIPE_VERSION}.json`,
  title: 'Recipe',
  ...object({
    version: { const: RECIPE_VERSION },
    ...(Object.assign({}, ...SLICES.map((slice) => slice.schema)) as Record<string, object>),
  }),
};

let compiled: ValidateFunction<Recipe> | null = null;

/** Compiled when first needed: compiling writes code, which a page's security policy refuses, and pages never parse recipes. */
function validator(): ValidateFunction<Recipe> {
  return (compiled ??= new Ajv({ allErrors: true, strict: false }).compile<Recipe>(RECIPE_SCHEMA));
}

/**
 * Reads a recipe of any version that ever shipped from parsed JSON and returns it in the newest one.
 * @throws InputError (code `recipe-invalid`, path of the first wrong field) when it is not a recipe
 */
export function parseRecipe(stored: unknown, source = 'recipe'): Recipe {
  const json = upgraded(stored);
  const validate = validator();
  if (!validate(json)) {
    const { path, reason } = describeSchemaError(validate.errors ?? []);
    throw new InputError('recipe-invalid', `${path} ${reason}.`, { source, path });
  }
  return json;
}

/** A recipe of an older version in the newest shape, version by version; what is no recipe comes back as it is, for the schema to refuse. */
function upgraded(stored: unknown): unknown {
  if (typeof stored !== 'object' || stored === null) return stored;
  let json = stored as Readonly<Record<string, unknown>>;
  for (let version = Number(json['version']); version >= 1 && version < RECIPE_VERSION; version += 1) {
    const old = json;
    json = {
      ...old,
      ...(Object.assign({}, ...SLICES.map((slice) => slice.upgrades[version]?.(old) ?? {})) as object),
      version: version + 1,
    };
  }
  return json;
}

/** The first schema error as a place and a sentence's end: "/surface/widthMm", "must be >= 1". */
export function describeSchemaError(errors: readonly ErrorObject[]): { path: string; reason: string } {
  const error = errors[0];
  if (!error) return { path: '/', reason: 'does not have the expected shape' };
  const extra =
    error.keyword === 'additionalProperties' ? ` (“${String(error.params['additionalProperty'])}” is unknown)` : '';
  return { path: error.instancePath || '/', reason: `${error.message ?? 'is wrong'}${extra}` };
}
