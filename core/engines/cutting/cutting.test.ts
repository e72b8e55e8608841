import { describe, expect, it } from 'vitest';
import { areaOf, containsPoint, grow, intersect, perimeter, unite, type Ring } from '../../geometry/index.js';
import { blob, disc, rectangle, seeded } from '../../testing/seeded.js';
import {
  cutOnce,
  cutProgram,
  distanceAt,
  driveSeconds,
  holderPath,
  hpglRun,
  orderContours,
  pathLength,
  planMoves,
  writeHpgl,
  type CutPath,
} from './index.js';

const SETTINGS = { forceG: 90, speedMmS: 200, bladeOffsetMm: 0.25, overcutMm: 0.5 };
const MOTION = { accelerationMmS2: 2500, travelSpeedMmS: 500, liftSeconds: 0.06 };
const path = (...points: number[]): CutPath => ({ points: Float64Array.from(points), closed: false });
const program = (contours: Ring[], borders: Ring[] = []) =>
  cutProgram({ groups: [{ contours, borders }], settings: SETTINGS, motion: MOTION });

describe('the cutting order', () => {
  it.each(Array.from({ length: 10 }, (_, seed) => seed))(
    'cuts what lies inside before what is round it, seed %i',
    (seed) => {
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
    },
  );

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

  it('keeps lines far from the origin that are near in angle and distance but not in place', () => {
    expect(cutOnce([path(500, 0, 1000, 0), path(500, 0.7, 1000, 1.4)])).toHaveLength(2);
  });

  it.each(Array.from({ length: 20 }, (_, seed) => seed))(
    'leaves contours that share no edge as they were, up to 5 m away, seed %i',
    (seed) => {
      const random = seeded(seed);
      const rings: Ring[] = [];
      for (let i = 0; i < 60; i += 1) {
        const [x, y] = [random() * 5000, (i % 6) * 100 + random() * 20];
        const ring =
          random() < 0.5 ? disc(x, y, 5 + random() * 30, 20 + Math.floor(random() * 200)) : blob(random, x, y, 40);
        if (areaOf(intersect(grow(unite(rings), 0.1), [ring])) === 0) rings.push(...unite([ring]));
      }
      const { cutMm, runs } = cutProgram({
        groups: [{ contours: rings, borders: [] }],
        settings: { ...SETTINGS, bladeOffsetMm: 0 },
        motion: MOTION,
      });
      expect(cutMm).toBeCloseTo(
        rings.reduce((sum, ring) => sum + perimeter(ring), 0),
        6,
      );
      const driven = runs.reduce((sum, run) => sum + pathLength(Float64Array.from(run, (v) => v / 40)), 0);
      // Each corner is rounded to a cutter's step, and each outline has its overcut.
      expect(Math.abs(driven - cutMm - rings.length * SETTINGS.overcutMm)).toBeLessThan(0.003 * cutMm);
    },
  );

  it.each(Array.from({ length: 10 }, (_, seed) => seed))(
    'cuts all of the lines of tiles that touch, each once, seed %i',
    (seed) => {
      const random = seeded(seed);
      const [x, y, w, h] = [random() * 4000, random() * 500, 10 + random() * 20, 10 + random() * 20];
      const [columns, rows] = [2 + Math.floor(random() * 5), 2 + Math.floor(random() * 5)];
      const tiles = Array.from({ length: columns * rows }, (_, i) =>
        rectangle(x + (i % columns) * w, y + Math.floor(i / columns) * h, w, h),
      );
      const length = cutOnce(orderContours(tiles)).reduce((sum, p) => sum + pathLength(p.points), 0);
      expect(length).toBeCloseTo(columns * w * (rows + 1) + rows * h * (columns + 1), 3);
    },
  );
});

describe('the drag knife', () => {
  it('is led round a corner by a swivel about it', () => {
    const { points } = holderPath(path(0, 0, 10, 0, 10, 10), 0.25, 0);
    for (let i = 0; i < points.length; i += 2) {
      const near = Math.min(
        Math.abs(points[i + 1]!),
        Math.abs(points[i]! - 10),
        Math.abs(Math.hypot(points[i]! - 10, points[i + 1]!) - 0.25),
      );
      expect(near).toBeLessThan(1e-9);
    }
    expect([points.at(-2), points.at(-1)]).toEqual([10, 10.25]);
  });

  it('runs on past the beginning of a closed contour by the overcut', () => {
    const closed = { ...path(0, 0, 10, 0, 10, 10, 0, 10, 0, 0), closed: true };
    expect(holderPath(closed, 0, 0.5).points.slice(-2)).toEqual(Float64Array.of(0.5, 0));
  });
});

describe('a program', () => {
  it('begins by turning the knife in the waste, whichever way it stood', () => {
    const { runs, shiftMm, paths } = program([rectangle(20, 20, 10, 10)], [rectangle(15, 15, 20, 20)]);
    expect(shiftMm).toEqual({ x: 0, y: 0 });
    const turn = Float64Array.from(runs[0]!, (v) => v / 40);
    // The tip lies within an offset of its holder, and what is cut begins above that.
    for (let i = 0; i < turn.length; i += 2) expect(turn[i + 1]! + SETTINGS.bladeOffsetMm).toBeLessThan(15);
    for (let degrees = 0; degrees < 360; degrees += 5)
      expect(Math.abs(headingAfter(turn, (degrees * Math.PI) / 180, SETTINGS.bladeOffsetMm))).toBeLessThan(0.005);
    expect(runs).toHaveLength(paths.length + 1);
  });

  it('says when each contour is whole, and a border that others cut for it too', () => {
    const squares = [rectangle(20, 20, 10, 10), rectangle(30, 20, 10, 10)];
    const made = cutProgram({
      groups: [{ contours: squares, borders: [rectangle(20, 20, 20, 10)] }],
      settings: SETTINGS,
      motion: MOTION,
    });
    const ends = made.runs.map((_, i) => made.runs.slice(0, i + 1).reduce((sum, run) => sum + run.length / 2, 0));
    expect([...made.wholeAt]).toEqual([ends[1], ends[2], ends.at(-1)]);
  });

  it('cuts copy by copy, each with its border after it', () => {
    const copy = (x: number) => ({
      contours: [rectangle(x + 5, 25, 10, 10), rectangle(x + 20, 25, 10, 10)],
      borders: [rectangle(x, 20, 35, 20)],
    });
    const { wholeAt } = cutProgram({ groups: [copy(200), copy(20), copy(100)], settings: SETTINGS, motion: MOTION });
    const [far, first, second] = [0, 1, 2].map((i) => [...wholeAt.slice(3 * i, 3 * i + 3)]);
    expect(Math.max(...first!)).toBe(first![2]);
    expect(first![2]).toBeLessThan(Math.min(...second!));
    expect(second![2]).toBeLessThan(Math.min(...far!));
  });

  it('gives thousands of contours an order in a time that grows hardly faster than they do', () => {
    const dots = (n: number) =>
      Array.from({ length: n }, (_, i) => rectangle((i % 100) * 3, Math.floor(i / 100) * 3, 1, 1));
    expect(orderContours(dots(20_000))).toHaveLength(20_000);
  });
});

/** How a trailing tip stands after its holder went along the points, from how it stood before: an integration in steps of a micron. */
function headingAfter(points: Float64Array, start: number, offset: number): number {
  let [tx, ty] = [points[0]! - offset * Math.cos(start), points[1]! - offset * Math.sin(start)];
  let [hx, hy] = [points[0]!, points[1]!];
  for (let i = 2; i < points.length; i += 2) {
    const [x0, y0, x1, y1] = [points[i - 2]!, points[i - 1]!, points[i]!, points[i + 1]!];
    const steps = Math.ceil(Math.hypot(x1 - x0, y1 - y0) / 0.001);
    for (let s = 1; s <= steps; s += 1) {
      [hx, hy] = [x0 + ((x1 - x0) * s) / steps, y0 + ((y1 - y0) * s) / steps];
      const gap = Math.hypot(hx - tx, hy - ty);
      [tx, ty] = [hx - ((hx - tx) * offset) / gap, hy - ((hy - ty) * offset) / gap];
    }
  }
  return Math.atan2(hy - ty, hx - tx);
}

/**
 * Time along a polyline by another way than the code under test: speeds on a fine grid of the whole way, limited at the corners, by the
 * acceleration forwards and backwards, and summed as ds/v.
 */
function integratedSeconds(points: readonly number[], speed: number, acceleration: number): number {
  const STEP = 0.01;
  const limit: number[] = [0];
  const ds: number[] = [];
  for (let i = 2; i < points.length; i += 2) {
    const [ax, ay] = [points[i]! - points[i - 2]!, points[i + 1]! - points[i - 1]!];
    const length = Math.hypot(ax, ay);
    const n = Math.max(1, Math.round(length / STEP));
    for (let k = 1; k <= n; k += 1) {
      ds.push(length / n);
      limit.push(speed);
    }
    if (i + 2 < points.length) {
      const [bx, by] = [points[i + 2]! - points[i]!, points[i + 3]! - points[i + 1]!];
      const turn = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
      // A circle that touches both legs and passes the corner at 0.05 mm: r = δ·c/(1 − c) with c = cos(turn/2).
      const c = Math.cos(turn / 2);
      limit[limit.length - 1] = Math.min(speed, c > 1 - 1e-12 ? speed : Math.sqrt((acceleration * 0.05 * c) / (1 - c)));
    } else limit[limit.length - 1] = 0;
  }
  const v = [...limit];
  for (let i = 1; i < v.length; i += 1)
    v[i] = Math.min(v[i]!, Math.sqrt(v[i - 1]! ** 2 + 2 * acceleration * ds[i - 1]!));
  for (let i = v.length - 2; i >= 0; i -= 1)
    v[i] = Math.min(v[i]!, Math.sqrt(v[i + 1]! ** 2 + 2 * acceleration * ds[i]!));
  return ds.reduce((sum, d, i) => sum + (2 * d) / (v[i]! + v[i + 1]!), 0);
}

describe('motion', () => {
  it.each(Array.from({ length: 12 }, (_, seed) => seed))(
    'takes as long as an integration in small steps says, seed %i',
    (seed) => {
      const random = seeded(seed);
      let [x, y, heading] = [0, 0, 0];
      const points = [0, 0];
      for (let i = 0; i < 40; i += 1) {
        heading += (random() - 0.5) * (random() < 0.3 ? 6 : 0.4);
        const length = 0.2 + random() * random() * 30;
        x += length * Math.cos(heading);
        y += length * Math.sin(heading);
        points.push(x, y);
      }
      expect(driveSeconds(points, 200, 2500) / integratedSeconds(points, 200, 2500)).toBeCloseTo(1, 2);
    },
  );

  it('takes the time of a ramp up and a ramp down on a short way', () => {
    expect(driveSeconds([0, 0, 10, 0], 1000, 1000)).toBeCloseTo(2 * Math.sqrt(0.01), 9);
  });

  it('cruises on a long way', () => {
    expect(driveSeconds([0, 0, 1000, 0], 100, 1000)).toBeCloseTo(10 + 0.1, 9);
  });

  it.each(Array.from({ length: 10 }, (_, seed) => seed))(
    'never goes faster than allowed and never jumps in speed, seed %i',
    (seed) => {
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
    },
  );
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
    const pairsOf = (commands: string[]) =>
      commands.flatMap((c) =>
        c
          .replace(/^P[UD]|;$/g, '')
          .split(',')
          .map(Number),
      );
    for (const from of [0, 1, 7, 16, 17, 49]) expect(pairsOf(hpglRun(run, from))).toEqual([...run.slice(2 * from)]);
  });

  it('tells nothing of outlines smaller than a step', () => {
    expect(program([rectangle(5, 5, 0.001, 0.001)]).runs).toHaveLength(1);
  });
});
