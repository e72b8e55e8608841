import { describe, expect, it } from 'vitest';
import {
  areaOf,
  boundsOf,
  containsPoint,
  intersect,
  joinBoxes,
  regionsOf,
  unite,
  widenBox,
  type Box,
} from '../../geometry/index.js';
import { disc, rectangle } from '../../testing/seeded.js';
import { layOutMarks } from '../marks/index.js';
import { weedingBorder } from './border.js';
import { pullOrder } from './pull.js';
import type { Strip } from './strips.js';
import { loosePartsOf, weedMap } from './weed-map.js';

const partsOf = (cut: Parameters<typeof loosePartsOf>[0]) => loosePartsOf(cut, 2.2);

const BOXES: readonly Box[] = [
  { minX: 0, minY: 0, maxX: 200, maxY: 100 },
  { minX: -30, minY: 5, maxX: 20, maxY: 305 },
  { minX: 0, minY: 0, maxX: 100, maxY: 100 },
  { minX: 0, minY: 0, maxX: 400, maxY: 4 },
];

describe.each(BOXES)('marks round %o', (box) => {
  const { marks, distanceMm } = layOutMarks(box, { sizeMm: 6, distanceMm: null });
  const centre = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2] as const;

  it('stand clear of the artwork by the gap', () => {
    for (const mark of marks) {
      const grown = boundsOf([mark.ring])!;
      const art = widenBox(box, 2.999);
      expect(grown.maxX < art.minX || grown.minX > art.maxX || grown.maxY < art.minY || grown.minY > art.maxY).toBe(
        true,
      );
    }
  });

  it('stand as far apart as is asked, and never so near that they foul the artwork', () => {
    expect(layOutMarks(box, { sizeMm: 6, distanceMm: 700 }).distanceMm).toBeCloseTo(700, 6);
    expect(layOutMarks(box, { sizeMm: 6, distanceMm: 5 }).distanceMm).toBeCloseTo(distanceMm, 6);
  });

  it('lie further apart than the artwork is long', () => {
    expect(distanceMm).toBeGreaterThan(Math.max(box.maxX - box.minX, box.maxY - box.minY));
  });

  it.each([
    ['turned over sideways', (x: number, y: number) => [2 * centre[0] - x, y] as const],
    ['turned over lengthways', (x: number, y: number) => [x, 2 * centre[1] - y] as const],
    ['turned half round', (x: number, y: number) => [2 * centre[0] - x, 2 * centre[1] - y] as const],
  ])('do not come onto themselves when they are %s', (_, turn) => {
    const onto = marks.every((mark) => {
      const [x, y] = turn(mark.xMm, mark.yMm);
      return marks.some((other) => other.shape === mark.shape && Math.hypot(other.xMm - x, other.yMm - y) < 1);
    });
    expect(onto).toBe(false);
  });

  it('are enclosed with the artwork by the weeding border', () => {
    const border = boundsOf([weedingBorder(joinBoxes(box, boundsOf(marks.map(({ ring }) => ring)))!, 4)])!;
    const inner = marks.map((mark) => boundsOf([mark.ring])!);
    expect(border.minX).toBe(Math.min(box.minX, ...inner.map((b) => b.minX)) - 4);
    expect(border.maxY).toBe(Math.max(box.maxY, ...inner.map((b) => b.maxY)) + 4);
  });
});

describe('the weed map', () => {
  const letterLike = unite(
    [rectangle(0, 0, 40, 60), rectangle(10, 10, 20, 20), rectangle(10, 40, 20, 10), disc(60, 55, 2)],
    'evenodd',
  );

  it('counts pieces, counters and the parts that are easily lost', () => {
    const map = weedMap(letterLike, partsOf(letterLike));
    expect([map.pieces, map.counters, map.spots.length]).toEqual([2, 2, 3]);
    expect(map.spots.map((spot) => spot.kind)).toEqual(['counter', 'counter', 'loose part']);
  });

  it('marks each inside itself, also where it is bent', () => {
    const hole = unite([rectangle(5, 5, 40, 4), rectangle(5, 5, 4, 40)]);
    const cut = unite([rectangle(0, 0, 50, 50), ...hole], 'evenodd');
    const [spot] = weedMap(cut, partsOf(cut)).spots;
    expect(containsPoint(hole, spot!.xMm, spot!.yMm)).toBe(true);
  });

  it('marks a ring of waste in the ring, not on the island in it', () => {
    const rings = unite([disc(0, 0, 50, 128), disc(0, 0, 40, 128), disc(0, 0, 35, 128)], 'evenodd');
    const [counter, ...more] = weedMap(rings, partsOf(rings)).spots;
    expect(more).toEqual([]);
    expect(Math.hypot(counter!.xMm, counter!.yMm)).toBeGreaterThan(35);
    expect(counter!.areaMm2).toBeCloseTo(Math.PI * (1600 - 1225), -1);
  });

  it('leaves what stays as it is cut', () => {
    const map = weedMap(letterLike, partsOf(letterLike));
    expect(areaOf(intersect(map.stays, letterLike))).toBeCloseTo(areaOf(letterLike), 6);
    expect(regionsOf(map.stays)).toHaveLength(map.pieces);
  });
});

describe('the order of pulling', () => {
  const strip = (x: number, y: number, w: number, h: number, holes: readonly Float64Array[] = []): Strip => ({
    region: { outer: rectangle(x, y, w, h), holes },
    areaMm2: w * h,
    bulkMm: Math.min(w, h),
    xMm: x + w / 2,
    yMm: y + h / 2,
  });
  const hole = (x: number, y: number, w: number, h: number) => Float64Array.of(x, y, x, y + h, x + w, y + h, x + w, y);

  it('goes along thin strokes, from the outermost corner', () => {
    const [upright] = pullOrder([strip(0, 0, 100, 60, [hole(20, 10, 3, 40), hole(50, 10, 3, 40)])]);
    const { fromX, fromY, toX, toY } = upright!.pull;
    expect([Math.abs(toX - fromX) < 1e-6, toY > fromY, fromY]).toEqual([true, true, 0]);
    const [level] = pullOrder([strip(0, 0, 100, 60, [hole(20, 10, 60, 3)])]);
    expect([Math.abs(level!.pull.toY - level!.pull.fromY) < 1e-6, level!.pull.toX > level!.pull.fromX]).toEqual([
      true,
      true,
    ]);
  });

  it('begins at the upper left, and goes to the strip beside', () => {
    const strips = [strip(0, 160, 300, 70), strip(0, 0, 300, 70), strip(0, 80, 300, 70)];
    expect(pullOrder(strips).map(({ strip: one }) => one.yMm)).toEqual([35, 115, 195]);
    expect(pullOrder([])).toEqual([]);
  });
});
