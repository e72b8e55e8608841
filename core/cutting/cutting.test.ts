import { describe, expect, it } from 'vitest';
import { containsPoint, unite, type Ring } from '../geometry/index.js';
import { disc, rectangle, seeded } from '../testing/seeded.js';
import { cutOnce, cutProgram, distanceAt, driveSeconds, holderPath, hpglRun, orderContours, pathLength, planMoves, writeHpgl, type CutPath } from './index.js';

const SETTINGS = { forceG: 90, speedMmS: 200, bladeOffsetMm: 0.25, overcutMm: 0.5 };
const MOTION = { accelerationMmS2: 2500, travelSpeedMmS: 500, liftSeconds: 0.06 };
const path = (...points: number[]): CutPath => ({ points: Float64Array.from(points), closed: false });
const program = (contours: Ring[], borders: Ring[] = []) => cutProgram({ contours, borders, settings: SETTINGS, motion: MOTION });

describe('the cutting order', () => {
  it.each(Array.from({ length: 10 }, (_, seed) => seed))('cuts what lies inside before what is round it, seed %i', (seed) => {
    const random = seeded(seed);
    const rings: Ring[] = [];
    for (let i = 0; i < 12; i += 1) {
      const [x, y, r] = [random() * 300, random() * 300, 6 + random() * 10];
      rings.push(disc(x, y, r), disc(x, y, r * 0.6), disc(x, y, r * 0.3));
    }
    const paths = orderContours(unite(rings, 'evenodd'));
    paths.forEach((outer, i) => {
      for (const later of paths.slice(i + 1)) {
        const [x, y] = [(later.points[0]! + later.points[2]!) / 2, (later.points[1]! + later.points[3]!) / 2];
        expect(containsPoint([outer.points.subarray(0, -2)], x, y)).toBe(false);
      }
    });
  });

  it('takes the near before the far', () => {
    const paths = orderContours([rectangle(200, 0, 10, 10), rectangle(0, 0, 10, 10), rectangle(100, 0, 10, 10)]);
    expect(paths.map((p) => Math.floor(p.points[0]! / 100))).toEqual([0, 1, 2]);
  });

  it('ends closed contours where they began', () => {
    const [p] = orderContours([disc(10, 10, 5)]);
    expect([p!.points.at(-2), p!.points.at(-1)]).toEqual([p!.points[0], p!.points[1]]);
  });

  it('puts the weeding border last', () => {
    const { paths } = program([rectangle(20, 20, 10, 10)], [rectangle(10, 10, 40, 40)]);
    expect(Math.min(...paths.at(-1)!.points)).toBe(10);
  });
});

describe('lines cut once', () => {
  it('leaves out the second of two equal lines, whichever way it runs', () => {
    expect(cutOnce([path(0, 0, 100, 0), path(100, 0, 0, 0)])).toHaveLength(1);
  });

  it('cuts the edge that two squares share a single time', () => {
    const squares = orderContours([rectangle(0, 0, 50, 50), rectangle(50, 0, 50, 50)]);
    const length = cutOnce(squares).reduce((sum, p) => sum + pathLength(p.points), 0);
    expect(length).toBeCloseTo(350, 1);
  });

  it('takes out only the stretch that is shared', () => {
    const out = cutOnce([path(40, 0, 60, 0), path(0, 0, 100, 0)]);
    expect(out.map((p) => pathLength(p.points))).toEqual([20, 40, 40]);
  });

  it('keeps lines that only cross', () => {
    expect(cutOnce([path(0, 0, 100, 100), path(0, 100, 100, 0)])).toHaveLength(2);
  });
});

describe('the drag knife', () => {
  it('is led round a corner by a swivel about it', () => {
    const { points } = holderPath(path(0, 0, 10, 0, 10, 10), 0.25, 0);
    for (let i = 0; i < points.length; i += 2) {
      const near = Math.min(Math.abs(points[i + 1]!), Math.abs(points[i]! - 10), Math.abs(Math.hypot(points[i]! - 10, points[i + 1]!) - 0.25));
      expect(near).toBeLessThan(1e-9);
    }
    expect([points.at(-2), points.at(-1)]).toEqual([10, 10.25]);
  });

  it('runs on past the beginning of a closed contour by the overcut', () => {
    const closed = { ...path(0, 0, 10, 0, 10, 10, 0, 10, 0, 0), closed: true };
    expect(holderPath(closed, 0, 0.5).points.slice(-2)).toEqual(Float64Array.of(0.5, 0));
  });
});

describe('motion', () => {
  it('takes the time of a ramp up and a ramp down on a short way', () => {
    expect(driveSeconds([0, 0, 10, 0], 1000, 1000)).toBeCloseTo(2 * Math.sqrt(0.01), 9);
  });

  it('cruises on a long way', () => {
    expect(driveSeconds([0, 0, 1000, 0], 100, 1000)).toBeCloseTo(10 + 0.1, 9);
  });

  it.each(Array.from({ length: 10 }, (_, seed) => seed))('never goes faster than allowed and never jumps in speed, seed %i', (seed) => {
    const random = seeded(seed);
    const points = Array.from({ length: 60 }, () => random() * 50);
    const moves = planMoves(points, 200, 2500);
    moves.forEach((move, i) => {
      expect(move.peak).toBeLessThanOrEqual(200 + 1e-9);
      expect(move.entry).toBeCloseTo(i === 0 ? 0 : moves[i - 1]!.exit, 9);
      expect(Math.abs(move.exit ** 2 - move.entry ** 2)).toBeLessThanOrEqual(2 * 2500 * move.lengthMm + 1e-6);
      expect(distanceAt(move, move.seconds, 2500)).toBeCloseTo(move.lengthMm, 6);
      expect(distanceAt(move, 0, 2500)).toBeCloseTo(0, 9);
    });
    expect(moves.at(-1)!.exit).toBe(0);
  });
});

describe('HP-GL', () => {
  it('has 40 units per mm, no negative coordinates, and the force and speed of the film', () => {
    const text = writeHpgl(program([rectangle(0, 0, 10, 10)]));
    expect(text).toMatch(/^IN;SP1;FS90;VS20;\n/);
    expect(text).not.toContain('-');
    const xs = [...text.matchAll(/(\d+),(\d+)/g)].map((m) => Number(m[1]));
    // 10 mm, a quarter for the knife's lead, and the shift that keeps its holder on the sheet.
    expect(Math.max(...xs)).toBe(420);
  });

  it('goes on from any pair with what is left, and nothing else', () => {
    const run = Int32Array.from({ length: 100 }, (_, i) => i);
    const pairsOf = (commands: string[]) => commands.flatMap((c) => c.replace(/^P[UD]|;$/g, '').split(',').map(Number));
    for (const from of [0, 1, 7, 16, 17, 49]) expect(pairsOf(hpglRun(run, from))).toEqual([...run.slice(2 * from)]);
  });

  it('tells nothing of outlines smaller than a step', () => {
    expect(program([rectangle(5, 5, 0.001, 0.001)]).runs).toEqual([]);
  });
});
