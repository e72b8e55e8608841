import { describe, expect, it } from 'vitest';
import { boundsOf, boxRing, containsPoint, squareToEdge, widenBox, type Rings } from '../../geometry/index.js';
import { openWaste } from '../../testing/open-waste.js';
import { seeded } from '../../testing/seeded.js';
import { centreTicks, labelLines } from './labels.js';
import { reliefLines } from './relief.js';
import type { ReliefLine } from './relief-wish.js';
import { wasteOf, type Waste } from './waste.js';

const WORDS = ['Boat name', 'Chalk white', '2/5'];
const bar = (x: number, y: number, width: number, height: number) =>
  Float64Array.of(x, y, x + width, y, x + width, y + height, x, y + height);
const wasteRound = (rings: Rings, gap = 6) => wasteOf([boxRing(widenBox(boundsOf(rings)!, gap))], rings);

/** Points along some lines, a tenth of a millimetre apart. */
function* along(lines: readonly ReliefLine[]): Generator<readonly [number, number]> {
  for (const line of lines) {
    for (let i = 2; i < line.length; i += 2) {
      const [x0, y0, x1, y1] = [line[i - 2]!, line[i - 1]!, line[i]!, line[i + 1]!];
      const steps = Math.ceil(Math.hypot(x1 - x0, y1 - y0) * 10) + 1;
      for (let k = 0; k <= steps; k += 1) yield [x0 + ((x1 - x0) * k) / steps, y0 + ((y1 - y0) * k) / steps];
    }
  }
}
const toRings = (rings: Rings, x: number, y: number) =>
  Math.sqrt(
    rings.reduce(
      (least, ring) =>
        Array.from({ length: ring.length / 2 }, (_, i) =>
          squareToEdge(
            x,
            y,
            ring[2 * i]!,
            ring[2 * i + 1]!,
            ring[(2 * i + 2) % ring.length]!,
            ring[(2 * i + 3) % ring.length]!,
          ),
        ).reduce((a, b) => Math.min(a, b), least),
      Infinity,
    ),
  );
const toLines = (lines: readonly ReliefLine[], x: number, y: number) =>
  Math.sqrt(
    lines.reduce(
      (least, line) =>
        Array.from({ length: line.length / 2 - 1 }, (_, i) =>
          squareToEdge(x, y, line[2 * i]!, line[2 * i + 1]!, line[2 * i + 2]!, line[2 * i + 3]!),
        ).reduce((a, b) => Math.min(a, b), least),
      Infinity,
    ),
  );
const boxOf = (lines: readonly ReliefLine[]) => boundsOf(lines.map((line) => Float64Array.from(line)))!;
/** The arrow comes last: its shaft, then its head. */
const arrowOf = (lines: readonly ReliefLine[]) => lines.slice(-2) as [ReliefLine, ReliefLine];

describe('labels in the waste', () => {
  it.each(Array.from({ length: 12 }, (_, seed) => seed))(
    'keep clear of all that stays, of relief lines and of the border, artwork %i',
    (seed) => {
      const random = seeded(seed + 1);
      const waste = wasteRound(
        openWaste(random, {
          widthMm: 120 + random() * 500,
          heightMm: 80 + random() * 400,
          shapes: 3 + Math.floor(random() * 14),
        }),
      );
      const relief = reliefLines(waste);
      const labels = labelLines(waste, relief, { words: WORDS, isMirrored: seed % 2 === 1 });
      for (const [x, y] of along(labels)) {
        expect(containsPoint(waste.border, x, y) && !containsPoint(waste.stays, x, y)).toBe(true);
        expect(
          Math.min(toRings(waste.border, x, y), toRings(waste.stays, x, y), toLines(relief, x, y)),
        ).toBeGreaterThan(0.99);
      }
      for (const [x, y] of along(centreTicks(waste, 0.2))) {
        expect(containsPoint(waste.stays, x, y)).toBe(false);
        expect(toRings(waste.stays, x, y)).toBeGreaterThan(0.19);
      }
    },
  );

  it('say all where there is room, and at least which layer it is where there is little', () => {
    const all = labelLines(wasteRound([bar(0, 0, 20, 20), bar(300, 200, 20, 20)]), [], {
      words: WORDS,
      isMirrored: false,
    });
    const little = labelLines(wasteOf([bar(0, 0, 26, 9)], []), [], { words: WORDS, isMirrored: false });
    expect(all.length).toBeGreaterThan(little.length);
    expect(little.length).toBeGreaterThan(3);
    expect(boxOf(all).maxX - boxOf(all).minX).toBeGreaterThan(60);
    expect(labelLines(wasteOf([bar(0, 0, 200, 4)], []), [], { words: WORDS, isMirrored: false })).toEqual([]);
    expect(labelLines(wasteOf([bar(0, 0, 200, 40)], []), [], { words: [], isMirrored: false })).toEqual([]);
  });

  it.each([
    ['along', 200, 12],
    ['up', 12, 200],
  ] as const)('run %s where that fits, and the arrow points to the top all the same', (_, width, height) => {
    for (const isMirrored of [false, true]) {
      const lines = labelLines(wasteOf([bar(0, 0, width, height)], []), [], { words: WORDS, isMirrored });
      const [shaft, head] = arrowOf(lines);
      expect(shaft[0]).toBeCloseTo(shaft[2]!, 9);
      expect(shaft[3]).toBeLessThan(shaft[1]!);
      expect([head[2], head[3]]).toEqual([shaft[2], shaft[3]]);
      const box = boxOf(lines);
      expect(box.maxX - box.minX > box.maxY - box.minY).toBe(width > height);
    }
  });

  it('read right on film that is cut mirrored: as the others do when the film is turned over', () => {
    const waste: Waste = wasteOf([bar(-100, 0, 200, 12)], []);
    const words = ['FLO'];
    const [plain, mirrored] = [false, true].map((isMirrored) =>
      labelLines(waste, [], { words, isMirrored }).slice(0, -2),
    );
    const [p, m] = [boxOf(plain!), boxOf(mirrored!)];
    // Turned over, each stroke lies where it does on the other film, counted from the same edge of the word.
    mirrored!.forEach((line, i) =>
      line.forEach((v, k) =>
        expect(k % 2 === 0 ? m.maxX - v : v - m.minY).toBeCloseTo(
          k % 2 === 0 ? plain![i]![k]! - p.minX : plain![i]![k]! - p.minY,
          9,
        ),
      ),
    );
    expect(mirrored!.length).toBe(plain!.length);
  });

  it('have only letters that the blade can cut: accents are left out', () => {
    const waste = wasteOf([bar(0, 0, 300, 20)], []);
    const of = (word: string) => labelLines(waste, [], { words: [word], isMirrored: false });
    expect(of('Kajüte')).toEqual(of('KAJUTE'));
    expect(of('船')).toEqual([]);
  });
});

describe('ticks at the middle of a border', () => {
  it('stand at all four sides, and none where a part is in the way', () => {
    expect(centreTicks(wasteRound([bar(0, 0, 100, 60)]), 0.2)).toEqual([
      [50, -6, 50, -3],
      [50, 66, 50, 63],
      [-6, 30, -3, 30],
      [106, 30, 103, 30],
    ]);
    expect(centreTicks(wasteOf([bar(0, 0, 100, 60)], [bar(40, 0.5, 20, 59)]), 0.2)).toEqual([
      [0, 30, 3, 30],
      [100, 30, 97, 30],
    ]);
  });
});
