import { describe, expect, it } from 'vitest';
import {
  areaOf,
  boundsOf,
  grow,
  intersect,
  regionsOf,
  ringsOf,
  subtract,
  unite,
  type Rings,
} from '../../geometry/index.js';
import { rectangle, seeded } from '../../testing/seeded.js';
import { buildLayers } from './build-layers.js';
import { withoutFineParts } from './fine-parts.js';
import type { LayerPaint, School } from './layer.js';
import { separate } from './separate.js';

const DRAWINGS = 500;
const SCHOOLS = ['overlay', 'inlay', 'trapped'] as const;

/** Boxes and frames on a grid of 5 mm, so that many end on one line; most lines are off by a hair of 1e-6 to 1e-3 mm, or by nothing. */
function onCommonLines(seed: number): LayerPaint[] {
  const random = seeded(seed);
  const hair = () => (random() < 0.4 ? 0 : (random() < 0.5 ? -1 : 1) * 10 ** (-6 + 3 * random()));
  const line = (cell: number) => cell * 5 + hair();
  return Array.from({ length: 3 + Math.floor(random() * 8) }, (): LayerPaint => {
    const [col, row] = [Math.floor(random() * 8), Math.floor(random() * 8)];
    const [x, y] = [line(col), line(row)];
    const [right, top] = [line(col + 1 + Math.floor(random() * 4)), line(row + 1 + Math.floor(random() * 4))];
    const outer = rectangle(x, y, right - x, top - y);
    const rings =
      random() < 0.25 && right - x > 9 && top - y > 9
        ? unite([outer, rectangle(line(col) + 3, line(row) + 3, right - x - 6, top - y - 6)], 'evenodd')
        : unite([outer]);
    return { layer: `film-${Math.floor(random() * 4)}`, rings };
  });
}

/** Whether anything of an area is wider than `widthMm`. */
const isWider = (rings: Rings, widthMm: number) => rings.length > 0 && grow(unite(rings), -widthMm / 2).length > 0;

/** Where four corners meet, two of one film hang together by a hair; the hair is cut out, which leaves a dot that no eye sees. */
const withoutDots = (rings: Rings) =>
  ringsOf(
    regionsOf(rings).filter(({ outer }) => {
      const { minX, minY, maxX, maxY } = boundsOf([outer])!;
      return Math.max(maxX - minX, maxY - minY) > 0.15;
    }),
  );

describe('layers of shapes that end on common lines', () => {
  it.each(Array.from({ length: DRAWINGS }, (_, seed) => seed))(
    'have no loose strip, no bare slit and no film on film where there should be none, seed %i',
    (seed) => {
      const paints = onCommonLines(seed);
      const painted = unite(paints.flatMap(({ rings }) => [...rings]));
      const separation = withoutFineParts(separate(paints));
      for (const school of SCHOOLS) {
        const { layers } = buildLayers(separation, { school, trapMm: 0.5, thinnestMm: () => 1 });
        const all = unite(layers.flatMap(({ cut }) => [...cut]));
        expect(isWider(withoutDots(subtract(painted, all)), 0.02), `${school}: bare`).toBe(false);
        expect(isWider(subtract(all, painted), 0.02), `${school}: beyond`).toBe(false);
        layers.forEach(({ key, cut }, i) => {
          expect(areaOf(cut), `${school}: ${key}`).toBeGreaterThan(0.01);
          const above = unite(layers.slice(i + 1).flatMap((upper) => [...upper.cut]));
          for (const piece of regionsOf(cut))
            expect(isWider(subtract(ringsOf([piece]), above), 0.1), `${school}: a piece of ${key} is hidden`).toBe(
              true,
            );
          if (school === 'inlay') expect(isWider(intersect(cut, above), 0.02), `${key} overlaps`).toBe(false);
        });
      }
    },
  );
});

describe('what is too fine to cut', () => {
  const layersOf = (paints: readonly LayerPaint[], school: School) =>
    buildLayers(withoutFineParts(separate(paints)), { school, trapMm: 0.5 }).layers;

  it('makes no strip as wide as the trap', () => {
    // The lower one ends 0.00002 mm beyond the upper one.
    const [under, over] = layersOf(
      [
        { layer: 'under', rings: [rectangle(0, 0, 50.00002, 20)] },
        { layer: 'over', rings: [rectangle(10, -5, 40, 30)] },
      ],
      'trapped',
    );
    expect(areaOf(under!.cut)).toBeLessThan(20 * 10.5 + 0.5);
    expect(areaOf(over!.cut)).toBeCloseTo(40 * 30, 1);
  });

  it('makes none where it hangs on what is large enough, either', () => {
    const [under] = layersOf(
      [
        { layer: 'under', rings: [rectangle(0, 0, 50, 20.00002)] },
        { layer: 'over', rings: [rectangle(10, -5, 60, 25)] },
      ],
      'trapped',
    );
    expect(areaOf(under!.cut)).toBeLessThan(20 * 10.5 + 0.5);
  });

  it('goes to the layer that it shares most of its edge with', () => {
    const paints = [
      { layer: 'left', rings: [rectangle(0, 0, 10, 20)] },
      { layer: 'sliver', rings: [rectangle(10, 0, 0.08, 20)] },
      { layer: 'right', rings: [rectangle(10.08, 0, 10, 12)] },
    ];
    for (const school of ['inlay', 'trapped'] as const) {
      const separation = withoutFineParts(separate(paints));
      expect(separation.tooFine).toEqual(['sliver']);
      const { layers } = buildLayers(separation, { school, trapMm: 0.5 });
      expect(layers.map(({ key }) => key)).toEqual(['left', 'right']);
      expect(areaOf(unite(layers[0]!.visible))).toBeCloseTo(10.08 * 20, 1);
    }
  });

  it('stays out where it borders on nothing', () => {
    const { layers, tooFine } = withoutFineParts(
      separate([
        { layer: 'board', rings: [rectangle(0, 0, 10, 10)] },
        { layer: 'hair', rings: [rectangle(20, 0, 0.05, 10)] },
      ]),
    );
    expect([layers.map(({ key }) => key), tooFine]).toEqual([['board'], ['hair']]);
  });
});
