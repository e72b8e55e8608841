import type { JobFinding, Recipe, RecipePatch } from '../recipe/index.js';
import { whyUnsuited, wayOn, type Film } from '../shop/index.js';
import { framingFilms, withFramingFilms } from '../stations/layers/index.js';
import { ruledFilm, sayUnsuited, type FilmsOut } from '../stations/films/index.js';
import { groundOf } from '../stations/surface/index.js';

/** The films that a maker chose, for colours or for what frames them, and that do not suit what the job goes on; and one change that makes all of them suit. */
export function unsuitedFilms(recipe: Recipe, films: FilmsOut, stock: readonly Film[]): JobFinding[] {
  const ground = groundOf(recipe.surface);
  const matter = recipe.surface.ground?.matter ?? null;
  const why = (film: Film) => whyUnsuited(film, ground, matter);
  const ofColours = films.colours.filter(({ film, chosen }) => chosen && why(film) !== null);
  const ofFraming = framingFilms(recipe.build).flatMap((id) => {
    const film = stock.find((one) => one.id === id);
    return film && why(film) !== null ? [film] : [];
  });
  const all = [...new Set([...ofColours.map(({ film }) => film), ...ofFraming])];
  if (all.length === 0) return [];
  const way = wayOn(ground);
  const suiting = new Map(ofFraming.map((film) => [film.id, ruledFilm(film.colour, stock, way)]));
  const byColour = { ...recipe.films.byColour };
  for (const { colour } of ofColours) delete byColour[colour];
  const isRemedied = [...suiting.values(), ...ofColours.map(({ colour }) => ruledFilm(colour, stock, way))].every(
    ({ kind }) => kind !== 'strange',
  );
  const patch: RecipePatch = {
    films: { byColour },
    ...(ofFraming.length > 0 ? { build: withFramingFilms(recipe.build, (id) => suiting.get(id)?.film.id ?? id) } : {}),
  };
  return [
    sayUnsuited(
      all.map((film) => ({ film, why: why(film)! })),
      isRemedied ? { way, patch } : null,
    ),
  ];
}
