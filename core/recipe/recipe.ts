import { artworkSlice, type ArtworkDecisions } from '../stations/artwork/index.js';
import { assembleSlice, type AssembleDecisions } from '../stations/assemble/index.js';
import { buildSlice, type BuildDecisions } from '../stations/layers/index.js';
import { filmsSlice, type FilmsDecisions } from '../stations/films/index.js';
import { prepareSlice, type PrepareDecisions } from '../stations/prepare/index.js';
import { sheetsSlice, type SheetsDecisions } from '../stations/sheets/index.js';
import type { Patch } from '../stations/slice.js';
import { surfaceSlice, type SurfaceDecisions } from '../stations/surface/index.js';
import { headingSlice, type Heading } from './heading.js';

/** The newest version of the recipe. */
export const RECIPE_VERSION = 15;

/** Everything a maker decided about a job's stations, each station's part in its own room. */
type Decisions = Heading &
  ArtworkDecisions &
  FilmsDecisions &
  SurfaceDecisions &
  BuildDecisions &
  PrepareDecisions &
  SheetsDecisions &
  AssembleDecisions;

/**
 * The recipe: everything a maker decided about a job, and nothing that can be computed. Lengths in mm.
 * An absent decision is left to the app, which then rules on it.
 */
export interface Recipe extends Decisions {
  readonly version: typeof RECIPE_VERSION;
}

/** A change to a recipe: each named part replaces the same part, one level deep. */
export type RecipePatch = Patch<Decisions>;

/** The parts of a recipe, in the order in which it is written. */
export const SLICES = [
  headingSlice,
  artworkSlice,
  filmsSlice,
  surfaceSlice,
  buildSlice,
  prepareSlice,
  sheetsSlice,
  assembleSlice,
];

/** A new job's recipe: all judgements left to the app. */
export function emptyRecipe(title: string): Recipe {
  return {
    version: RECIPE_VERSION,
    ...headingSlice.beginning,
    ...artworkSlice.beginning,
    ...filmsSlice.beginning,
    ...surfaceSlice.beginning,
    ...buildSlice.beginning,
    ...prepareSlice.beginning,
    ...sheetsSlice.beginning,
    ...assembleSlice.beginning,
    title,
  };
}

/** The recipe with a patch laid over it; the original stays as it is. */
export function patchRecipe(recipe: Recipe, patch: RecipePatch): Recipe {
  const next: Record<string, unknown> = { ...recipe };
  for (const [key, value] of Object.entries(patch)) {
    const before = next[key];
    next[key] = isPlainObject(before) && isPlainObject(value) ? { ...before, ...value } : value;
  }
  return next as unknown as Recipe;
}

function isPlainObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
