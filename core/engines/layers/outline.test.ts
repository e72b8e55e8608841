import { describe, expect, it } from 'vitest';
import { areaOf, countPieces, grow, intersect, regionsOf, ringsOf, subtract, unite } from '../../geometry/index.js';
import { disc, rectangle, seeded } from '../../testing/seeded.js';
import { knockedOut, leastForBridges, leastForOnePiece, outlineArea, thinParts } from './index.js';

describe('an outline', () => {
  const square = [rectangle(0, 0, 20, 20)];
  it.each([
    ['round', 400 + 80 * 3 + Math.PI * 9 - 0.06],
    ['mitred', 26 * 26],
    ['bevelled', 400 + 80 * 3 + 4 * 4.5],
  ] as const)('%s has the corners it is asked for', (join, area) =>
    expect(areaOf(outlineArea(square, 3, join, 0))).toBeCloseTo(area, 1),
  );

  it('keeps holes that are wide, and fills narrow ones', () => {
    const ring = unite(
      [rectangle(0, 0, 60, 60), ...unite([rectangle(20, 20, 20, 20)]).map((hole) => hole.slice())],
      'evenodd',
    );
    expect(countPieces(outlineArea(ring, 3, 'round', 0)).holes).toBe(1);
    expect(countPieces(outlineArea(ring, 3, 'round', 13)).holes).toBe(1);
    expect(countPieces(outlineArea(ring, 3, 'round', 15)).holes).toBe(0);
  });
});

describe('the voids of an outline', () => {
  /** A frame of 60 with an opening of 40, and a dot in it. */
  const frame = (dot: number) =>
    unite([rectangle(0, 0, 60, 60), rectangle(10, 10, 40, 40), disc(30, 30, dot)], 'evenodd');
  it('are what lies between it and an island, which goes with what is filled', () => {
    // Grown by 2, the opening is 36 wide and the dot 2 larger: between them are 4 mm where they are nearest.
    expect(countPieces(outlineArea(frame(12), 2, 'round', 0))).toEqual({ pieces: 2, holes: 1 });
    expect(countPieces(outlineArea(frame(12), 2, 'round', 3))).toEqual({ pieces: 2, holes: 1 });
    const filled = outlineArea(frame(18), 2, 'round', 20);
    expect([countPieces(filled), areaOf(filled)]).toEqual([{ pieces: 1, holes: 0 }, expect.closeTo(64 * 64, -1)]);
  });
  it('narrow all round a dot, are filled though the opening is wide', () => {
    const round = unite([rectangle(0, 0, 60, 60), disc(30, 30, 20), disc(30, 30, 15)], 'evenodd');
    expect(countPieces(outlineArea(round, 2, 'round', 0.9))).toEqual({ pieces: 2, holes: 1 });
    expect(countPieces(outlineArea(round, 2, 'round', 1.2))).toEqual({ pieces: 1, holes: 0 });
  });
});

describe('the least outline', () => {
  it('that makes one piece is half the widest clearance that must be bridged', () => {
    // Gaps of 4, 10 and 6 mm: 10 is the longest edge of the tree.
    const row = [rectangle(0, 0, 10, 10), rectangle(14, 0, 10, 10), rectangle(34, 0, 10, 10), rectangle(50, 0, 10, 10)];
    expect(Math.abs(leastForOnePiece(row) - 5)).toBeLessThan(0.051);
    expect(leastForOnePiece([rectangle(0, 0, 9, 9)])).toBe(0);
  });

  it.each([1, 2, 3, 4, 5, 6])('agrees with the minimum spanning tree of the clearances of discs, seed %i', (seed) => {
    const random = seeded(seed);
    const discs = Array.from({ length: 9 }, () => ({ x: 150 * random(), y: 100 * random(), r: 2 + 6 * random() }));
    const apart = (a: (typeof discs)[number], b: (typeof discs)[number]) =>
      Math.max(0, Math.hypot(a.x - b.x, a.y - b.y) - a.r - b.r);
    const tree = new Set([0]);
    let longest = 0;
    while (tree.size < discs.length) {
      const [next, length] = discs
        .map((d, i) => [i, tree.has(i) ? Infinity : Math.min(...[...tree].map((j) => apart(d, discs[j]!)))] as const)
        .reduce((best, one) => (one[1] < best[1] ? one : best));
      tree.add(next);
      longest = Math.max(longest, length);
    }
    expect(Math.abs(leastForOnePiece(unite(discs.map((d) => disc(d.x, d.y, d.r, 240)))) - longest / 2)).toBeLessThan(
      0.06,
    );
  });

  it('whose bridges can be weeded has no part thinner than that, and a little less has', () => {
    const two = unite([disc(0, 0, 10, 200), disc(30, 0, 10, 200)]);
    const one = leastForOnePiece(two);
    const wide = leastForBridges(two, one, 3);
    expect(wide).toBeGreaterThanOrEqual(one);
    expect(thinParts(outlineArea(two, wide, 'round', 0), 3)).toEqual([]);
  });
});

describe('a knock-out', () => {
  it('takes shapes and clear space out of a base', () => {
    const open = knockedOut([rectangle(0, 0, 100, 60)], [rectangle(30, 20, 40, 20)], {
      clearanceMm: 2,
      fillBelowMm: 0,
      dropBelowMm2: 1,
    });
    expect(areaOf(open)).toBeCloseTo(6000 - (800 + 120 * 2 + Math.PI * 4), 1);
  });

  it.each(Array.from({ length: 50 }, (_, seed) => seed))(
    'keeps its clearance, and leaves nothing inside or between that is narrower than it was told, seed %i',
    (seed) => {
      const random = seeded(seed);
      // Rings and bars beside each other, like letters of a word.
      const shapes = unite(
        Array.from({ length: 5 }, (_, i) => {
          const [x, r] = [20 * i + 15 + 3 * random(), 6 + 3 * random()];
          return random() < 0.5
            ? subtract([disc(x, 30, r, 80)], [disc(x, 30, r * (0.3 + 0.4 * random()), 60)])
            : [rectangle(x - r / 2, 20 + 4 * random(), r, 18)];
        }).flat(),
      );
      const base = [rectangle(0, 0, 120, 60)];
      const [clearanceMm, fillBelowMm, dropBelowMm2] = [
        0.5 + 2 * random(),
        [0, 3, 6, 100_000][seed % 4]!,
        [1, 40][seed % 2]!,
      ];
      const open = knockedOut(base, shapes, { clearanceMm, fillBelowMm, dropBelowMm2 });
      // Never nearer than the clearance, and exactly so far where nothing was filled or dropped.
      expect(areaOf(intersect(open, grow(shapes, clearanceMm - 0.02)))).toBeLessThan(1e-3);
      expect(areaOf(subtract(subtract(base, grow(shapes, clearanceMm + 0.02)), open))).toBeLessThanOrEqual(
        areaOf(subtract(base, grow(shapes, clearanceMm))) - areaOf(open) + 1e-3,
      );
      const pieces = regionsOf(open).map((region) => ringsOf([region]));
      for (const piece of pieces) expect(areaOf(piece)).toBeGreaterThanOrEqual(dropBelowMm2);
      const [ground, ...inside] = pieces.sort((a, b) => areaOf(b) - areaOf(a));
      // What closes a gap between shapes is the ground's own.
      for (const island of inside) expect(grow(island, -fillBelowMm / 2 + 0.001).length).toBeGreaterThan(0);
      if (fillBelowMm > 1000) expect([inside.length, countPieces(ground!).pieces]).toEqual([0, 1]);
      if (fillBelowMm === 0 && dropBelowMm2 === 1)
        expect(areaOf(open)).toBeGreaterThan(areaOf(subtract(base, grow(shapes, clearanceMm))) - 5 * dropBelowMm2);
    },
  );

  it('leaves pieces that were small before', () => {
    const open = knockedOut(unite([rectangle(0, 0, 60, 60), rectangle(70, 0, 2, 2)]), [disc(30, 30, 10, 60)], {
      clearanceMm: 1,
      fillBelowMm: 0,
      dropBelowMm2: 25,
    });
    expect(countPieces(open).pieces).toBe(2);
  });

  it('drops what is left inside counters and cannot be weeded, and keeps what can', () => {
    const letter = (counter: number) =>
      unite([rectangle(30, 20, 30, 30), rectangle(45 - counter / 2, 35 - counter / 2, counter, counter)], 'evenodd');
    expect(
      countPieces(
        knockedOut([rectangle(0, 0, 100, 80)], letter(5), { clearanceMm: 2.2, fillBelowMm: 0, dropBelowMm2: 1 }),
      ).pieces,
    ).toBe(1);
    expect(
      countPieces(
        knockedOut([rectangle(0, 0, 100, 80)], letter(12), { clearanceMm: 2, fillBelowMm: 0, dropBelowMm2: 1 }),
      ).pieces,
    ).toBe(2);
  });
});
