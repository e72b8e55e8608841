import { describe, expect, it } from 'vitest';
import { seeded } from '../../testing/seeded.js';
import type { Box } from '../../geometry/index.js';
import { placeSeveral, takesSeveral, type OneOfSeveral, type SeveralWish } from './several.js';
import type { Cylinder, Flat } from './surface.js';
import type { Size } from './surface-kind.js';

const board: Flat = {
  kind: 'flat',
  widthMm: 600,
  heightMm: 400,
  marginMm: { top: 10, right: 20, bottom: 30, left: 40 },
  free: [],
  at: null,
};
const mug: Cylinder = {
  kind: 'cylinder',
  diameterMm: 82,
  straightHeightMm: 90,
  lipMm: 12,
  footMm: 5,
  gapMm: 30,
  hand: 'right',
  side: 'holder',
  wraps: false,
  at: null,
};
const fit = (count: number, more: Partial<SeveralWish> = {}): SeveralWish => ({
  size: { mode: 'fit' },
  widthsMm: new Array<null>(count).fill(null),
  betweenMm: null,
  ...more,
});
const boxOf = ({ xMm, yMm, widthMm, heightMm }: OneOfSeveral, by = 0): Box => ({
  minX: xMm - by,
  minY: yMm - by,
  maxX: xMm + widthMm + by,
  maxY: yMm + heightMm + by,
});
const apart = (a: Box, b: Box) => Math.max(a.minX - b.maxX, b.minX - a.maxX, a.minY - b.maxY, b.minY - a.maxY);
const holds = (outer: Box, inner: Box) =>
  inner.minX >= outer.minX - 0.011 &&
  inner.minY >= outer.minY - 0.011 &&
  inner.maxX <= outer.maxX + 0.011 &&
  inner.maxY <= outer.maxY + 0.011;
const wide = { widthMm: 120, heightMm: 40 };

describe('several designs on a board', () => {
  it('are balanced: as much between two as at their ends', () => {
    const { designs, rows, betweenMm } = placeSeveral(
      board,
      [wide, wide, wide],
      fit(3, { size: { mode: 'width', mm: 120 } }),
      0,
    );
    expect(rows).toEqual([1, 1, 1]);
    // 360 high between the margins, three times 40: 60 everywhere, the ends by the optical centre.
    expect(betweenMm).toBeCloseTo(60, 6);
    expect(designs.map(({ xMm }) => xMm)).toEqual([250, 250, 250]);
    expect(designs[0]!.yMm).toBeCloseTo(10 + 120 * 0.47, 6);
    expect(designs[1]!.yMm - designs[0]!.yMm).toBeCloseTo(100, 6);
  });

  it('stand in columns where rows are of one length', () => {
    const small = { widthMm: 30, heightMm: 20 };
    const { designs, rows } = placeSeveral(board, [wide, wide, small, small], fit(4, { size: { mode: 'own' } }), 0);
    expect(rows).toEqual([2, 2]);
    const middles = designs.map(({ xMm, widthMm }) => xMm + widthMm / 2);
    expect([middles[2], middles[3]]).toEqual([expect.closeTo(middles[0]!, 9), expect.closeTo(middles[1]!, 9)]);
  });

  it('keep what is wanted between them, and lie in the middle then', () => {
    const { designs } = placeSeveral(
      board,
      [wide, wide],
      fit(2, { size: { mode: 'width', mm: 120 }, betweenMm: 8 }),
      0,
    );
    const [a, b] = designs as [OneOfSeveral, OneOfSeveral];
    expect(apart(boxOf(a), boxOf(b))).toBeCloseTo(8, 6);
  });

  it('leave a width of its own alone when they are fitted', () => {
    const { designs, scale } = placeSeveral(board, [wide, wide], fit(2, { widthsMm: [null, 60] }), 0);
    expect(designs[1]!.widthMm).toBeCloseTo(60, 9);
    expect(designs[0]!.scale).toBe(scale);
    expect(scale).toBeGreaterThan(2);
  });

  it('are made smaller until they are clear of what must stay free, when they can be', () => {
    const handle = { shape: 'rectangle', what: 'handle', xMm: 270, yMm: 0, widthMm: 60, heightMm: 400 } as const;
    const { designs, trouble } = placeSeveral({ ...board, free: [handle] }, [wide, wide], fit(2), 0);
    expect(trouble).toBeNull();
    for (const one of designs) expect(boxOf(one).maxX <= 270.02 || boxOf(one).minX >= 329.98).toBe(true);
    const all = { ...handle, xMm: 0, widthMm: 600 };
    expect(placeSeveral({ ...board, free: [all] }, [wide, wide], fit(2), 0).trouble).toBe('on-free-place');
  });

  it('say when they do not fit, and when nothing would', () => {
    expect(placeSeveral(board, [wide, wide], fit(2, { size: { mode: 'width', mm: 500 } }), 0).trouble).toBe(null);
    expect(placeSeveral(board, [wide, wide, wide], fit(3, { size: { mode: 'width', mm: 500 } }), 0).trouble).toBe(
      'too-large',
    );
    expect(
      placeSeveral({ ...board, marginMm: { top: 200, right: 0, bottom: 200, left: 0 } }, [wide, wide], fit(2), 0)
        .trouble,
    ).toBe('no-room');
  });

  it.each(Array.from({ length: 40 }, (_, i) => i + 1))(
    'seed %d: what is fitted lies within, apart, each on a part of its own, and no layout in rows takes it larger',
    (seed) => {
      const random = seeded(seed);
      const count = 1 + Math.floor(random() * 7);
      const own: Size[] = Array.from({ length: count }, () => ({
        widthMm: 20 + random() * 200,
        heightMm: 10 + random() * 120,
      }));
      const reach = random() < 0.5 ? 0 : random() * 6;
      const placed = placeSeveral(board, own, fit(count), reach);
      const room = { minX: 40, minY: 10, maxX: 580, maxY: 370 };
      expect(placed.trouble).toBeNull();
      for (const [i, one] of placed.designs.entries()) {
        expect(holds(room, boxOf(one, reach))).toBe(true);
        expect(holds(one.cell, boxOf(one, Math.min(reach, 9)))).toBe(true);
        for (const other of placed.designs.slice(i + 1)) {
          expect(apart(boxOf(one, reach), boxOf(other, reach))).toBeGreaterThan(20 - 1e-6);
          expect(apart(one.cell, other.cell)).toBeGreaterThan(-1e-6);
        }
      }
      // Any other way to part them into rows, in their order, at a scale a hundredth larger: too wide or too high.
      const scale = placed.scale * 1.01;
      for (let breaks = 0; breaks < 2 ** (count - 1); breaks += 1) {
        const rows: Size[][] = [[]];
        own.forEach((one, i) => {
          if (i > 0 && breaks & (1 << (i - 1))) rows.push([]);
          rows.at(-1)!.push(one);
        });
        // Only rows as even as can be are laid.
        const lengths = rows.map((row) => row.length);
        if (
          Math.max(...lengths) - Math.min(...lengths) > 1 ||
          lengths.some((length, i) => i > 0 && length > lengths[i - 1]!)
        )
          continue;
        const width = Math.max(
          ...rows.map(
            (row) => row.reduce((sum, { widthMm }) => sum + widthMm * scale + 2 * reach, 0) + (row.length - 1) * 20,
          ),
        );
        const height =
          rows.reduce((sum, row) => sum + Math.max(...row.map(({ heightMm }) => heightMm)) * scale + 2 * reach, 0) +
          (rows.length - 1) * 20;
        expect(width > 540 - 1e-6 || height > 360 - 1e-6).toBe(true);
      }
    },
  );
});

describe('several designs round a thing', () => {
  const round = Math.PI * 82;
  const middles = (surface: Cylinder, count: number) =>
    placeSeveral(surface, new Array<Size>(count).fill(wide), fit(count), 0).designs.map(({ side, xMm, widthMm }) => [
      side,
      Number((xMm + widthMm / 2).toFixed(3)),
    ]);

  it('face the holder, the room, and lie opposite the handle', () => {
    const at = {
      holder: Number(((3 * round) / 4).toFixed(3)),
      room: Number((round / 4).toFixed(3)),
      front: Number((round / 2).toFixed(3)),
    };
    expect(middles(mug, 2)).toEqual([
      ['holder', at.holder],
      ['room', at.room],
    ]);
    expect(middles({ ...mug, side: 'room' }, 2)).toEqual([
      ['room', at.room],
      ['holder', at.holder],
    ]);
    expect(middles({ ...mug, side: 'front' }, 3)).toEqual([
      ['front', at.front],
      ['holder', at.holder],
      ['room', at.room],
    ]);
    expect(middles({ ...mug, hand: 'left' }, 2)).toEqual([
      ['holder', at.room],
      ['room', at.holder],
    ]);
  });

  it('are spread evenly where there is no handle, or where they are more', () => {
    expect(middles({ ...mug, gapMm: 0 }, 4).map(([side, at]) => [side, at])).toEqual(
      [1, 3, 5, 7].map((k) => [null, Number(((k * round) / 8).toFixed(3))]),
    );
    expect(middles(mug, 5).map(([side]) => side)).toEqual([null, null, null, null, null]);
  });

  it.each(Array.from({ length: 30 }, (_, i) => i + 1))(
    'seed %d: keep to a third of the way round, off the handle, and apart',
    (seed) => {
      const random = seeded(seed);
      const count = 2 + Math.floor(random() * 4);
      const surface: Cylinder = {
        ...mug,
        diameterMm: 60 + random() * 200,
        gapMm: random() < 0.3 ? 0 : 20 + random() * 20,
        side: (['holder', 'room', 'front', 'both'] as const)[Math.floor(random() * 4)]!,
      };
      const own: Size[] = Array.from({ length: count }, () => ({
        widthMm: 20 + random() * 100,
        heightMm: 10 + random() * 60,
      }));
      const placed = placeSeveral(surface, own, fit(count), 0);
      const way = Math.PI * surface.diameterMm;
      expect(placed.trouble).toBeNull();
      for (const [i, one] of placed.designs.entries()) {
        const box = boxOf(one);
        expect(one.widthMm).toBeLessThanOrEqual(way / 3 + 1e-6);
        expect(box.minX).toBeGreaterThanOrEqual(surface.gapMm / 2 - 1e-6);
        expect(box.maxX).toBeLessThanOrEqual(way - surface.gapMm / 2 + 1e-6);
        expect(box.minY).toBeGreaterThanOrEqual(12 - 1e-6);
        expect(box.maxY).toBeLessThanOrEqual(85 + 1e-6);
        for (const other of placed.designs.slice(i + 1)) {
          expect(apart(box, boxOf(other))).toBeGreaterThan(20 - 1e-6);
          expect(apart(one.cell, other.cell)).toBeGreaterThan(-1e-6);
        }
      }
    },
  );

  it('are not taken by what bends otherwise, or where one goes all the way round', () => {
    expect([board, mug, { ...mug, wraps: true }, { kind: 'unmeasured' } as const].map(takesSeveral)).toEqual([
      true,
      true,
      false,
      false,
    ]);
  });
});
