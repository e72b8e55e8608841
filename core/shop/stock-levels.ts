import type { Film } from './film.js';
import { areaLeft, type StockPiece } from './piece.js';

/** What is left of a film in all its pieces, m². */
export function leftOfFilms(stock: readonly StockPiece[]): ReadonlyMap<string, number> {
  const left = new Map<string, number>();
  for (const piece of stock) left.set(piece.filmId, (left.get(piece.filmId) ?? 0) + areaLeft(piece) / 1e6);
  return left;
}

export interface ShortFilm {
  readonly film: Film;
  readonly leftM2: number;
}

/** Films of which less is left than the shop wants to have, the shortest first by share. */
export function shortFilms(films: readonly Film[], stock: readonly StockPiece[]): ShortFilm[] {
  const left = leftOfFilms(stock);
  return films
    .filter((film) => !film.retired && film.reorderM2 > 0 && (left.get(film.id) ?? 0) < film.reorderM2)
    .map((film) => ({ film, leftM2: left.get(film.id) ?? 0 }))
    .sort((a, b) => a.leftM2 / a.film.reorderM2 - b.leftM2 / b.film.reorderM2);
}
