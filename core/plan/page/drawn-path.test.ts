import { describe, expect, it } from 'vitest';
import { Resvg } from '@resvg/resvg-js';
import { ringsToPathData, subtract, unite, type Ring } from '../../geometry/index.js';
import { seeded } from '../../testing/seeded.js';
import { drawnPath, NOTHING_DRAWN } from './drawn-path.js';

/** Rounds drawn with a slightly trembling hand, some with holes and islands in the holes, as the kernel makes them. */
function wavy(count: number, points: number, seed: number): Ring[] {
  const random = seeded(seed);
  const round = (x: number, y: number, r: number): Ring =>
    Float64Array.from(
      Array.from({ length: points }, (_, i) => [(2 * Math.PI * i) / points, r * (1 + 0.004 * random())]).flatMap(
        ([angle, radius]) => [x + radius! * Math.cos(angle!), y + radius! * Math.sin(angle!)],
      ),
    );
  const at = Array.from({ length: count }, (_, i) => [20 + (i % 10) * 40, 20 + Math.floor(i / 10) * 40] as const);
  const rings = subtract(unite(at.map(([x, y]) => round(x, y, 16))), unite(at.map(([x, y]) => round(x, y, 9))));
  return [...rings, ...unite(at.map(([x, y]) => round(x, y, 4)))];
}

const WIDTH = 800;
const pixels = (paths: readonly string[]) =>
  new Resvg(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 400 400" width="${WIDTH}">${paths.map((d) => `<path d="${d}" fill-rule="evenodd"/>`).join('')}</svg>`,
    { shapeRendering: 0 },
  ).render().pixels;
const differing = (a: Uint8Array, b: Uint8Array) =>
  a.reduce((sum, value, i) => sum + (Math.abs(value - b[i]!) > 100 ? 1 : 0), 0) / a.length;

describe('an area as the page draws it', () => {
  it('is whole where it is small, and nothing where there is none', () => {
    const rings = wavy(4, 40, 1);
    expect(drawnPath(rings)).toEqual({ fine: [ringsToPathData(rings, 3)], coarse: null, coarseUpTo: 0 });
    expect(drawnPath([])).toBe(NOTHING_DRAWN);
  });

  it.each([1, 2, 3])('looks the same in parts, and coarse where all of it is in view, seed %i', (seed) => {
    const rings = wavy(100, 120, seed);
    const whole = pixels([ringsToPathData(rings, 3)]);
    const { fine, coarse, coarseUpTo } = drawnPath(rings);
    expect(fine.length).toBeGreaterThan(20);
    expect(Math.max(...fine.map((d) => d.length))).toBeLessThan(ringsToPathData(rings, 3).length / 10);
    expect(differing(pixels(fine), whole)).toBe(0);
    // Two px per mm is as near as the coarse one is still taken.
    expect(coarseUpTo).toBeGreaterThanOrEqual(WIDTH / 400);
    expect(differing(pixels([coarse!]), whole)).toBeLessThan(0.004);
    expect(coarse!.length).toBeLessThan(ringsToPathData(rings, 3).length / 2);
  });
});
