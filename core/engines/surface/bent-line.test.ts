import { describe, expect, it } from 'vitest';
import { areaOf, boxRing, intersect, unite, type Ring } from '../../geometry/index.js';
import { seeded } from '../../testing/seeded.js';
import { bentLine, partsOfAreas, tile } from './index.js';

/** Slanted letters, which no upright line can part. */
const slanted = (x: number): Ring => Float64Array.of(x + 40, 0, x + 62, 0, x + 22, 100, x, 100);

/** A line as a thin strip. */
function stripOf(line: readonly number[]): Ring[] {
  const strips: Ring[] = [];
  for (let i = 0; i + 3 < line.length; i += 2) {
    const [x0, y0, x1, y1] = [line[i]!, line[i + 1]!, line[i + 2]!, line[i + 3]!];
    strips.push(
      boxRing({
        minX: Math.min(x0, x1) - 0.01,
        minY: Math.min(y0, y1) - 0.01,
        maxX: Math.max(x0, x1) + 0.01,
        maxY: Math.max(y0, y1) + 0.01,
      }),
    );
  }
  return unite(strips);
}

describe('a line that bends between letters', () => {
  const letters = [0, 30, 60, 90, 120, 150].map(slanted);

  it('parts what no upright line can, and crosses nothing', () => {
    expect(tile([letters], { widthMm: 212, rollMm: 120, lapMm: 0 })!.crossedMm).toBeGreaterThan(10);
    const line = bentLine(partsOfAreas([letters]), { low: 92, high: 120, top: 0, bottom: 100 });
    // 30 apart and 22 wide, slanted by 40: there is no way in 28 mm; in 60 there is.
    expect(line).toBeNull();
    const wide = bentLine(partsOfAreas([letters]), { low: 80, high: 140, top: 0, bottom: 100 })!;
    expect(areaOf(intersect(letters, stripOf(wide)))).toBe(0);
    expect([wide[1], wide.at(-1)]).toEqual([0, 100]);
  });

  it.each(Array.from({ length: 30 }, (_, i) => i))('crosses nothing and stays in its room, case %d', (seed) => {
    const random = seeded(seed);
    const shapes = unite(
      Array.from({ length: 14 }, () => {
        const [x, y, r] = [random() * 300, random() * 100, 4 + random() * 14];
        const n = 3 + Math.floor(random() * 5);
        return Float64Array.from({ length: 2 * n }, (_, i) =>
          i % 2 === 0
            ? x + r * Math.cos((2 * Math.PI * (i / 2)) / n)
            : y + r * Math.sin((2 * Math.PI * ((i - 1) / 2)) / n),
        );
      }),
    );
    const room = { low: 100, high: 200, top: -20, bottom: 120 };
    const line = bentLine(partsOfAreas([shapes]), room);
    if (line === null) {
      // None is said only where shapes reach across: an upright line at every place crosses something, too.
      for (let x = 101.5; x < 199; x += 0.5)
        expect(
          areaOf(intersect(shapes, [boxRing({ minX: x - 1.2, minY: -30, maxX: x + 1.2, maxY: 130 })])),
        ).toBeGreaterThan(0);
      return;
    }
    expect(areaOf(intersect(shapes, stripOf(line)))).toBe(0);
    expect(line.filter((_, i) => i % 2 === 0).every((x) => x >= room.low && x <= room.high)).toBe(true);
    // From top to bottom, and never back.
    expect(line.filter((_, i) => i % 2 === 1).every((y, i, all) => i === 0 || y >= all[i - 1]!)).toBe(true);
  });

  it('is upright where that will do', () =>
    expect(
      bentLine(
        partsOfAreas([
          [boxRing({ minX: 0, minY: 0, maxX: 40, maxY: 50 }), boxRing({ minX: 60, minY: 0, maxX: 90, maxY: 50 })],
        ]),
        { low: 10, high: 80, top: 0, bottom: 50 },
      ),
    ).toEqual([50, 0, 50, 50]));

  it('is none through what holds together', () =>
    expect(
      bentLine(partsOfAreas([[boxRing({ minX: 0, minY: 0, maxX: 200, maxY: 50 })]]), {
        low: 80,
        high: 120,
        top: 0,
        bottom: 50,
      }),
    ).toBeNull());
});
