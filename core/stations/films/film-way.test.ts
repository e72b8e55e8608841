import { describe, expect, it } from 'vitest';
import { BENCH_SHOP } from '../../testing/bench-shop.js';
import { colourDifference } from '../../engines/artwork/index.js';
import { wayOf, type Film } from '../../shop/index.js';
import { filmsBetween, newColour } from './film-way.js';

const stock = BENCH_SHOP.films;
const plain = stock.filter(({ finish }) => finish === 'gloss' || finish === 'matt');
const sumOfSquares = (films: readonly Film[]) =>
  films.slice(1).reduce((sum, film, i) => sum + colourDifference(films[i]!.colour, film.colour) ** 2, 0);

/** All ways of so many films, tried one by one. */
function leastByTrying(first: Film, last: Film, among: readonly Film[], most: number): number {
  const go = (way: readonly Film[]): number =>
    Math.min(
      sumOfSquares([...way, last]),
      ...(way.length + 1 < most
        ? among.filter((film) => film !== last && !way.includes(film)).map((film) => go([...way, film]))
        : []),
    );
  return go([first]);
}

describe('the way through films in stock', () => {
  const pairs = plain
    .flatMap((a, i) =>
      plain
        .slice(i + 1)
        .filter((b) => wayOf(a) === wayOf(b))
        .map((b) => [a, b] as const),
    )
    .filter((_, i) => i % 5 === 0);
  it.each(pairs.map(([a, b]) => [a.name, b.name, a, b] as const))(
    'from %s to %s has the least steps, squared, of all ways of four films',
    (_, __, a, b) => {
      const way = filmsBetween(a.colour, b.colour, stock, 4);
      expect([way[0], way.at(-1)]).toEqual([a, b]);
      expect(new Set(way).size).toBe(way.length);
      expect(sumOfSquares(way)).toBeCloseTo(
        leastByTrying(
          a,
          b,
          plain.filter((film) => wayOf(film) === wayOf(a)),
          4,
        ),
        6,
      );
    },
  );

  it('from a colour to one of the same film is that film', () =>
    expect(filmsBetween(plain[0]!.colour, plain[0]!.colour, stock, 5)).toEqual([plain[0]]));
  it('through no films is none', () => expect(filmsBetween('#000000', '#ffffff', [], 5)).toEqual([]));
});

describe('one more colour', () => {
  it('is like none of those there are', () => {
    let used = ['#16181a'];
    for (let i = 0; i < 5; i += 1) {
      const next = newColour(used, stock);
      expect(Math.min(...used.map((colour) => colourDifference(colour, next)))).toBeGreaterThan(15);
      used = [...used, next];
    }
  });
  it('is there without any stock', () => expect(newColour(['#16181a'], [])).not.toBe('#16181a'));
});
