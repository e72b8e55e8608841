import { describe, expect, it } from 'vitest';
import { containsPoint } from '../../geometry/index.js';
import { seeded } from '../../testing/seeded.js';
import { clearRooms } from './free-places.js';
import {
  APART_MM,
  boxOfFree,
  condensed,
  garmentOutline,
  GARMENTS,
  placeOn,
  printOnGarment,
  ringOfFree,
  setBeside,
  widthOnSize,
  type Flat,
  type FreePlace,
  type Garments,
  type Spot,
} from './index.js';

const board = (free: readonly FreePlace[]): Flat => ({
  kind: 'flat',
  widthMm: 400,
  heightMm: 200,
  marginMm: { top: 10, right: 10, bottom: 10, left: 10 },
  free,
  at: null,
});
const hole = (xMm: number, yMm: number, diameterMm = 30): FreePlace => ({
  shape: 'circle',
  what: 'hole',
  xMm,
  yMm,
  diameterMm,
});
const own = { widthMm: 100, heightMm: 40 };

describe('places that must stay free', () => {
  it.each(Array.from({ length: 40 }, (_, i) => i))('are never covered by what is fitted or fits, case %d', (seed) => {
    const random = seeded(seed);
    const free = Array.from({ length: 1 + Math.floor(random() * 8) }, (): FreePlace =>
      random() < 0.5
        ? hole(random() * 400, random() * 200, 5 + random() * 60)
        : {
            shape: 'rectangle',
            what: '',
            xMm: random() * 380,
            yMm: random() * 190,
            widthMm: 5 + random() * 90,
            heightMm: 5 + random() * 60,
          },
    );
    const on = board(free);
    const { design } = placeOn(on, own, { mode: 'fit' }, 0);
    // By points: none of the design's lies on a place, and none beyond the margins.
    for (let i = 0; i < 300; i += 1) {
      const [x, y] = [design.xMm + random() * design.widthMm, design.yMm + random() * design.heightMm];
      expect(free.some((place) => containsPoint([ringOfFree(place)], x, y))).toBe(false);
      expect(x >= 9.99 && x <= 390.01 && y >= 9.99 && y <= 190.01).toBe(true);
    }
    // A smaller one is set clear as well, and where the middle is free it lies in the middle.
    const small = placeOn(on, own, { mode: 'width', mm: design.widthMm / 3 }, 0);
    const box = {
      minX: small.design.xMm,
      minY: small.design.yMm,
      maxX: small.design.xMm + small.design.widthMm,
      maxY: small.design.yMm + small.design.heightMm,
    };
    for (const place of free.map(boxOfFree))
      expect(
        box.minX < place.maxX - 1e-6 &&
          box.maxX > place.minX + 1e-6 &&
          box.minY < place.maxY - 1e-6 &&
          box.maxY > place.minY + 1e-6,
      ).toBe(false);
    expect(small.movedAside).toBe(
      Math.abs(small.design.xMm - (200 - small.design.widthMm / 2)) > 0.01 ||
        Math.abs(small.design.yMm - (10 + (180 - small.design.heightMm) * 0.47)) > 0.01,
    );
  });

  it('leave the largest rooms there are: any box that is clear lies in one of them', () => {
    const random = seeded(99);
    const room = { minX: 0, minY: 0, maxX: 300, maxY: 200 };
    const free = [hole(80, 60, 40), hole(220, 120, 50), hole(150, 20, 20)];
    const rooms = clearRooms(room, free);
    let clear = 0;
    for (let i = 0; i < 4000; i += 1) {
      const [x, y] = [random() * 280, random() * 180];
      const box = {
        minX: x,
        minY: y,
        maxX: Math.min(300, x + random() * 160),
        maxY: Math.min(200, y + random() * 100),
      };
      if (
        free
          .map(boxOfFree)
          .some(
            (place) => box.minX < place.maxX && box.maxX > place.minX && box.minY < place.maxY && box.maxY > place.minY,
          )
      )
        continue;
      clear += 1;
      expect(
        rooms.some(
          (one) => one.minX <= box.minX && one.minY <= box.minY && one.maxX >= box.maxX && one.maxY >= box.maxY,
        ),
      ).toBe(true);
    }
    expect(clear).toBeGreaterThan(300);
  });
});

describe('designs beside each other', () => {
  it.each([1, 2, 5, 9, 23])('%d of them stay as far apart as is promised', (count) => {
    const random = seeded(count);
    const sizes = Array.from({ length: count }, () => ({
      widthMm: 20 + random() * 400,
      heightMm: 20 + random() * 300,
    }));
    const boxes = setBeside(sizes, APART_MM).map(({ xMm, yMm }, i) => ({
      minX: xMm,
      minY: yMm,
      maxX: xMm + sizes[i]!.widthMm,
      maxY: yMm + sizes[i]!.heightMm,
    }));
    for (const [i, a] of boxes.entries())
      for (const b of boxes.slice(i + 1))
        expect(Math.max(b.minX - a.maxX, a.minX - b.maxX, b.minY - a.maxY, a.minY - b.maxY)).toBeGreaterThanOrEqual(
          APART_MM - 1e-9,
        );
  });
});

describe('a garment', () => {
  it('has a print that keeps its share of the chest, by what a tape shows', () =>
    expect(['S', 'M', 'XXL', '128', 'none'].map((size) => widthOnSize(280, size))).toEqual([265, 280, 320, 200, 280]));

  it('has names condensed to three quarters, and then made lower', () => {
    expect(condensed(250, 300)).toEqual({ across: 1, down: 1 });
    expect(condensed(360, 300)).toEqual({ across: 300 / 360, down: 1 });
    const long = condensed(500, 300);
    // As wide as may be, and condensed by no more than is allowed: its own proportions times three quarters.
    expect([500 * long.across, long.across / long.down]).toEqual([expect.closeTo(300, 9), expect.closeTo(0.75, 9)]);
  });
});

describe('a garment laid flat', () => {
  const at = (spot: Spot, size = 'M', more: { downMm?: number; offMiddleMm?: number } = {}) =>
    printOnGarment({ spot, downMm: null, offMiddleMm: null, ...more }, size);

  it('has its prints where they are measured to be', () => {
    expect(at('full front')).toEqual({ xMm: 0, yMm: 75, turnDeg: 0 });
    expect(at('full front', 'M', { downMm: 60, offMiddleMm: 10 })).toEqual({ xMm: 10, yMm: 60, turnDeg: 0 });
    // 200 below the shoulder seam at the neck, which lies 70 above the collar's middle.
    expect(at('left chest')).toEqual({ xMm: 125, yMm: 130, turnDeg: 0 });
    expect(at('leg').yMm).toBe(130);
    // Along the fold of the sleeve, and reading down it.
    const [near, far] = [at('sleeve', 'M', { downMm: 0 }), at('sleeve')];
    expect(Math.hypot(far.xMm - near.xMm, far.yMm - near.yMm)).toBeCloseTo(100, 9);
    expect((Math.atan2(far.yMm - near.yMm, far.xMm - near.xMm) * 180) / Math.PI - 90).toBeCloseTo(far.turnDeg, 9);
  });

  it.each(
    Object.entries(GARMENTS).flatMap(([piece, spots]) =>
      spots.flatMap((spot) => ['104', 'M', 'XXL'].map((size) => [piece as Garments, spot, size] as const)),
    ),
  )('%s, %s, %s: the middle of the print’s upper edge lies on the cloth', (piece, spot, size) => {
    const { xMm, yMm } = at(spot, size);
    const { cloth } = garmentOutline(piece, spot, size);
    const isIn = (line: readonly number[]) => {
      let inside = false;
      for (let i = 0, j = line.length - 2; i < line.length; j = i, i += 2) {
        const [xa, ya, xb, yb] = [line[i]!, line[i + 1]!, line[j]!, line[j + 1]!];
        if (ya > yMm !== yb > yMm && xMm < ((xb - xa) * (yMm - ya)) / (yb - ya) + xa) inside = !inside;
      }
      return inside;
    };
    expect(cloth.some(isIn)).toBe(true);
  });
});
