import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/seeded.js';
import { isKept, leftoversOf, worthOf } from './leftovers.js';

describe('what is left of a piece', () => {
  it.each([
    [80, 200, true],
    [79, 400, false],
    [100, 100, false],
    [150, 100, true],
  ])('%i × %i is kept: %s', (widthMm, lengthMm, kept) => expect(isKept({ widthMm, lengthMm })).toBe(kept));

  it('is worth its share of the cost times 0.7, a narrow strip 0.4, and nothing where it is thrown away', () => {
    expect(worthOf({ widthMm: 1000, lengthMm: 500 }, 10)).toBeCloseTo(3.5, 9);
    expect(worthOf({ widthMm: 1000, lengthMm: 149 }, 10)).toBeCloseTo(0.149 * 10 * 0.4, 9);
    expect(worthOf({ widthMm: 1000, lengthMm: 79 }, 10)).toBe(0);
  });

  it.each(Array.from({ length: 40 }, (_, seed) => seed))('is all of it but what was used, in rectangles that do not overlap, worth no less than the other way to cut it, seed %i', (seed) => {
    const random = seeded(seed + 1);
    const piece = { widthMm: 50 + random() * 900, lengthMm: 50 + random() * 900 };
    const used = { widthMm: random() * piece.widthMm, lengthMm: random() * piece.lengthMm };
    const left = leftoversOf(piece, used, 10);
    const area = (some: readonly { widthMm: number; lengthMm: number }[]) => some.reduce((sum, { widthMm, lengthMm }) => sum + widthMm * lengthMm, 0);
    expect(area(left)).toBeCloseTo(area([piece]) - area([used]), 4);
    for (const { xMm, yMm, widthMm, lengthMm } of left) {
      expect(xMm >= used.widthMm - 1e-9 || yMm >= used.lengthMm - 1e-9).toBe(true);
      expect(xMm + widthMm <= piece.widthMm + 1e-9 && yMm + lengthMm <= piece.lengthMm + 1e-9).toBe(true);
    }
    const [w, l, u, v] = [piece.widthMm, piece.lengthMm, used.widthMm, used.lengthMm];
    const worth = (sides: readonly (readonly [number, number])[]) => sides.reduce((sum, [widthMm, lengthMm]) => sum + worthOf({ widthMm, lengthMm }, 10), 0);
    const best = Math.max(worth([[w, l - v], [w - u, v]]), worth([[w - u, l], [u, l - v]]));
    expect(left.reduce((sum, one) => sum + worthOf(one, 10), 0)).toBeCloseTo(best, 9);
  });
});
