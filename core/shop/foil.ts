import { newFilm, type Film } from './film.js';
import type { FilmPiece } from './piece.js';

/** Foil is larger than its adhesive by this on each side, mm: it may be laid askew and must still cover all of it. Source: trade practice, 10 to 15. */
export const FOIL_OVERHANG_MM = 12;

/** Foil is never cut by a blade. Its heat adhesive is cut and weeded, and the foil is laid on that. */
export function isFoil({ family }: Pick<Film, 'family'>): boolean {
  return family === 'foil';
}

/** The glue under foil. */
export function isHeatAdhesive({ family }: Pick<Film, 'family'>): boolean {
  return family === 'heatAdhesive';
}

/** Stands for heat adhesive in a shop that has none: there is no piece of it either. */
const NO_ADHESIVE: Film = { ...newFilm('no-heat-adhesive', 'heatAdhesive'), name: 'heat adhesive' };

/**
 * The film that is cut where a layer is made of `film`: for foil the shop's heat adhesive (one that is in stock comes first, retired ones are left out), for all else the film itself.
 * In a shop without heat adhesive it is one of which there is no piece.
 */
export function cutFilmOf(
  film: Film,
  { films, pieces }: { readonly films: readonly Film[]; readonly pieces: readonly FilmPiece[] },
): Film {
  if (!isFoil(film)) return film;
  const adhesives = films.filter((one) => isHeatAdhesive(one) && !one.retired);
  const isInStock = ({ id }: Film) => pieces.some(({ filmId, quantity }) => filmId === id && quantity > 0);
  return adhesives.find(isInStock) ?? adhesives[0] ?? NO_ADHESIVE;
}

/** The films that a colour or an outline can be made of: all but the glue under foil, unless that is what was chosen. */
export function filmsToChoose(films: readonly Film[], chosenId: string): readonly Film[] {
  return films.filter((film) => !isHeatAdhesive(film) || film.id === chosenId);
}
