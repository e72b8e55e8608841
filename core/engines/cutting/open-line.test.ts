import { describe, expect, it } from 'vitest';
import { transformRing } from '../../geometry/index.js';
import { seeded } from '../../testing/seeded.js';
import { cutProgram, lineOf, thereAndBack, type CutSettings, type Motion } from './index.js';

const settings: CutSettings = { forceG: 90, speedMmS: 200, bladeOffsetMm: 0.25, overcutMm: 1 };
const motion: Motion = { accelerationMmS2: 2000, travelSpeedMmS: 400, liftSeconds: 0.05 };
const box = (x: number, y: number, w: number, h: number) => Float64Array.of(x, y, x + w, y, x + w, y + h, x, y + h);

describe('lines that are not closed', () => {
  it.each(Array.from({ length: 30 }, (_, i) => i + 1))(
    'seed %d: come out of the ring they are kept in, however it is turned or mirrored',
    (seed) => {
      const random = seeded(seed);
      const line = Array.from({ length: 2 * (2 + Math.floor(random() * 6)) }, () => random() * 100);
      const turn = random() < 0.5 ? ([-1, 0, 0, -1, 50, 70] as const) : ([1, 0, 0, -1, 3, 200] as const);
      const found = [...lineOf(transformRing(thereAndBack(line), turn))!];
      const [a, , , d, e, f] = turn;
      const moved = line.map((v, i) => (i % 2 === 0 ? a * v + e : d * v + f));
      const back = Array.from({ length: moved.length / 2 }, (_, i) =>
        moved.slice(moved.length - 2 - 2 * i, moved.length - 2 * i),
      ).flat();
      expect([moved, back]).toContainEqual(found);
    },
  );

  it('are no outlines, and outlines are no lines', () => {
    expect(lineOf(box(0, 0, 10, 10))).toBeNull();
    expect(lineOf(Float64Array.of(0, 0, 5, 0, 5, 5))).toBeNull();
    expect([...lineOf(thereAndBack([0, 0, 10, 0]))!]).toEqual([0, 0, 10, 0]);
    expect([...lineOf(thereAndBack([0, 0, 10, 0, 10, 5]))!]).toEqual([0, 0, 10, 0, 10, 5]);
  });

  it('are cut once, after the parts and before the border', () => {
    const program = cutProgram({
      groups: [
        {
          contours: [box(20, 20, 30, 30)],
          borders: [box(0, 0, 200, 100), thereAndBack([0, 60, 200, 60]), thereAndBack([100, 0, 100, 60])],
        },
      ],
      settings,
      motion,
    });
    expect(program.paths.map(({ closed, contour }) => [closed, contour])).toEqual([
      [true, 0],
      [false, expect.any(Number)],
      [false, expect.any(Number)],
      [true, 1],
    ]);
    const [, first, second] = program.paths;
    expect([first!.points.length, second!.points.length]).toEqual([4, 4]);
    expect(new Set([first!.contour, second!.contour])).toEqual(new Set([2, 3]));
    // What is cut: four sides of the part, both lines once, four sides of the border.
    expect(program.cutMm).toBeCloseTo(120 + 200 + 60 + 600, 0);
    expect(program.wholeAt.every((at) => at > 0)).toBe(true);
  });
});
