import { describe, expect, it } from 'vitest';
import { blob, disc, rectangle, seeded } from '../testing/seeded.js';
import {
  areaOf,
  boundsOf,
  convexParts,
  convexSum,
  intersect,
  mirrored,
  noFitOutline,
  outerBoundary,
  roomInside,
  signedArea,
  subtract,
  translateRings,
  unite,
  type Ring,
} from './index.js';

const SEEDS = Array.from({ length: 20 }, (_, seed) => seed);
const shape = (random: () => number, size: number): Ring =>
  [...unite([blob(random, 0, 0, size)])].sort((a, b) => signedArea(b) - signedArea(a))[0]!;
const isConvex = (ring: Ring) => {
  const n = ring.length / 2;
  return Array.from({ length: n }, (_, i) => {
    const [a, b, c] = [i, (i + 1) % n, (i + 2) % n];
    return (
      (ring[2 * b]! - ring[2 * a]!) * (ring[2 * c + 1]! - ring[2 * b + 1]!) -
      (ring[2 * b + 1]! - ring[2 * a + 1]!) * (ring[2 * c]! - ring[2 * b]!)
    );
  }).every((turn) => turn > -1e-6);
};

describe('convex parts', () => {
  it.each(SEEDS)('are convex and make up the whole without overlapping, seed %i', (seed) => {
    const ring = shape(seeded(seed), 20);
    const parts = convexParts(ring);
    expect(parts.every(isConvex)).toBe(true);
    expect(parts.reduce((sum, part) => sum + signedArea(part), 0)).toBeCloseTo(signedArea(ring), 4);
    expect(areaOf(subtract([ring], parts))).toBeLessThan(1e-2);
  });

  it('of a convex outline are itself, whichever way it runs, and of nothing none', () => {
    expect(convexParts(rectangle(0, 0, 3, 2))).toHaveLength(1);
    expect(
      signedArea(
        convexParts(
          rectangle(0, 0, 3, 2)
            .slice()
            .reverse()
            .map((_, i, all) => all[i % 2 === 0 ? i + 1 : i - 1]!),
        )[0]!,
      ),
    ).toBeCloseTo(6);
    expect(convexParts(Float64Array.of(0, 0, 1, 1, 2, 2))).toEqual([]);
  });

  it('added up side by side: a square and a square make one of twice the side', () => {
    const sum = convexSum(rectangle(0, 0, 2, 2), rectangle(1, 1, 2, 2));
    expect([signedArea(sum), boundsOf([sum])]).toEqual([16, { minX: 1, minY: 1, maxX: 5, maxY: 5 }]);
  });
});

describe('the outer boundary', () => {
  it.each(SEEDS)('is that of the union of the kernel, seed %i', (seed) => {
    const random = seeded(seed);
    const sums = convexParts(shape(random, 20)).flatMap((a) =>
      convexParts(mirrored(shape(seeded(seed + 100), 15))).map((b) => convexSum(a, b)),
    );
    const walked = outerBoundary(sums)!;
    const filled = unite(sums).filter((ring) => signedArea(ring) > 0);
    expect(filled).toHaveLength(1);
    expect(areaOf(subtract(filled, [walked])) + areaOf(subtract([walked], filled))).toBeLessThan(0.05);
  });

  it('of outlines that share whole edges leaves nothing of them', () => {
    const grid = Array.from({ length: 16 }, (_, i) => rectangle((i % 4) * 10, Math.floor(i / 4) * 10, 10, 10));
    expect(signedArea(outerBoundary(grid)!)).toBeCloseTo(1600, 1);
  });
});

describe('places inside of an outline', () => {
  it.each(SEEDS)('are inside, and a step beyond their edge is not, seed %i', (seed) => {
    const random = seeded(seed);
    const [room, small] = [shape(random, 40), shape(random, 8)];
    for (const ring of roomInside(room, small)) {
      for (let i = 0; i < ring.length; i += 2) {
        const [x, y] = [ring[i]!, ring[i + 1]!];
        expect(areaOf(subtract(translateRings([small], x, y), [room]))).toBeLessThan(0.01);
      }
      const outside = unite(noFitOutline(ring, disc(0, 0, 0.2, 8)));
      const [x, y] = [outside[0]![0]!, outside[0]![1]!];
      expect(areaOf(subtract(translateRings([small], x, y), [room]))).toBeGreaterThan(0);
    }
  });

  it('are none where it is too large, and one where it just fits', () => {
    expect(roomInside(rectangle(0, 0, 10, 10), rectangle(0, 0, 11, 5))).toEqual([]);
    const [only] = roomInside(rectangle(0, 0, 10, 10), rectangle(0, 0, 8, 9));
    expect(boundsOf([only!])).toEqual({ minX: 0, minY: 0, maxX: 2, maxY: 1 });
    expect(areaOf(intersect([only!], [rectangle(0, 0, 2, 1)]))).toBeCloseTo(2, 4);
  });
});
