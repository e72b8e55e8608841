import { describe, expect, it } from 'vitest';
import { areaOf, boxRing, intersect, subtract, unite, type Ring, type Rings } from '../../geometry/index.js';
import { seeded } from '../../testing/seeded.js';
import { CrossedLength } from './crossed-length.js';
import { MOST_PANELS, tile, type TilingWish } from './index.js';

/** What a line at x crosses, found by cutting a thin strip out of the area: shares nothing with the sweep. */
function crossedBy(areas: readonly Rings[], x: number): number {
  const width = 2e-3;
  const strip = [boxRing({ minX: x - width / 2, minY: -10_000, maxX: x + width / 2, maxY: 10_000 })];
  return areas.reduce((sum, rings) => sum + areaOf(intersect(rings, strip)) / width, 0);
}

/** The same by where edges cross the line, for many lines: an even number, the area between each two. */
function lengthAt(rings: Rings, x: number): number {
  const ys: number[] = [];
  for (const ring of rings) {
    for (let i = 0, j = ring.length - 2; i < ring.length; j = i, i += 2) {
      if (ring[j]! > x !== ring[i]! > x)
        ys.push(ring[j + 1]! + ((ring[i + 1]! - ring[j + 1]!) * (x - ring[j]!)) / (ring[i]! - ring[j]!));
    }
  }
  ys.sort((a, b) => a - b);
  return ys.reduce((sum, y, i) => (i % 2 === 1 ? sum + y - ys[i - 1]! : sum), 0);
}

/** The least that lines for so many panels cross, by trying every tenth of a millimetre, with all the room that the roll leaves. */
function bruteForce(areas: readonly Rings[], count: number, { widthMm, rollMm, lapMm }: TilingWish): number {
  const grid = Array.from({ length: Math.floor(widthMm * 10) + 1 }, (_, i) => i / 10);
  const costs = grid.map((x) => areas.reduce((sum, rings) => sum + lengthAt(rings, x + 1e-7), 0));
  let sums = grid.map((x, i) => (x > lapMm && x <= rollMm ? costs[i]! : Infinity));
  for (let k = 2; k < count; k += 1) {
    sums = grid.map((x, i) => {
      let best = Infinity;
      for (let j = Math.max(0, i - Math.floor((rollMm - lapMm) * 10)); j <= i - Math.ceil(lapMm * 10) - 1; j += 1)
        best = Math.min(best, sums[j]!);
      return x < widthMm ? best + costs[i]! : Infinity;
    });
  }
  return Math.min(...sums.filter((_, i) => widthMm - grid[i]! + lapMm <= rollMm && grid[i]! < widthMm));
}

function artwork(seed: number, widthMm: number): Rings[] {
  const random = seeded(seed);
  const shape = (): Ring => {
    const [x, y, r] = [random() * widthMm, random() * 60, 3 + random() * 25];
    const n = 3 + Math.floor(random() * 6);
    if (random() < 0.4)
      return boxRing({ minX: Math.max(0, x - r), minY: y, maxX: Math.min(widthMm, x + r), maxY: y + r });
    return Float64Array.from({ length: 2 * n }, (_, i) =>
      i % 2 === 0
        ? Math.min(widthMm, Math.max(0, x + r * Math.cos((Math.PI * i) / n)))
        : y + r * Math.sin((Math.PI * (i - 1)) / n),
    );
  };
  return [1, 2].map(() => unite(Array.from({ length: 6 + Math.floor(random() * 10) }, shape)));
}

describe('what a line crosses', () => {
  it.each([1, 2, 3, 4])('is what a thin strip cuts out, anywhere, of artwork %d', (seed) => {
    const areas = artwork(seed, 300);
    const crossed = new CrossedLength(areas);
    const random = seeded(seed + 100);
    for (let i = 0; i < 200; i += 1) {
      const x = random() * 320 - 10;
      // Where the strip holds an upright edge it says something between its two sides.
      if (crossed.corners.some((corner) => Math.abs(corner - x) < 2e-3)) continue;
      expect(Math.abs(crossed.at(x) - crossedBy(areas, x))).toBeLessThan(0.06);
    }
  });

  it('counts the side where more is crossed along an upright edge', () => {
    const crossed = new CrossedLength([[boxRing({ minX: 10, minY: 0, maxX: 20, maxY: 30 })]]);
    expect([crossed.at(9.999), crossed.at(10), crossed.at(15), crossed.at(20), crossed.at(20.001)]).toEqual([
      0, 30, 30, 30, 0,
    ]);
  });

  it('is nothing of nothing', () => expect(new CrossedLength([]).at(5)).toBe(0));
});

describe('split lines', () => {
  it.each(Array.from({ length: 24 }, (_, i) => i))(
    'of artwork %d are never worse than the best at every tenth of a millimetre',
    (seed) => {
      const random = seeded(1000 + seed);
      const widthMm = 150 + Math.round(random() * 120);
      const wish = { widthMm, rollMm: 60 + Math.round(random() * 50), lapMm: [0, 5, 10][seed % 3]! };
      const areas = artwork(seed, widthMm);
      const { panels, crossedMm } = tile(areas, wish)!;
      const fewest = Math.ceil((widthMm - wish.lapMm) / (wish.rollMm - wish.lapMm) - 1e-9);
      const least = bruteForce(areas, fewest, wish);
      const more = panels.length === fewest + 1;
      expect([fewest, fewest + 1]).toContain(panels.length);
      expect(crossedMm).toBeLessThanOrEqual(more ? least / 2 + 1e-4 : least + 1e-4);
      if (more) expect(crossedMm).toBeLessThanOrEqual(bruteForce(areas, fewest + 1, wish) + 1e-4);
      expect(panels.slice(0, -1).reduce((sum, { x1 }) => sum + crossedBy(areas, x1), 0)).toBeCloseTo(crossedMm, 1);
      // Every panel fits the roll, they follow each other by the lap, and together they are the whole.
      expect(panels.every(({ x0, x1 }) => x1 - x0 <= wish.rollMm + 1e-6 && x1 > x0)).toBe(true);
      expect(
        panels
          .slice(1)
          .every(({ x0, lapMm }, k) => Math.abs(panels[k]!.x1 - lapMm - x0) < 1e-9 && lapMm === wish.lapMm),
      ).toBe(true);
      expect([panels[0]!.x0, panels.at(-1)!.x1]).toEqual([0, widthMm]);
    },
  );

  it('take every layer apart into itself and its laps, and nothing else', () => {
    for (const seed of [3, 8]) {
      const areas = artwork(seed, 240);
      const { panels } = tile(areas, { widthMm: 240, rollMm: 90, lapMm: 10 })!;
      for (const rings of areas) {
        const parts = panels.map(({ x0, x1 }) =>
          intersect(rings, [boxRing({ minX: x0, minY: -100, maxX: x1, maxY: 200 })]),
        );
        const laps = panels
          .slice(1)
          .reduce(
            (sum, { x0, lapMm }) =>
              sum + areaOf(intersect(rings, [boxRing({ minX: x0, minY: -100, maxX: x0 + lapMm, maxY: 200 })])),
            0,
          );
        expect(parts.reduce((sum, part) => sum + areaOf(part), 0)).toBeCloseTo(areaOf(rings) + laps, 3);
        expect(
          areaOf(subtract(unite(parts.flat()), rings)) + areaOf(subtract(rings, unite(parts.flat()))),
        ).toBeLessThan(1e-3);
      }
    }
  });

  it('lie in the middle of a gap, and in the widest of several', () => {
    const letters = [0, 40, 80, 150, 190].map((x) => boxRing({ minX: x, minY: 0, maxX: x + 30, maxY: 50 }));
    const { panels, crossedMm } = tile([letters], { widthMm: 220, rollMm: 150, lapMm: 0 })!;
    expect([crossedMm, panels.length, panels[0]!.x1]).toEqual([0, 2, 130]);
  });

  it('add a panel where that halves what is crossed, and not for less', () => {
    // Between 95 and 105 the least of two panels lies in a block 40 high; with three, lines lie in gaps.
    const bars = [
      boxRing({ minX: 0, minY: 0, maxX: 60, maxY: 20 }),
      boxRing({ minX: 70, minY: 0, maxX: 130, maxY: 40 }),
      boxRing({ minX: 140, minY: 0, maxX: 200, maxY: 20 }),
    ];
    expect(tile([bars], { widthMm: 200, rollMm: 105, lapMm: 0 })!.panels).toHaveLength(3);
    expect(
      tile([[boxRing({ minX: 0, minY: 0, maxX: 200, maxY: 40 })]], { widthMm: 200, rollMm: 105, lapMm: 0 })!.panels,
    ).toHaveLength(2);
  });

  it('are none for what fits, and no answer for what nobody would make', () => {
    expect(tile([], { widthMm: 100, rollMm: 100, lapMm: 5 })!.panels).toEqual([{ x0: 0, x1: 100, lapMm: 0 }]);
    expect(tile([], { widthMm: 100 * MOST_PANELS, rollMm: 50, lapMm: 5 })).toBeNull();
  });
});
