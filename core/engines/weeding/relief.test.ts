import { describe, expect, it } from 'vitest';
import {
  areaOf,
  boundsOf,
  boxRing,
  intersect,
  pointCount,
  squareToEdge,
  unite,
  widenBox,
  type Rings,
} from '../../geometry/index.js';
import { openWaste } from '../../testing/open-waste.js';
import { seeded } from '../../testing/seeded.js';
import { reliefLines } from './relief.js';
import { RELIEF, type ReliefLine } from './relief-wish.js';
import { stripsOf } from './strips.js';
import { insideOf, wasteOf } from './waste.js';
import { seeds } from '../../testing/long-run.js';

const bar = (x: number, y: number, width: number, height: number) =>
  Float64Array.of(x, y, x + width, y, x + width, y + height, x, y + height);
const borderOf = (rings: Rings, gap = 4) => [boxRing(widenBox(boundsOf(rings)!, gap))];

type Edge = readonly [number, number, number, number];
const edgesOf = (rings: Rings): Edge[] =>
  rings.flatMap((ring) =>
    Array.from({ length: ring.length / 2 }, (_, i): Edge => [
      ring[2 * i]!,
      ring[2 * i + 1]!,
      ring[(2 * i + 2) % ring.length]!,
      ring[(2 * i + 3) % ring.length]!,
    ]),
  );
const edgesAlong = (lines: readonly ReliefLine[]): Edge[] =>
  lines.flatMap((line) =>
    Array.from({ length: line.length / 2 - 1 }, (_, i): Edge => [
      line[2 * i]!,
      line[2 * i + 1]!,
      line[2 * i + 2]!,
      line[2 * i + 3]!,
    ]),
  );
const distance = (edges: readonly Edge[], x: number, y: number) =>
  Math.sqrt(edges.reduce((least, edge) => Math.min(least, squareToEdge(x, y, ...edge)), Infinity));

/** By its own means: how far the roomiest place of a grid lies from all outlines and lines. */
function roomiest(waste: ReturnType<typeof wasteOf>, lines: readonly ReliefLine[], step: number): number {
  const edges = [...edgesOf(waste.rings), ...edgesAlong(lines)];
  const holds = insideOf(waste.rings);
  const { minX, minY, maxX, maxY } = boundsOf(waste.border)!;
  let most = 0;
  for (let x = minX; x < maxX; x += step)
    for (let y = minY; y < maxY; y += step) if (holds(x, y)) most = Math.max(most, distance(edges, x, y));
  return most;
}

describe('relief lines', () => {
  it('are none where every strip is comfortable', () => {
    const rings = [bar(0, 0, 300, 60)];
    expect(reliefLines(wasteOf(borderOf(rings), rings))).toEqual([]);
    expect(reliefLines(wasteOf([], []))).toEqual([]);
  });

  it('part an empty sheet with as few as can be, side by side', () => {
    const lines = reliefLines(wasteOf([bar(0, 0, 300, 200)], []));
    // 200 high: two lines leave strips of 66.7; one would leave 100.
    expect(lines).toHaveLength(2);
    for (const line of lines) expect(line).toHaveLength(4);
    expect(stripsOf(wasteOf([bar(0, 0, 300, 200)], []), lines)).toHaveLength(3);
  });

  it('end just before an outline, which parts the film there', () => {
    // A comb open to the right, 100 apart: each bay needs a line from the border inwards.
    const rings = unite([
      bar(0, 0, 20, 340),
      bar(0, 0, 200, 20),
      bar(0, 120, 200, 20),
      bar(0, 240, 200, 20),
      bar(0, 340, 200, 20),
    ]);
    const waste = wasteOf(borderOf(rings), rings);
    const lines = reliefLines(waste);
    expect(lines.length).toBeGreaterThanOrEqual(2);
    for (const line of lines) expect(distance(edgesOf(waste.stays), line.at(-2)!, line.at(-1)!)).toBeLessThan(0.25);
    // The margin goes all round: as many strips as cuts.
    expect(stripsOf(waste, lines)).toHaveLength(lines.length);
  });

  it('bend round what stays where no straight one reaches', () => {
    // A room of 150 with a door at the end of a bent corridor.
    const rings = unite([
      bar(0, 0, 180, 8),
      bar(0, 0, 8, 180),
      bar(0, 172, 180, 8),
      bar(172, 0, 8, 150),
      bar(172, 142, 60, 8),
      bar(172, 172, 90, 8),
      bar(254, 100, 8, 80),
    ]);
    const waste = wasteOf(borderOf(rings), rings);
    const lines = reliefLines(waste);
    expect(roomiest(waste, lines, 4)).toBeLessThanOrEqual(40.001);
    expect(lines.some((line) => line.length > 4)).toBe(true);
    expect(
      intersect(
        rings,
        unite(edgesAlong(lines).flatMap(([x0, y0, x1, y1]) => [Float64Array.of(x0, y0, x1, y1, x1 + 0.01, y1 + 0.01)])),
      ),
    ).toEqual([]);
  });

  it('leave alone what no line can reach', () => {
    // The door of the room is narrower than lines keep clear on both sides.
    const rings = unite([
      bar(0, 0, 180, 8),
      bar(0, 0, 8, 180),
      bar(0, 172, 180, 8),
      bar(172, 0, 8, 100),
      bar(172, 100.3, 8, 79.7),
    ]);
    expect(reliefLines(wasteOf(borderOf(rings), rings))).toEqual([]);
  });

  it('count those that the maker drew, and keep them', () => {
    const sheet = wasteOf([bar(0, 0, 300, 150)], []);
    expect(reliefLines(sheet)).toHaveLength(1);
    expect(reliefLines(sheet, RELIEF, { taken: [[0, 75, 300, 75]] })).toEqual([]);
  });

  it.each(seeds(16, 40).map((seed) => seed + 1))(
    'seed %d: clear of what stays, from the border, every strip comfortable, and none too many',
    (seed) => {
      const random = seeded(seed);
      const rings = openWaste(random, {
        widthMm: 150 + random() * 700,
        heightMm: 120 + random() * 500,
        shapes: 1 + Math.floor(random() * 14),
      });
      const waste = wasteOf(borderOf(rings), rings);
      const lines = reliefLines(waste);
      const [stays, border] = [edgesOf(waste.stays), edgesOf(waste.border)];
      for (const line of lines) {
        for (const [x0, y0, x1, y1] of edgesAlong([line]))
          for (let k = 0; k <= 40; k += 1)
            expect(distance(stays, x0 + ((x1 - x0) * k) / 40, y0 + ((y1 - y0) * k) / 40)).toBeGreaterThan(0.19);
        expect(distance(border, line[0]!, line[1]!)).toBeLessThan(0.002);
        const [endX, endY] = [line.at(-2)!, line.at(-1)!];
        expect(Math.min(distance(border, endX, endY), distance(stays, endX, endY))).toBeLessThan(0.25);
      }
      // What a grid of 12 mm sees of a bay with a door that lines go through is all reached.
      expect(roomiest(waste, lines, 12)).toBeLessThanOrEqual(40.001);
      const strips = stripsOf(waste, lines);
      expect(Math.max(0, ...strips.map(({ bulkMm }) => bulkMm))).toBeLessThanOrEqual(80.01);
      for (const line of lines)
        expect(
          Math.max(
            ...stripsOf(
              waste,
              lines.filter((other) => other !== line),
            ).map(({ bulkMm }) => bulkMm),
          ),
        ).toBeGreaterThan(80);
    },
  );
});

describe('strips', () => {
  it('are the waste, parted, and each holds the circle that it says', () => {
    const rings = openWaste(seeded(5), { widthMm: 500, heightMm: 300, shapes: 8 });
    const waste = wasteOf(borderOf(rings), rings);
    const lines = reliefLines(waste);
    const strips = stripsOf(waste, lines);
    const sum = strips.reduce((all, { areaMm2 }) => all + areaMm2, 0);
    expect(sum).toBeGreaterThan(0.995 * areaOf(waste.rings));
    expect(sum).toBeLessThan(areaOf(waste.rings));
    for (const { region, xMm, yMm, bulkMm } of strips)
      expect(Math.abs(distance(edgesOf([region.outer, ...region.holes]), xMm, yMm) - bulkMm / 2)).toBeLessThan(0.01);
    expect(pointCount(strips.map(({ region }) => region.outer))).toBeGreaterThan(10);
  });

  it('are as bulky as the largest circle: known by hand', () => {
    const [strip] = stripsOf(wasteOf([bar(0, 0, 100, 30)], []), []);
    expect(strip!.bulkMm).toBeCloseTo(30, 1);
    const [around] = stripsOf(wasteOf([bar(0, 0, 100, 100)], [bar(20, 20, 60, 60)]), []);
    expect(around!.bulkMm).toBeCloseTo(2 * 20 * (2 - Math.SQRT2), 1);
  });

  it('are parted by necks that nothing holds', () => {
    const hourglass = [
      Float64Array.of(0, 0, 50, 0, 50, 49.9, 49.9, 50, 50, 50.1, 50, 100, 0, 100, 0, 50.1, 49.7, 50, 0, 49.9),
    ];
    expect(stripsOf(wasteOf(hourglass, []), [])).toHaveLength(2);
  });
});
