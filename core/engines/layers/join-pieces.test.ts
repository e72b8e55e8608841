import { describe, expect, it } from 'vitest';
import { areaOf, boundsOf, countPieces, translateRings, unite, type Rings } from '../../geometry/index.js';
import { disc, rectangle, seeded } from '../../testing/seeded.js';
import { joinPieces } from './index.js';

/** A made-up letter about 20 mm high that stands on 0, and its width. */
function letter(kind: number, random: () => number): { rings: Rings; width: number } {
  const width = 6 + 8 * random();
  switch (kind) {
    case 0:
      return { rings: [rectangle(0, -20, width, 20)], width };
    case 1:
      return { rings: [disc(width / 2, -width / 2, width / 2, 90)], width };
    case 2:
      return { rings: [rectangle(0, -13, 4, 13)], width: 4 };
    default:
      return { rings: unite([rectangle(0, -20, 3, 20), rectangle(0, -20, width, 3)]), width };
  }
}

describe('words that are there as an area only', () => {
  it.each(Array.from({ length: 50 }, (_, seed) => seed))(
    'become one piece each, with the least that does it, seed %i',
    (seed) => {
      const random = seeded(seed);
      const overlapMm = 0.3;
      const words: { letters: { rings: Rings; width: number }[]; gaps: number[] }[] = [];
      const all: Rings[] = [];
      let x = 0;
      for (let w = 0; w < 2 + Math.floor(2 * random()); w += 1) {
        const word = { letters: [] as { rings: Rings; width: number }[], gaps: [] as number[] };
        for (let i = 0; i < 2 + Math.floor(4 * random()); i += 1) {
          // The first is tall, so that a line's height is known.
          const one = letter(i === 0 ? 0 : Math.floor(4 * random()), random);
          if (i > 0) word.gaps.push(0.8 + 1.8 * random());
          x += i > 0 ? word.gaps.at(-1)! : 0;
          all.push(translateRings(one.rings, x, 0));
          x += one.width;
          word.letters.push(one);
        }
        words.push(word);
        x += 9;
      }
      const rings = unite(all.flat());
      const { rings: joined, words: count, mostMm } = joinPieces(rings, overlapMm);
      const bodies = countPieces(joined).pieces;
      expect([count, bodies]).toEqual([words.length, words.length]);
      // A hair less than touching, each word is in two again.
      const less = joinPieces(rings, -0.02).rings;
      expect(countPieces(less).pieces).toBeGreaterThanOrEqual(2 * words.length);
      expect(mostMm).toBeGreaterThan(0);
      // Nothing is lost but what overlaps share (a T over an i much), and words keep their middles.
      expect(areaOf(joined)).toBeGreaterThan(0.6 * areaOf(rings));
      const [before, after] = [boundsOf(rings)!, boundsOf(joined)!];
      expect(after.minX).toBeGreaterThanOrEqual(before.minX - 1e-6);
      expect(after.maxX).toBeLessThanOrEqual(before.maxX + 1e-6);
    },
  );

  it('take the dots of their letters along, and do not join them', () => {
    const i = (x: number) => [rectangle(x, -13, 4, 13), disc(x + 2, -17.5, 1.5, 40)];
    const { rings } = joinPieces(unite([rectangle(0, -20, 6, 20), ...i(7.5), ...i(13)]), 0.3);
    // The first dot touches nothing, nor does the second.
    expect(countPieces(rings).pieces).toBe(3);
    const [, , dot] = rings
      .map((ring) => boundsOf([ring])!)
      .sort((a, b) => a.maxX - a.minX - (b.maxX - b.minX))
      .reverse();
    const body = rings.map((ring) => boundsOf([ring])!).find((box) => box.maxX - box.minX > 8)!;
    expect((dot!.minX + dot!.maxX) / 2).toBeGreaterThan(body.minX + 6);
  });

  it('that hold together stay exactly where they are', () => {
    const word = unite([rectangle(0, 0, 30, 5), rectangle(0, 0, 5, 20), rectangle(25, 0, 5, 20)]);
    expect(joinPieces(word, 0.3)).toMatchObject({ rings: word, words: 0, moved: [] });
  });

  it('on two lines are joined line by line', () => {
    const row = (y: number) => [0, 8, 16].map((x) => rectangle(x, y, 6, 20));
    expect(countPieces(joinPieces([...row(0), ...row(40)], 0.3).rings).pieces).toBe(2);
  });
});
