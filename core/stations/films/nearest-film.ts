import { colourDifference } from '../../engines/artwork/index.js';
import { wayOf, type Film, type FilmWay } from '../../shop/index.js';

/** A film that is plain, and put on like the others, is preferred to one nearer in colour by up to so much (CIEDE2000). */
const STRANGE = 30;
const OTHER_WAY = 20;

/** The film of a stock, which must not be empty, that is nearest to a colour among those that are plain and put on in one way; others count as further off. */
export function nearestFilm(colour: string, stock: readonly Film[], way: FilmWay): Film {
  let best = stock[0]!;
  let least = Infinity;
  for (const film of stock) {
    // A plain film is the safer guess: texture, a pattern, and light through it, are a maker's decision; so is a press, which then goes for all.
    const strange =
      (film.finish === 'textured' || film.finish === 'translucent' || film.pattern ? STRANGE : 0) +
      (wayOf(film) === way ? 0 : OTHER_WAY);
    const difference = colourDifference(colour, film.colour) + strange;
    if (difference < least) [best, least] = [film, difference];
  }
  return best;
}
