import { describe, expect, it } from 'vitest';
import { boxRing, regionsOf, type Ring } from '../../geometry/index.js';
import { seeded } from '../../testing/seeded.js';
import {
  nearestFree,
  nestingFaults,
  type NestItem,
  type NestRequest,
  type NestSheet,
  type Placement,
} from './index.js';

const item = (id: string, ring: Ring): NestItem => ({ id, quantity: 20, rotations: [0], group: regionsOf([ring]) });
const box = (w: number, h: number) => boxRing({ minX: 0, minY: 0, maxX: w, maxY: h });
const triangle = (w: number, h: number) => Float64Array.of(0, 0, w, 0, 0, h);
const sheet: NestSheet = { id: 'mat', widthMm: 120, lengthMm: 100, quantity: 1 };
const at = (id: string, copy: number, x: number, y: number, rotation = 0): Placement => ({
  item: id,
  copy,
  sheet: 'mat',
  sheetIndex: 0,
  x,
  y,
  rotation,
});

describe('a group that a hand lays', () => {
  const items = [item('a', box(30, 20)), item('b', box(40, 40))];
  const lay = (x: number, y: number, others: readonly Placement[] = [at('b', 0, 50, 30)]) =>
    nearestFree({ sheet, spacingMm: 4, items, item: 'a', rotation: 0, wish: { x, y } })(others);

  it('lies where it is wanted, where there is room', () => expect(lay(5, 5)).toEqual({ x: 5, y: 5 }));
  it('touches its neighbour at exactly the spacing when it is let go on it, on the nearest side', () => {
    const beside = lay(22, 40)!;
    expect([beside.x, beside.y]).toEqual([expect.closeTo(16, 3), expect.closeTo(40, 3)]);
    const above = lay(55, 68)!;
    expect([above.x, above.y]).toEqual([expect.closeTo(55, 3), expect.closeTo(74, 3)]);
  });
  it('stays on the sheet', () => expect(lay(-50, 200)).toEqual({ x: 0, y: 80 }));
  it('finds no place where there is none', () => {
    expect(
      nearestFree({
        sheet: { ...sheet, widthMm: 29 },
        spacingMm: 4,
        items,
        item: 'a',
        rotation: 0,
        wish: { x: 0, y: 0 },
      })([]),
    ).toBeNull();
    expect(
      lay(10, 10, [
        at('b', 0, 0, 0),
        at('b', 1, 44, 0),
        at('b', 2, 0, 44),
        at('b', 3, 44, 44),
        at('a', 0, 108, 0, 90),
        at('a', 1, 108, 34, 90),
        at('a', 2, 108, 68, 90),
      ]),
    ).toBeNull();
  });

  it.each(Array.from({ length: 20 }, (_, seed) => seed))(
    'is as near as a free place can be, and free, seed %i',
    (seed) => {
      const random = seeded(seed);
      const own = [
        item('a', seed % 2 ? triangle(25, 18) : box(22, 14)),
        item('b', triangle(40, 30)),
        item('c', box(18, 26)),
      ];
      const others: Placement[] = [];
      for (let i = 0; i < 5; i += 1) {
        const id = random() < 0.5 ? 'b' : 'c';
        const rotation = [0, 90, 180, 270][Math.floor(random() * 4)]!;
        const place = nearestFree({
          sheet,
          spacingMm: 3,
          items: own,
          item: id,
          rotation,
          wish: { x: random() * 120, y: random() * 100 },
        })(others);
        if (place) others.push(at(id, i, place.x, place.y, rotation));
      }
      const request: NestRequest = { sheets: [sheet], spacingMm: 3, items: own };
      expect(nestingFaults(request, others)).toEqual([]);
      for (let i = 0; i < 6; i += 1) {
        const wish = { x: random() * 140 - 20, y: random() * 120 - 20 };
        const rotation = [0, 180][Math.floor(random() * 2)]!;
        const found = nearestFree({ sheet, spacingMm: 3, items: own, item: 'a', rotation, wish })(others);
        const isFree = (x: number, y: number, spacingMm = 3) =>
          nestingFaults({ ...request, spacingMm }, [...others, at('a', 99, x, y, rotation)]).length === 0;
        if (found) expect(isFree(found.x, found.y)).toBe(true);
        const far = found ? Math.hypot(found.x - wish.x, found.y - wish.y) : 60;
        // Looked for by throwing: nothing that is nearer has room. Corners keep more than the spacing clear of them, so room is what has twice as much.
        for (let k = 0; k < 60; k += 1) {
          const [r, turn] = [random() * Math.max(0, far - 0.1), random() * 2 * Math.PI];
          if (r > 0) expect(isFree(wish.x + r * Math.cos(turn), wish.y + r * Math.sin(turn), 6.6)).toBe(false);
        }
      }
    },
  );
});
