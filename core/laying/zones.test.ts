import { describe, expect, it } from 'vitest';
import { seeded } from '../testing/seeded.js';
import { zonesOf, type ZonePiece, type Zone } from './zones.js';

const room = { widthMm: 290, lengthMm: 290 };
const piece = (id: string, widthMm: number, lengthMm: number, settings = 'a', mayTurn = true): ZonePiece => ({
  id,
  widthMm,
  lengthMm,
  settings,
  mayTurn,
});

/** By its own means: whether pieces that may not be turned fit side by side, by trying every place on a grid that all sides are multiples of. */
function fitsOnGrid(sizes: readonly (readonly [number, number])[], across: number, along: number): boolean {
  const taken = Array.from({ length: along }, () => new Array<boolean>(across).fill(false));
  const put = (x: number, y: number, w: number, l: number, to: boolean) => {
    for (let j = y; j < y + l; j += 1) for (let i = x; i < x + w; i += 1) taken[j]![i] = to;
  };
  const place = (k: number): boolean => {
    const size = sizes[k];
    if (!size) return true;
    const [w, l] = size;
    for (let y = 0; y + l <= along; y += 1) {
      for (let x = 0; x + w <= across; x += 1) {
        let isFree = true;
        for (let j = y; j < y + l && isFree; j += 1)
          for (let i = x; i < x + w && isFree; i += 1) isFree = !taken[j]![i];
        if (!isFree) continue;
        put(x, y, w, l, true);
        if (place(k + 1)) return true;
        put(x, y, w, l, false);
      }
    }
    return false;
  };
  return place(0);
}

function fewestPasses(sizes: readonly (readonly [number, number])[], across: number, along: number): number {
  let best = Infinity;
  const assign = (i: number, passes: (readonly [number, number])[][]) => {
    if (passes.length >= best) return;
    if (i === sizes.length) {
      if (passes.every((pass) => fitsOnGrid(pass, across, along))) best = passes.length;
      return;
    }
    for (let p = 0; p <= passes.length; p += 1)
      assign(
        i + 1,
        p === passes.length
          ? [...passes, [sizes[i]!]]
          : passes.map((pass, k) => (k === p ? [...pass, sizes[i]!] : pass)),
      );
  };
  assign(0, []);
  return best;
}

describe('zones of a mat', () => {
  it('are of one setting each, and every piece lies on one of them', () => {
    const passes = zonesOf(
      [piece('a', 140, 140), piece('b', 140, 140, 'b'), piece('c', 140, 140), piece('d', 140, 140, 'b')],
      { room },
      5,
    )!;
    expect(
      passes.map((pass) =>
        pass
          .map(({ id }) => id)
          .sort()
          .join(''),
      ),
    ).toEqual(['ac', 'bd']);
  });

  it('turn a piece only where it may be turned', () => {
    expect(zonesOf([piece('a', 290, 100), piece('b', 100, 180)], { room }, 5)!).toHaveLength(1);
    expect(zonesOf([piece('a', 290, 140, 'a', false), piece('b', 140, 290, 'a', false)], { room }, 5)!).toHaveLength(2);
    expect(zonesOf([piece('a', 290, 140), piece('b', 140, 290)], { room }, 5)!).toHaveLength(1);
    expect(zonesOf([piece('a', 300, 100)], { room }, 5)).toBeNull();
  });

  it.each(Array.from({ length: 60 }, (_, seed) => seed))(
    'are the fewest passes there are, apart and inside, for up to six pieces, seed %i',
    (seed) => {
      const random = seeded(seed + 1);
      const count = 1 + Math.floor(random() * 6);
      // Multiples of 10 with the margin of 5 taken off: a grid of 10 sees every way to lay them.
      const sizes = Array.from(
        { length: count },
        () => [2 + Math.floor(random() * 5), 2 + Math.floor(random() * 5)] as const,
      );
      const mat = { room: { widthMm: 8 * 10 - 5, lengthMm: 6 * 10 - 5 } };
      const pieces = sizes.map(([w, l], i) => piece(String(i), w * 10 - 5, l * 10 - 5, 'a', false));
      const passes = zonesOf(pieces, mat, 5)!;
      expect(
        passes
          .flat()
          .map(({ id }) => id)
          .sort(),
      ).toEqual(pieces.map(({ id }) => id));
      for (const pass of passes) checkPass(pass, mat.room);
      expect(passes).toHaveLength(fewestPasses(sizes, 8, 6));
    },
  );

  it('hold many pieces, too', () => {
    const random = seeded(3);
    const pieces = Array.from({ length: 40 }, (_, i) => piece(String(i), 40 + random() * 120, 40 + random() * 120));
    const passes = zonesOf(pieces, { room }, 5)!;
    expect(passes.flat()).toHaveLength(40);
    for (const pass of passes) checkPass(pass, room);
    const area = pieces.reduce((sum, { widthMm, lengthMm }) => sum + widthMm * lengthMm, 0);
    expect(passes.length).toBeLessThanOrEqual(Math.ceil((1.9 * area) / (290 * 290)));
  });
});

function checkPass(
  pass: readonly Zone[],
  { widthMm, lengthMm }: { readonly widthMm: number; readonly lengthMm: number },
): void {
  pass.forEach((a, i) => {
    expect(
      a.xMm >= 0 && a.yMm >= 0 && a.xMm + a.widthMm <= widthMm + 1e-6 && a.yMm + a.lengthMm <= lengthMm + 1e-6,
    ).toBe(true);
    for (const b of pass.slice(i + 1))
      expect(
        Math.max(
          b.xMm - a.xMm - a.widthMm,
          a.xMm - b.xMm - b.widthMm,
          b.yMm - a.yMm - a.lengthMm,
          a.yMm - b.yMm - b.lengthMm,
        ),
      ).toBeGreaterThan(4.99);
  });
}
