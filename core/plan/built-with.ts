import type { Recipe } from '../recipe/index.js';
import type { Shop } from '../shop/index.js';
import { builtWithNow, shopAsBuilt, type BuiltWith } from '../stations/films/index.js';
import type { CutSoFar } from '../laying/index.js';
import type { LoneBatch } from '../stations/sheets/index.js';
import type { Plan } from './plan.js';

/** What of a job need not be cut any more, how it lies, what of the shop it was built with, and how it is cut alone. */
export interface JobSoFar extends CutSoFar {
  /** For every renewal, what it was built with when a sheet of it that still counts was first sent; absent where nothing was cut. */
  readonly builtWith?: readonly BuiltWith[];
  /** The batch of one that it is cut in; absent where it is cut with others. */
  readonly lone?: LoneBatch;
}

/** What of the shop a plan was built with: kept with a sheet of it that is sent. A job that is cut in part already goes on with what it was built with, and with the shop's films for what is new. */
export function builtWithOf(
  plan: Pick<Plan, 'films' | 'prepare'>,
  { recipe, shop, builtWith }: Pick<JobSoFar, 'builtWith'> & { readonly recipe: Recipe; readonly shop: Shop },
): BuiltWith {
  const { renewals } = recipe.films;
  const before = builtWithNow(builtWith, renewals);
  const used = new Set([
    ...(plan.films?.colours.map(({ film }) => film.id) ?? []),
    ...(plan.prepare?.layers.map(({ layer }) => layer.film.id) ?? []),
    ...(before?.films.map(({ id }) => id) ?? []),
  ]);
  const { widthMm, bladeOffsetMm, repeatabilityMm } = (before ?? shop).cutter;
  const kept = new Set(before?.films.map(({ id }) => id));
  return {
    renewals,
    byColour: {
      ...before?.byColour,
      ...Object.fromEntries(plan.films?.colours.map(({ colour, film }) => [colour, film.id]) ?? []),
    },
    films: shopAsBuilt(shop, before).films.filter(({ id }) => used.has(id)),
    pieces: [...(before?.pieces ?? []), ...shop.pieces.filter(({ filmId }) => used.has(filmId) && !kept.has(filmId))],
    cutter: { widthMm, bladeOffsetMm, repeatabilityMm },
  };
}
