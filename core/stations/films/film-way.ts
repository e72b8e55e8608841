import { colourDifference } from '../../engines/artwork/index.js';
import { wayOf, type Film } from '../../shop/index.js';

/** A film can stand between two others when it is plain and put on as they are. */
const isPlain = ({ finish, pattern, retired }: Film) =>
  (finish === 'gloss' || finish === 'matt') && !pattern && !retired;

/**
 * The colours of films of a stock on the way from one colour to another, at most `most` of them with those at both ends: of all ways the one whose steps
 * have the least sum of squares (CIEDE2000), which is the one of many small steps. The ends are the films nearest to the two colours; one colour when both
 * have the same nearest film, none when the stock has no plain film.
 */
export function filmsBetween(from: string, to: string, stock: readonly Film[], most: number): readonly Film[] {
  const nearest = (colour: string, among: readonly Film[]) =>
    among.reduce<Film | null>(
      (best, film) =>
        best && colourDifference(colour, best.colour) <= colourDifference(colour, film.colour) ? best : film,
      null,
    );
  const first = nearest(from, stock.filter(isPlain));
  if (!first) return [];
  const films = stock.filter((film) => isPlain(film) && wayOf(film) === wayOf(first));
  const last = nearest(to, films)!;
  if (first === last) return [first];
  // The least sum of squares to each film with one step more every round.
  let ways = new Map<Film, { readonly cost: number; readonly films: readonly Film[] }>([
    [first, { cost: 0, films: [first] }],
  ]);
  let best: { readonly cost: number; readonly films: readonly Film[] } | null = null;
  for (let count = 2; count <= most; count += 1) {
    const next = new Map<Film, { readonly cost: number; readonly films: readonly Film[] }>();
    for (const [at, way] of ways) {
      for (const film of films) {
        const cost = way.cost + colourDifference(at.colour, film.colour) ** 2;
        if (!way.films.includes(film) && cost < (next.get(film)?.cost ?? Infinity))
          next.set(film, { cost, films: [...way.films, film] });
      }
    }
    const arrived = next.get(last);
    if (arrived && arrived.cost < (best?.cost ?? Infinity)) best = arrived;
    next.delete(last);
    ways = next;
  }
  return best!.films;
}

/** The colour of the plain film of a stock that is least like some colours, and like the white that they are looked at on; a basic one when that is less like them. */
export function newColour(used: readonly string[], stock: readonly Film[]): string {
  const apart = (colour: string) => Math.min(...[...used, '#ffffff'].map((other) => colourDifference(colour, other)));
  const offered = [...stock.filter(isPlain).map(({ colour }) => colour), ...BASIC];
  return offered.reduce((best, colour) => (apart(colour) > apart(best) ? colour : best));
}

/** For a stock that has next to nothing. */
const BASIC = ['#16181a', '#f7f5ef', '#b3262b', '#1d4e89', '#f2b632', '#1f6b45'];
