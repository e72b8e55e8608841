import { describe, expect, it } from 'vitest';
import {
  areaOf,
  boundsOf,
  boxRing,
  grow,
  intersect,
  translateRings,
  unite,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import { seeded } from '../../testing/seeded.js';
import { gangPitch, gangPlaces, type GangWish } from './index.js';

const circle = (r: number, n = 90): Ring =>
  Float64Array.from(
    Array.from({ length: n }, (_, i) => [
      r * Math.cos((i * 2 * Math.PI) / n),
      r * Math.sin((i * 2 * Math.PI) / n),
    ]).flat(),
  );
const triangle = Float64Array.of(0, 0, 60, 0, 0, 40);

/** Whether any two of some copies are nearer than a gap, by growing and overlapping them. */
function areTooNear(
  rings: Rings,
  places: readonly { readonly xMm: number; readonly yMm: number }[],
  gapMm: number,
): boolean {
  const at = places.map(({ xMm, yMm }) => translateRings(rings, xMm, yMm));
  return at.some((one, i) =>
    at.slice(i + 1).some((other) => areaOf(intersect(grow(one, Math.max(0, gapMm - 0.02)), other)) > 0.01),
  );
}

const laid = (rings: Rings, wish: GangWish) => gangPlaces(wish, gangPitch(rings, wish));

describe('a gang', () => {
  it('in straight rows keeps its gap between the boxes, so that a knife can follow it', () => {
    expect(gangPitch([triangle], { across: 3, down: 2, rows: 'straight', gapMm: 4 })).toEqual({
      xMm: 64,
      yMm: 44,
      shiftMm: 0,
    });
    expect(laid([triangle], { across: 2, down: 2, rows: 'straight', gapMm: 4 })).toEqual([
      { xMm: 0, yMm: 0 },
      { xMm: 64, yMm: 0 },
      { xMm: 0, yMm: 44 },
      { xMm: 64, yMm: 44 },
    ]);
  });
  it('shifts every other row of discs by half, where that is smaller', () => {
    const { xMm, yMm, shiftMm } = gangPitch([circle(20)], { across: 5, down: 5, rows: 'tight', gapMm: 2 });
    expect([xMm, shiftMm]).toEqual([expect.closeTo(42, 0), expect.closeTo(21, 0)]);
    expect(yMm).toBeGreaterThan(42 * Math.sin(Math.PI / 3) - 0.05);
    expect(yMm).toBeLessThan(42 * Math.sin(Math.PI / 3) + 0.5);
    // Two rows of two would be longer by the shift than they are lower.
    expect(gangPitch([circle(20)], { across: 1, down: 1, rows: 'tight', gapMm: 2 }).shiftMm).toBe(0);
  });
  it('has one place only, of nothing and of one copy', () => {
    expect(laid([], { across: 1, down: 1, rows: 'tight', gapMm: 3 })).toEqual([{ xMm: 0, yMm: 0 }]);
    expect(laid([triangle], { across: 1, down: 1, rows: 'straight', gapMm: 3 })).toEqual([{ xMm: 0, yMm: 0 }]);
  });

  it.each(Array.from({ length: 24 }, (_, seed) => seed))(
    'tight keeps the gap, takes no more room than a straight one, and no row could be nearer, seed %i',
    (seed) => {
      const random = seeded(seed);
      const blob = (x: number, y: number): Ring => {
        const n = 5 + Math.floor(random() * 9);
        return Float64Array.from(
          Array.from({ length: n }, (_, i) => {
            const r = 8 + 22 * random();
            return [x + r * Math.cos((i * 2 * Math.PI) / n), y + r * Math.sin((i * 2 * Math.PI) / n)];
          }).flat(),
        );
      };
      const rings = unite(seed % 3 === 0 ? [blob(0, 0), blob(55 * random(), 40 * random())] : [blob(0, 0)]);
      const wish: GangWish = {
        across: 1 + Math.floor(random() * 4),
        down: 1 + Math.floor(random() * 4),
        rows: 'tight',
        gapMm: Math.round(random() * 6),
      };
      const [tight, straight] = [laid(rings, wish), laid(rings, { ...wish, rows: 'straight' })];
      expect(areTooNear(rings, tight, wish.gapMm)).toBe(false);
      const size = (places: typeof tight) => {
        const box = boundsOf(places.flatMap(({ xMm, yMm }) => translateRings(rings, xMm, yMm)))!;
        return (box.maxX - box.minX) * (box.maxY - box.minY);
      };
      expect(size(tight)).toBeLessThanOrEqual(size(straight) + 1e-6);
      // Without the few hundredths that simpler outlines keep more, neighbours in a row touch the gap.
      const { xMm } = gangPitch(rings, wish);
      const box = boundsOf(rings)!;
      const isStraight = xMm > box.maxX - box.minX + wish.gapMm - 1e-6;
      if (wish.gapMm >= 1 && !isStraight)
        expect(
          areTooNear(
            rings,
            [
              { xMm: 0, yMm: 0 },
              { xMm: xMm - 0.4, yMm: 0 },
            ],
            wish.gapMm,
          ),
        ).toBe(true);
    },
  );

  it('lays designs with a box as straight ones', () => {
    const box = boxRing({ minX: 3, minY: 5, maxX: 43, maxY: 25 });
    expect(gangPitch([box], { across: 4, down: 3, rows: 'tight', gapMm: 3 })).toEqual({
      xMm: expect.closeTo(43, 6),
      yMm: expect.closeTo(23, 6),
      shiftMm: 0,
    });
  });
});
