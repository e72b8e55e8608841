import type { MATTERS } from './blank.js';
import { FILM_FAMILIES, wayOf, type Film, type FilmFamily, type FilmWay } from './film.js';

/** What a film goes on, as far as that decides which films hold there. */
export type Ground = 'cloth' | 'hard' | 'unknown';

type Matter = (typeof MATTERS)[number];

/** Matter that is woven or knitted: films are pressed on it. Source: trade practice. */
export const CLOTH: ReadonlySet<Matter> = new Set<Matter>(['cotton', 'polyester', 'nylon']);

/** Families that are made for a look or a use of their own: a maker chooses them, and none is proposed for a plain colour. Source: trade practice. */
const SPECIAL: ReadonlySet<FilmFamily> = new Set<FilmFamily>([
  'translucent',
  'reflective',
  'textured',
  'heatGlitter',
  'flock',
  'puff',
  'heatAdhesive',
  'foil',
  'dyeTransfer',
  'stencil',
]);

/** Whether a film is one that only a maker chooses: of a special family, textured, lets light through, or printed with a pattern. */
export function isSpecial({ family, finish, pattern }: Pick<Film, 'family' | 'finish' | 'pattern'>): boolean {
  return SPECIAL.has(family) || finish === 'textured' || finish === 'translucent' || pattern !== null;
}

/** How films are put on a ground when nobody chose otherwise. */
export function wayOn(ground: Ground): FilmWay {
  return ground === 'cloth' ? 'press' : 'adhesive';
}

/** Families that need more of a ground than that it is cloth or hard, and the glue of foil, which is no colour; they are never taken for want of others. */
const NEVER_RULED: ReadonlySet<FilmFamily> = new Set<FilmFamily>(['dyeTransfer', 'stencil', 'heatAdhesive']);

/**
 * The films of a stock that may be ruled for a ground, the best kind that there is: plain ones that are put on as the ground wants; special ones of that
 * way if there is nothing plain; none if there are none of that way at all. What is retired is not ruled.
 */
export function filmsToRule(
  stock: readonly Film[],
  way: FilmWay,
): { readonly films: readonly Film[]; readonly kind: 'plain' | 'special' } {
  const suiting = stock.filter((film) => !film.retired && wayOf(film) === way && !NEVER_RULED.has(film.family));
  const plain = suiting.filter((film) => !isSpecial(film));
  return plain.length > 0 ? { films: plain, kind: 'plain' } : { films: suiting, kind: 'special' };
}

/** The family of film to buy first for a way of putting it on. */
export function familyToBuy(way: FilmWay): string {
  return FILM_FAMILIES[way === 'press' ? 'heatTransfer' : way === 'stencil' ? 'stencil' : 'polymeric'].name;
}

/** Why a film that a maker chose does not suit a ground by itself; null when it does. Heat film on wood, and an adhesive mask on cloth, exist: they are a choice. */
export function whyUnsuited(
  film: Pick<Film, 'family'>,
  ground: Ground,
  matter: Matter | null,
): 'stuck-on-cloth' | 'pressed-on-hard' | 'dye-on-no-polyester' | null {
  if (ground === 'unknown' || film.family === 'stencil') return null;
  if (ground === 'cloth') {
    if (film.family === 'dyeTransfer') return matter === null || matter === 'polyester' ? null : 'dye-on-no-polyester';
    return wayOf(film) === 'press' ? null : 'stuck-on-cloth';
  }
  // Dye takes on blanks with a coating, which no matter tells.
  return wayOf(film) === 'press' && film.family !== 'dyeTransfer' ? 'pressed-on-hard' : null;
}
