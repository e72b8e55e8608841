import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/seeded.js';
import { isKept, leftoversAround, leftoversOf, worthOf, type LaidRectangle } from './leftovers.js';

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

  it.each(Array.from({ length: 40 }, (_, seed) => seed))(
    'is all of it but what was used, in rectangles that do not overlap, worth no less than the other way to cut it, seed %i',
    (seed) => {
      const random = seeded(seed + 1);
      const piece = { widthMm: 50 + random() * 900, lengthMm: 50 + random() * 900 };
      const used = { widthMm: random() * piece.widthMm, lengthMm: random() * piece.lengthMm };
      const left = leftoversOf(piece, used, 10);
      const area = (some: readonly { widthMm: number; lengthMm: number }[]) =>
        some.reduce((sum, { widthMm, lengthMm }) => sum + widthMm * lengthMm, 0);
      expect(area(left)).toBeCloseTo(area([piece]) - area([used]), 4);
      for (const { xMm, yMm, widthMm, lengthMm } of left) {
        expect(xMm >= used.widthMm - 1e-9 || yMm >= used.lengthMm - 1e-9).toBe(true);
        expect(xMm + widthMm <= piece.widthMm + 1e-9 && yMm + lengthMm <= piece.lengthMm + 1e-9).toBe(true);
      }
      const [w, l, u, v] = [piece.widthMm, piece.lengthMm, used.widthMm, used.lengthMm];
      const worth = (sides: readonly (readonly [number, number])[]) =>
        sides.reduce((sum, [widthMm, lengthMm]) => sum + worthOf({ widthMm, lengthMm }, 10), 0);
      const best = Math.max(
        worth([
          [w, l - v],
          [w - u, v],
        ]),
        worth([
          [w - u, l],
          [u, l - v],
        ]),
      );
      expect(left.reduce((sum, one) => sum + worthOf(one, 10), 0)).toBeCloseTo(best, 9);
    },
  );

  const overlap = (a: LaidRectangle, b: LaidRectangle) =>
    Math.max(0, Math.min(a.xMm + a.widthMm, b.xMm + b.widthMm) - Math.max(a.xMm, b.xMm)) *
    Math.max(0, Math.min(a.yMm + a.lengthMm, b.yMm + b.lengthMm) - Math.max(a.yMm, b.yMm));
  const worthOfAll = (some: readonly LaidRectangle[]) => some.reduce((sum, one) => sum + worthOf(one, 10), 0);

  it('is also what lies free beside a long piece, to the edge', () => {
    const used = [
      { xMm: 0, yMm: 0, widthMm: 250, lengthMm: 1400 },
      { xMm: 250, yMm: 0, widthMm: 300, lengthMm: 100 },
    ];
    expect(leftoversAround({ widthMm: 590, lengthMm: 1400 }, used, 10)).toEqual([
      { xMm: 250, yMm: 100, widthMm: 340, lengthMm: 1300 },
    ]);
    // What is left at the end of a sheet goes with it where that is worth more.
    expect(leftoversAround({ widthMm: 590, lengthMm: 2000 }, used, 10)[0]).toEqual({
      xMm: 250,
      yMm: 100,
      widthMm: 340,
      lengthMm: 1900,
    });
    expect(leftoversAround({ widthMm: 300, lengthMm: 300 }, [], 10)).toEqual([
      { xMm: 0, yMm: 0, widthMm: 300, lengthMm: 300 },
    ]);
  });

  it.each(Array.from({ length: 60 }, (_, seed) => seed))(
    'round what was used overlaps nothing, is worth no less than beyond it, and its best piece is the best at the far side or the far end, seed %i',
    (seed) => {
      const random = seeded(seed + 100);
      const piece = { widthMm: 200 + Math.round(random() * 500), lengthMm: 200 + Math.round(random() * 900) };
      const used = Array.from({ length: 1 + Math.floor(random() * 9) }, (): LaidRectangle => {
        const [widthMm, lengthMm] = [Math.round(20 + random() * 180), Math.round(20 + random() * 180)];
        return {
          xMm: Math.round(random() * (piece.widthMm - widthMm)),
          yMm: Math.round(random() * (piece.lengthMm - lengthMm)),
          widthMm,
          lengthMm,
        };
      });
      const left = leftoversAround(piece, used, 10);
      left.forEach((one, i) => {
        for (const other of [...used, ...left.slice(i + 1)]) expect(overlap(one, other)).toBeLessThan(1e-6);
        expect(one.xMm + one.widthMm <= piece.widthMm + 1e-9 && one.yMm + one.lengthMm <= piece.lengthMm + 1e-9).toBe(
          true,
        );
        // A knife reaches it from the edge.
        expect(
          Math.abs(one.xMm + one.widthMm - piece.widthMm) < 1e-9 ||
            Math.abs(one.yMm + one.lengthMm - piece.lengthMm) < 1e-9,
        ).toBe(true);
      });
      const farthest = {
        widthMm: Math.max(...used.map(({ xMm, widthMm }) => xMm + widthMm)),
        lengthMm: Math.max(...used.map(({ yMm, lengthMm }) => yMm + lengthMm)),
      };
      expect(worthOfAll(left)).toBeGreaterThanOrEqual(worthOfAll(leftoversOf(piece, farthest, 10)) - 1e-9);
      // By trying: rectangles on a grid of 10 mm that reach the far side or the far end.
      let best = 0;
      for (let a = 0; a < piece.lengthMm; a += 10)
        for (let b = a + 10; b <= piece.lengthMm; b += 10) {
          const x = Math.max(
            0,
            ...used
              .filter(({ yMm, lengthMm }) => yMm < b && yMm + lengthMm > a)
              .map(({ xMm, widthMm }) => xMm + widthMm),
          );
          best = Math.max(best, worthOf({ widthMm: piece.widthMm - x, lengthMm: b - a }, 10));
        }
      for (let a = 0; a < piece.widthMm; a += 10)
        for (let b = a + 10; b <= piece.widthMm; b += 10) {
          const y = Math.max(
            0,
            ...used
              .filter(({ xMm, widthMm }) => xMm < b && xMm + widthMm > a)
              .map(({ yMm, lengthMm }) => yMm + lengthMm),
          );
          best = Math.max(best, worthOf({ widthMm: b - a, lengthMm: piece.lengthMm - y }, 10));
        }
      expect(worthOfAll(left)).toBeGreaterThanOrEqual(best - 1e-9);
    },
  );
});
