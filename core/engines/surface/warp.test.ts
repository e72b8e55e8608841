import { describe, expect, it } from 'vitest';
import { areaOf, boxRing, perimeter, signedArea, type Ring } from '../../geometry/index.js';
import { seeded } from '../../testing/seeded.js';
import {
  sectorOf,
  slantOf,
  taperMap,
  unwarpPoint,
  uprightOf,
  WARP_MM,
  warpBox,
  warpLine,
  warpPoint,
  warpRings,
  whyNoCone,
  type Cone,
} from './index.js';

const tin: Cone = { d1Mm: 102, d2Mm: 86, slantMm: 118, wide: 'top' };
const shade: Cone = { d1Mm: 300, d2Mm: 140, slantMm: 220, wide: 'foot' };
const design = { widthMm: 160, heightMm: 70 };

/** The formula as it is written down for makers, worked out anew: radius and angle from the apex. */
function formula(cone: Cone, u: number, v: number): { radius: number; angle: number } {
  const inner = (cone.slantMm * cone.d2Mm) / (cone.d1Mm - cone.d2Mm);
  const middle = inner + cone.slantMm / 2;
  const sign = cone.wide === 'foot' ? 1 : -1;
  return { radius: middle + sign * (v - design.heightMm / 2), angle: (u - design.widthMm / 2) / middle };
}

function ofApex(map: ReturnType<typeof taperMap>, x: number, y: number) {
  const [dx, dy] = [x - map.apexX, (map.wide === 'foot' ? 1 : -1) * (y - map.apexY)];
  return { radius: Math.hypot(dx, dy), angle: Math.atan2(dx, dy) };
}

describe('a taper rolled out', () => {
  it('has the radii and the angle of the trade’s formula', () => {
    const { innerRadiusMm, outerRadiusMm, angleRad } = sectorOf(tin);
    expect([innerRadiusMm, outerRadiusMm, (angleRad * 180) / Math.PI]).toEqual([
      expect.closeTo(634.25, 9),
      expect.closeTo(752.25, 9),
      expect.closeTo((180 * 16) / 118, 9),
    ]);
    // Rolled up again its arcs are the circles that were measured.
    expect([outerRadiusMm * angleRad, innerRadiusMm * angleRad]).toEqual([
      expect.closeTo(Math.PI * 102, 9),
      expect.closeTo(Math.PI * 86, 9),
    ]);
  });

  it.each([
    [{ d1Mm: 0, d2Mm: 50, slantMm: 80 }, 'not-positive'],
    [{ d1Mm: 80, d2Mm: -1, slantMm: 80 }, 'not-positive'],
    [{ d1Mm: 80, d2Mm: 60, slantMm: 0 }, 'not-positive'],
    [{ d1Mm: Number.NaN, d2Mm: 60, slantMm: 90 }, 'not-positive'],
    [{ d1Mm: 80, d2Mm: 80, slantMm: 90 }, 'alike'],
    [{ d1Mm: 60, d2Mm: 80, slantMm: 90 }, 'turned-over'],
    [{ d1Mm: 200, d2Mm: 20, slantMm: 90 }, 'too-flat'],
    [{ d1Mm: 200, d2Mm: 21, slantMm: 90 }, null],
  ] as const)('of %o is refused: %s', (figures, why) => expect(whyNoCone(figures)).toBe(why));

  it('is measured along its side or upright: the other follows', () => {
    expect(slantOf(uprightOf(118, 102, 86), 102, 86)).toBeCloseTo(118, 9);
    expect(uprightOf(5, 40, 20)).toBe(0);
  });
});

describe.each([
  ['wide at the top', tin],
  ['wide at the foot', shade],
] as const)('a design bent for a taper %s', (_, cone) => {
  const map = taperMap(cone, design);

  it('lies by the formula at every point, and comes back', () => {
    const random = seeded(31);
    for (let i = 0; i < 2000; i += 1) {
      const [u, v] = [random() * design.widthMm, random() * design.heightMm];
      const [x, y] = warpPoint(map, u, v);
      const [is, wanted] = [ofApex(map, x, y), formula(cone, u, v)];
      expect(Math.abs(is.radius - wanted.radius)).toBeLessThan(1e-9);
      expect(Math.abs(is.angle - wanted.angle)).toBeLessThan(1e-12);
      const [backU, backV] = unwarpPoint(map, x, y);
      expect([backU, backV]).toEqual([expect.closeTo(u, 9), expect.closeTo(v, 9)]);
    }
  });

  it('reads upright: right stays right, down stays down, and outers stay outers', () => {
    const [left, right, lower] = [warpPoint(map, 20, 30), warpPoint(map, 120, 30), warpPoint(map, 20, 60)];
    expect([right[0] > left[0], lower[1] > left[1]]).toEqual([true, true]);
    expect(signedArea(warpRings(map, [boxRing({ minX: 10, minY: 10, maxX: 90, maxY: 50 })])[0]!)).toBeGreaterThan(0);
  });

  it('has no chord further than is promised from the true line, on a drawing of 10,000 points', () => {
    const random = seeded(7);
    const rings: Ring[] = Array.from({ length: 400 }, () => {
      const [x, y, r] = [20 + random() * 120, 15 + random() * 40, 2 + random() * 14];
      const n = 4 + Math.floor(random() * 44);
      return Float64Array.from({ length: 2 * n }, (__, i) =>
        i % 2 === 0 ? x + r * Math.cos((Math.PI * i) / n) : y + r * Math.sin((Math.PI * (i - 1)) / n),
      );
    });
    expect(rings.reduce((sum, ring) => sum + ring.length / 2, 0)).toBeGreaterThan(9_000);
    let worst = 0;
    for (const [k, ring] of warpRings(map, rings).entries()) {
      for (let i = 0; i < ring.length; i += 2) {
        const j = (i + 2) % ring.length;
        // The middle of a chord of the bent outline, by the formula turned round, lies on an edge of the flat one.
        const { radius, angle } = ofApex(map, (ring[i]! + ring[j]!) / 2, (ring[i + 1]! + ring[j + 1]!) / 2);
        const middle = formula(cone, design.widthMm / 2, design.heightMm / 2).radius;
        const [u, v] = [
          design.widthMm / 2 + angle * middle,
          design.heightMm / 2 + (cone.wide === 'foot' ? 1 : -1) * (radius - middle),
        ];
        worst = Math.max(worst, Math.sqrt(toRing(rings[k]!, u, v)));
      }
    }
    // Measured on the flat, where lengths are at most so much shorter.
    expect(worst).toBeLessThan(WARP_MM * 1.4);
    expect(worst).toBeGreaterThan(0);
  });

  it('has the areas that the integral gives', () => {
    const random = seeded(12);
    for (let i = 0; i < 60; i += 1) {
      const [minX, minY] = [random() * 80, random() * 30];
      const box = { minX, minY, maxX: minX + 5 + random() * 70, maxY: minY + 3 + random() * 35 };
      const rings = warpRings(map, [boxRing(box)]);
      // The strip at a height is as much longer as its radius.
      const { radius } = formula(cone, 0, (box.minY + box.maxY) / 2);
      const exact = ((box.maxX - box.minX) * (box.maxY - box.minY) * radius) / map.midRadiusMm;
      expect(Math.abs(areaOf(rings) - exact)).toBeLessThan(0.001 * exact + 0.01 * perimeter(rings[0]!));
    }
  });

  it('fits its box, and lines end where they should', () => {
    const box = { minX: 0, minY: 0, ...{ maxX: design.widthMm, maxY: design.heightMm } };
    const bent = warpBox(map, box);
    const random = seeded(5);
    const reached = { minX: Infinity, minY: Infinity, maxX: -Infinity, maxY: -Infinity };
    for (let i = 0; i < 6000; i += 1) {
      const [x, y] = warpPoint(map, random() * design.widthMm, random() < 0.5 ? 0 : design.heightMm);
      reached.minX = Math.min(reached.minX, x);
      reached.maxX = Math.max(reached.maxX, x);
      reached.minY = Math.min(reached.minY, y);
      reached.maxY = Math.max(reached.maxY, y);
    }
    for (const side of ['minX', 'minY', 'maxX', 'maxY'] as const)
      expect(Math.abs(bent[side] - reached[side])).toBeLessThan(0.2);
    const line = warpLine(map, [10, 10, 150, 10]);
    expect([line[0], line[1], line.at(-2), line.at(-1)]).toEqual([
      ...warpPoint(map, 10, 10),
      ...warpPoint(map, 150, 10),
    ]);
  });
});

it('the narrower the taper, the nearer is the design to the flat one', () => {
  let before = Infinity;
  for (const less of [8, 1, 0.1, 0.01, 1e-6]) {
    const map = taperMap({ d1Mm: 80, d2Mm: 80 - less, slantMm: 120, wide: 'top' }, design);
    const random = seeded(3);
    let most = 0;
    for (let i = 0; i < 300; i += 1) {
      const [u, v] = [random() * design.widthMm, random() * design.heightMm];
      const [x, y] = warpPoint(map, u, v);
      most = Math.max(most, Math.hypot(x - u, y - v));
    }
    expect(most).toBeLessThan(before);
    before = most;
  }
  expect(before).toBeLessThan(0.001);
});

/** The square of the distance of a point to an outline, edge by edge. */
function toRing(ring: Ring, px: number, py: number): number {
  let best = Infinity;
  for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [ring[j]!, ring[j + 1]!, ring[i]!, ring[i + 1]!];
    const share = Math.max(
      0,
      Math.min(1, ((px - ax) * (bx - ax) + (py - ay) * (by - ay)) / ((bx - ax) ** 2 + (by - ay) ** 2)),
    );
    best = Math.min(best, (px - ax - share * (bx - ax)) ** 2 + (py - ay - share * (by - ay)) ** 2);
  }
  return best;
}
