import { describe, expect, it } from 'vitest';
import { blob, disc, rectangle, seeded } from '../testing/seeded.js';
import {
  fingerprintOf,
  areaOf,
  boundsOf,
  boxRing,
  clipRingToBox,
  compose,
  containsPoint,
  CurvesBuilder,
  flatten,
  grow,
  growTracingLost,
  IDENTITY,
  intersect,
  KernelError,
  noFitOutline,
  perimeter,
  regionsOf,
  rotation,
  scaling,
  signedArea,
  simplifyRing,
  stretchOf,
  strokeArea,
  subtract,
  translateRings,
  unite,
} from './index.js';

const SEEDS = Array.from({ length: 30 }, (_, seed) => seed);

describe('Booleans', () => {
  it.each(SEEDS)('add up: |A∪B| + |A∩B| = |A| + |B| and A−B does not meet B, seed %i', (seed) => {
    const random = seeded(seed);
    const a = unite([blob(random, 0, 0, 30)]);
    const b = unite([blob(random, 10, 5, 30)]);
    expect(areaOf(unite([...a, ...b])) + areaOf(intersect(a, b))).toBeCloseTo(areaOf(a) + areaOf(b), 3);
    expect(areaOf(intersect(subtract(a, b), b))).toBeLessThan(1e-3);
  });

  it('makes outers positive and holes negative, by either rule', () => {
    const rings = unite([disc(0, 0, 10), disc(0, 0, 5)], 'evenodd');
    expect(rings.map((ring) => Math.sign(signedArea(ring))).sort()).toEqual([-1, 1]);
    expect(unite([disc(0, 0, 10), disc(0, 0, 5)])).toHaveLength(1);
  });

  it('gives nothing for nothing', () => {
    expect([unite([]), intersect([], [disc(0, 0, 1)]), subtract([], [disc(0, 0, 1)]), grow([], 1)]).toEqual([
      [],
      [],
      [],
      [],
    ]);
  });

  it('refuses a coordinate that is not finite instead of answering with nothing', () => {
    expect(() => unite([Float64Array.of(0, 0, 1, NaN, 1, 1)])).toThrow(KernelError);
  });

  it('leaves nothing behind in the kernel after ten thousand operations', () => {
    const [a, b] = [[rectangle(0, 0, 10, 10)], [rectangle(5, 5, 10, 10)]];
    for (let i = 0; i < 10_000; i += 1) intersect(a, b);
    const before = process.memoryUsage().arrayBuffers;
    for (let i = 0; i < 10_000; i += 1) intersect(a, b);
    // The kernel's memory is one array buffer that grows when objects are not deleted.
    expect(process.memoryUsage().arrayBuffers - before).toBeLessThan(1_000_000);
  });
});

describe('offsets', () => {
  it.each(SEEDS)('grow by d and stay within d, seed %i', (seed) => {
    const random = seeded(seed);
    const a = unite([blob(random, 0, 0, 20)]);
    const d = 0.2 + random();
    const grown = grow(a, d);
    expect(areaOf(subtract(a, grown))).toBeLessThan(1e-3);
    expect(areaOf(grown)).toBeLessThanOrEqual(areaOf(a) + perimeter(a[0]!) * d + Math.PI * d * d + 1e-3);
  });

  it('follow the true arc round a corner', () => {
    expect(areaOf(grow([rectangle(0, 0, 10, 10)], 2))).toBeCloseTo(100 + 80 + Math.PI * 4, 1);
  });

  it('shrink a narrow part to nothing', () => {
    expect(grow([rectangle(0, 0, 10, 0.5)], -0.3)).toEqual([]);
  });
});

describe('curves', () => {
  const circle = new CurvesBuilder()
    .add('M', 10, 0)
    .add('A', 0, 0, 10, 10, 0, 0, 2 * Math.PI)
    .add('Z')
    .build();

  it.each([0.1, 0.01, 0.001])('stay within %d mm of the true circle', (tolerance) => {
    const [line] = flatten(circle, IDENTITY, tolerance);
    const p = line!.points;
    for (let i = 0; i < p.length; i += 2) {
      const j = (i + 2) % p.length;
      expect(Math.hypot((p[i]! + p[j]!) / 2, (p[i + 1]! + p[j + 1]!) / 2)).toBeGreaterThan(10 - tolerance * 1.001);
    }
  });

  it('are cut finer when they are enlarged', () => {
    const count = (k: number) => flatten(circle, scaling(k), 0.01)[0]!.points.length;
    expect(count(100) / count(1)).toBeCloseTo(10, 0);
  });

  it('keep a subpath of one point, which a round cap may draw', () => {
    expect(flatten(new CurvesBuilder().add('M', 3, 4).build(), IDENTITY, 0.01)[0]!.points).toEqual(
      Float64Array.of(3, 4),
    );
  });

  it('are turned and mirrored by their matrix', () => {
    expect(stretchOf(compose(rotation(30), scaling(3, -2)))).toBeCloseTo(3, 9);
  });
});

describe('strokes', () => {
  const line = (closed: boolean, ...points: number[]) => [{ points: Float64Array.from(points), closed }];
  const style = { width: 2, join: 'miter', cap: 'butt', miterLimit: 4 } as const;
  const area = (rings: ReturnType<typeof strokeArea>) => areaOf(unite(rings));

  it.each(SEEDS)('end square to their curve, however tightly it bends there, seed %i', (seed) => {
    const random = seeded(seed);
    const at = () => [50 * random(), 50 * random()] as const;
    const [from, b, to] = [at(), at(), at()];
    // The nearer a handle lies to its end, the tighter the curve bends there.
    const near = 10 ** (-1 + 2 * random());
    const turn = 2 * Math.PI * random();
    const a = [from[0] + near * Math.cos(turn), from[1] + near * Math.sin(turn)] as const;
    const half = 0.5 + 10 * random();
    const { points } = flatten(
      new CurvesBuilder()
        .add('M', ...from)
        .add('C', ...a, ...b, ...to)
        .build(),
      IDENTITY,
      0.01,
      half,
    )[0]!;
    const offBy = (x: number, y: number, directionX: number, directionY: number) =>
      half * Math.abs(Math.atan2(x * directionY - y * directionX, x * directionX + y * directionY));
    const n = points.length;
    expect(offBy(points[2]! - from[0], points[3]! - from[1], a[0] - from[0], a[1] - from[1])).toBeLessThan(0.011);
    expect(offBy(points[n - 4]! - to[0], points[n - 3]! - to[1], b[0] - to[0], b[1] - to[1])).toBeLessThan(0.011);
  });

  it('have the area of their length by their width', () => {
    expect(area(strokeArea(line(false, 0, 0, 10, 0), style, 0.001))).toBeCloseTo(20, 6);
    expect(area(strokeArea(line(false, 0, 0, 10, 0), { ...style, cap: 'square' }, 0.001))).toBeCloseTo(24, 6);
    expect(area(strokeArea(line(false, 0, 0, 10, 0), { ...style, cap: 'round' }, 0.001))).toBeCloseTo(20 + Math.PI, 1);
  });

  it('join corners as they are asked to', () => {
    const corner = (join: 'miter' | 'round' | 'bevel') =>
      area(strokeArea(line(false, 0, 0, 10, 0, 10, 10), { ...style, join }, 0.001));
    expect(corner('miter')).toBeCloseTo(40, 6);
    expect(corner('bevel')).toBeCloseTo(39.5, 6);
    expect(corner('round')).toBeCloseTo(39 + Math.PI / 4, 2);
  });

  it('bevel a corner sharper than the miter limit', () => {
    const sharp = line(false, 0, 0, 10, 0, 0, 1);
    expect(area(strokeArea(sharp, style, 0.001))).toBeCloseTo(
      area(strokeArea(sharp, { ...style, join: 'bevel' }, 0.001)),
      6,
    );
  });

  it('go round closed lines without caps', () => {
    expect(area(strokeArea(line(true, 0, 0, 10, 0, 10, 10, 0, 10), style, 0.001))).toBeCloseTo(144 - 64, 6);
  });
});

describe('pieces', () => {
  it('own the holes that lie in them, also one inside another', () => {
    const rings = unite([disc(0, 0, 20), disc(0, 0, 15), disc(0, 0, 10), disc(0, 0, 5), disc(60, 0, 4)], 'evenodd');
    const regions = regionsOf(rings).sort((a, b) => areaOf([b.outer]) - areaOf([a.outer]));
    expect(regions.map((region) => region.holes.length)).toEqual([1, 1, 0]);
    expect(boundsOf(regions[0]!.holes)!.maxX).toBeCloseTo(15, 6);
  });

  it('contain the points inside them and not those in their holes', () => {
    const rings = unite([disc(0, 0, 20), disc(0, 0, 10)], 'evenodd');
    expect([containsPoint(rings, 15, 0), containsPoint(rings, 5, 0), containsPoint(rings, 25, 0)]).toEqual([
      true,
      false,
      false,
    ]);
  });
});

describe('clipping to a box', () => {
  it.each(SEEDS)('changes nothing inside the box, holes and all, seed %i', (seed) => {
    const random = seeded(seed);
    const rings = unite([blob(random, 0, 0, 30), blob(random, 5, 5, 12), disc(0, 0, 20)], 'evenodd');
    const box = { minX: -12 + 6 * random(), minY: -10, maxX: 4 + 8 * random(), maxY: 9 };
    const inside = [
      boxRing({ minX: box.minX + 0.1, minY: box.minY + 0.1, maxX: box.maxX - 0.1, maxY: box.maxY - 0.1 }),
    ];
    const clipped = rings.map((ring) => clipRingToBox(ring, box)).filter((ring) => ring.length >= 6);
    expect(areaOf(intersect(inside, clipped))).toBeCloseTo(areaOf(intersect(inside, rings)), 6);
    expect(areaOf(subtract(inside, clipped))).toBeCloseTo(areaOf(subtract(inside, rings)), 6);
    const all = boundsOf(clipped)!;
    expect(all.minX >= box.minX && all.maxX <= box.maxX && all.minY >= box.minY && all.maxY <= box.maxY).toBe(true);
  });

  it('gives nothing of a ring that is elsewhere, and the whole of one that is inside', () => {
    const ring = disc(0, 0, 5);
    expect(clipRingToBox(ring, { minX: 10, minY: 10, maxX: 20, maxY: 20 })).toHaveLength(0);
    expect(clipRingToBox(ring, { minX: -9, minY: -9, maxX: 9, maxY: 9 })).toBe(ring);
  });
});

describe('outlines', () => {
  it.each(SEEDS)('that are simplified stay within the tolerance, seed %i', (seed) => {
    const ring = disc(0, 0, 10 + seed, 400);
    const simple = simplifyRing(ring, 0.1);
    expect(simple.length).toBeLessThan(ring.length);
    expect(areaOf(grow(subtract([ring], [simple]), -0.0501))).toBeLessThan(1e-6);
  });

  it.each(SEEDS)('placed on the edge of their no-fit area touch and do not overlap, seed %i', (seed) => {
    const random = seeded(seed);
    const a = unite([blob(random, 0, 0, 10)])[0]!;
    const b = unite([blob(random, 0, 0, 8)])[0]!;
    const edge = noFitOutline(a, b)[0]!;
    for (let i = 0; i < edge.length; i += 2) {
      expect(areaOf(intersect([a], translateRings([b], edge[i]!, edge[i + 1]!)))).toBeLessThan(1e-3);
    }
  });
});

describe('growing with an eye on what is lost', () => {
  const dumbbell = unite([rectangle(0, 0, 20, 20), rectangle(40, 0, 20, 20), rectangle(15, 9.5, 30, 1)]);

  it('grows and shrinks as grow does', () => {
    for (const d of [-1, 1])
      expect(areaOf(growTracingLost(dumbbell, d, 0.005).grown)).toBeCloseTo(areaOf(grow(dumbbell, d)), 6);
  });

  it('loses both sides of what is thinner than twice the distance, and nothing of what is not', () => {
    const { lost } = growTracingLost(dumbbell, -1, 0.005);
    expect(lost).toHaveLength(2);
    for (const box of lost) expect(box).toMatchObject({ minX: expect.closeTo(20, 6), maxX: expect.closeTo(40, 6) });
    expect(growTracingLost(dumbbell, -0.4, 0.005).lost).toEqual([]);
    expect(growTracingLost([disc(0, 0, 10)], -2, 0.005).lost).toEqual([]);
  });

  it('calls a spike lost, and a whole area that vanishes', () => {
    expect(growTracingLost([Float64Array.of(0, 0, 40, 2, 0, 4)], -0.3, 0.005).lost).toHaveLength(1);
    const [all] = growTracingLost([rectangle(0, 0, 9, 1)], -1, 0.005).lost;
    expect(all).toEqual({ minX: 0, minY: 0, maxX: 9, maxY: 1 });
  });
});

describe('a fingerprint', () => {
  it.each(Array.from({ length: 20 }, (_, seed) => seed))(
    'is the same however the same outlines are written, and another for any other, seed %i',
    (seed) => {
      const random = seeded(seed);
      const rings = Array.from({ length: 1 + Math.floor(random() * 5) }, () =>
        blob(random, random() * 100, random() * 100, 20),
      );
      const name = fingerprintOf(rings);
      const begunElsewhere = rings.map((ring) => {
        const k = 2 * Math.floor(random() * (ring.length / 2));
        return Float64Array.from([...ring.subarray(k), ...ring.subarray(0, k)]);
      });
      expect(fingerprintOf([...begunElsewhere].reverse())).toBe(name);
      expect(fingerprintOf(rings.map((ring) => ring.map((v) => Math.round(v * 1000) / 1000 + 1e-7)))).toBe(
        fingerprintOf(rings.map((ring) => ring.map((v) => Math.round(v * 1000) / 1000))),
      );
      const moved = rings.map((ring, i) => (i === 0 ? ring.map((v, k) => (k === 0 ? v + 0.01 : v)) : ring));
      expect(fingerprintOf(moved)).not.toBe(name);
      expect(fingerprintOf(rings.map((ring) => ring.map((v) => v + 0.5)))).not.toBe(name);
      expect(fingerprintOf(rings.slice(1))).not.toBe(name);
      expect(name).toMatch(/^[0-9a-f]{32}$/);
    },
  );
});
