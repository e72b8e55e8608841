import { colourDifference } from '../../engines/artwork/index.js';
import { filmsToRule, isSpecial, wayOf, type Film, type FilmWay } from '../../shop/index.js';

/** What a colour is cut from when nobody chose. */
export interface RuledFilm {
  readonly film: Film;
  /**
   * plain: a plain film that is put on as it should be; special: one that nobody chose, since nothing plain of that way is in stock; strange: one that does
   * not suit, since none that does is in stock.
   */
  readonly kind: 'plain' | 'special' | 'strange';
}

/** Where nobody said what the work goes on, a film of another way than the maker's choice counts as so much further off (CIEDE2000). */
const OTHER_WAY = 20;

/**
 * Chooses the film for a colour: the nearest (CIEDE2000) of the best kind in stock, which must not be empty. A plain film that is put on in
 * `orWay` will do as well, if it is much nearer.
 */
export function ruledFilm(
  colour: string,
  stock: readonly Film[],
  way: FilmWay,
  orWay: FilmWay | null = null,
): RuledFilm {
  const { films, kind } = filmsToRule(stock, way);
  const other = orWay === null ? null : filmsToRule(stock, orWay);
  const others = other?.kind === 'plain' ? other.films : [];
  if (films.length + others.length > 0) {
    const film = nearest(colour, [...films, ...others], (one) => (wayOf(one) === way ? 0 : OTHER_WAY));
    return { film, kind: films.includes(film) ? kind : 'plain' };
  }
  const plain = stock.filter((film) => !isSpecial(film));
  return { film: nearest(colour, plain.length > 0 ? plain : stock), kind: 'strange' };
}

/** The film of some, at least one, that is nearest to a colour; `further` is added to how far each is. */
function nearest(colour: string, films: readonly Film[], further: (film: Film) => number = () => 0): Film {
  let best = films[0]!;
  let least = Infinity;
  for (const film of films) {
    const difference = colourDifference(colour, film.colour) + further(film);
    if (difference < least) [best, least] = [film, difference];
  }
  return best;
}
