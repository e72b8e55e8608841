import { describe, expect, it } from 'vitest';
import { areaOf, boundsOf, containsPoint, IDENTITY, type Ring } from '../geometry/index.js';
import { thereAndBack } from '../engines/cutting/index.js';
import { rectangle } from '../testing/seeded.js';
import { mergedBorders } from './merged-borders.js';
import type { PlacedGroup } from './sheet-plan.js';

/** A box with a border 5 mm off it, and lines in its waste. */
function boxed(
  x: number,
  y: number,
  width: number,
  height: number,
  lines: readonly (readonly number[])[] = [],
): PlacedGroup {
  return {
    filmId: 'tar',
    copy: 0,
    perStrip: 1,
    fingerprint: 'a',
    matrix: IDENTITY,
    contours: [rectangle(x, y, width, height)],
    borders: [...lines.map(thereAndBack), rectangle(x - 5, y - 5, width + 10, height + 10)],
    marks: 0,
    partOf: [0],
  };
}
const frees = ({ borders }: PlacedGroup): Ring[] => borders.filter((ring) => Math.abs(areaOf([ring])) > 1);

describe('borders of copies that run into each other', () => {
  it('are left as they are where they do not, on either side of a copy', () => {
    const groups = [boxed(10, 10, 30, 20), boxed(80, 10, 30, 20, [[75, 20, 80, 20]])];
    expect(mergedBorders(groups)).toEqual(groups);
  });

  it('become one, which the first of them carries; what they were given stays as it was', () => {
    const groups = [boxed(10, 10, 30, 20), boxed(47, 10, 30, 20), boxed(200, 10, 30, 20)];
    const before = structuredClone(groups);
    const made = mergedBorders(groups);
    expect(groups).toEqual(before);
    expect(made.map((one) => frees(one).length)).toEqual([1, 0, 1]);
    expect(boundsOf(frees(made[0]!))).toEqual({ minX: 5, minY: 5, maxX: 82, maxY: 35 });
  });

  // Round a room of 100 by so much, bars whose borders meet at the corners.
  const frame = (height: number) => [
    boxed(0, 0, 120, 10),
    boxed(0, height + 10, 120, 10),
    boxed(0, 16, 10, height - 12),
    boxed(110, 16, 10, height - 12),
  ];

  it('go round a large void from inside, too, and not round a small one', () => {
    expect(frees(mergedBorders(frame(100))[0]!)).toHaveLength(2);
    const small = [boxed(0, 0, 42, 10), boxed(0, 36, 42, 10), boxed(0, 16, 10, 14), boxed(32, 16, 10, 14)];
    expect(frees(mergedBorders(small)[0]!)).toHaveLength(1);
  });

  it('leave to itself what lies free in their midst', () => {
    const made = mergedBorders([...frame(100), boxed(45, 45, 30, 30)]);
    expect(made.map((one) => frees(one).length)).toEqual([2, 0, 0, 0, 1]);
    expect(boundsOf(frees(made[4]!))).toEqual({ minX: 40, minY: 40, maxX: 80, maxY: 80 });
    expect(containsPoint(frees(made[0]!), 60, 60)).toBe(false);
  });

  it('end lines in the waste before a neighbour’s outline, leave the rest of them, and drop what is too short', () => {
    const lines = [
      [40, 15, 44.9, 15],
      [10, 20, 5, 20],
      [44.2, 25, 44.9, 25],
    ];
    const [first] = mergedBorders([boxed(10, 10, 30, 20, lines), boxed(45, 10, 30, 20)]);
    const left = first!.borders.filter((ring) => Math.abs(areaOf([ring])) < 1).map((ring) => boundsOf([ring])!);
    expect(left).toHaveLength(2);
    expect([left[0]!.minX, left[1]!.minX, left[1]!.maxX]).toEqual([40, 5, 10]);
    expect(left[0]!.maxX).toBeGreaterThan(43.7);
    expect(left[0]!.maxX).toBeLessThanOrEqual(44);
  });
});
