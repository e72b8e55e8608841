import { describe, expect, it } from 'vitest';
import {
  areaOf,
  countPieces,
  grow,
  intersect,
  regionsOf,
  ringsOf,
  subtract,
  unite,
  type Rings,
} from '../../geometry/index.js';
import { openArtwork } from '../../testing/open-artwork.js';
import { rasterCount, type RasterCount } from '../../testing/raster-count.js';
import { disc, rectangle } from '../../testing/seeded.js';
import { paintRegions, readSvg } from '../artwork/index.js';
import { buildLayers, recompose, separate, withoutCrumbs } from './index.js';

const base = rectangle(0, 0, 20, 20);
const whole = (...rings: Float64Array[]): Rings => unite(rings);
const without = (from: Rings, ...holes: Float64Array[]): Rings => subtract(from, holes);

describe('crumbs', () => {
  it.each([
    [
      'a speck beside it',
      whole(base, rectangle(25, 5, 0.08, 3)),
      { pieces: 1, holes: 0, joins: 0, slits: 0 },
      { pieces: 1, holes: 0 },
    ],
    [
      'a dot that can be cut',
      whole(base, rectangle(25, 5, 0.12, 3)),
      { pieces: 0, holes: 0, joins: 0, slits: 0 },
      { pieces: 2, holes: 0 },
    ],
    [
      'a hole too narrow for a blade',
      without(whole(base), rectangle(5, 5, 6, 0.07)),
      { pieces: 0, holes: 1, joins: 0, slits: 0 },
      { pieces: 1, holes: 0 },
    ],
    [
      'two pieces that hang by a thread',
      whole(base, rectangle(19, 10, 6, 0.06), rectangle(24, 0, 20, 20)),
      { pieces: 0, holes: 0, joins: 1, slits: 0 },
      { pieces: 2, holes: 0 },
    ],
    [
      'two pieces that hold together',
      whole(base, rectangle(19, 10, 6, 0.14), rectangle(24, 0, 20, 20)),
      { pieces: 0, holes: 0, joins: 0, slits: 0 },
      { pieces: 1, holes: 0 },
    ],
    [
      'two counters parted by a thread',
      without(whole(base), rectangle(5, 5, 4, 4), rectangle(9.06, 5, 4, 4)),
      { pieces: 0, holes: 0, joins: 1, slits: 0 },
      { pieces: 1, holes: 1 },
    ],
    [
      'two halves that should touch',
      whole(base, rectangle(20.004, 0, 20, 20)),
      { pieces: 0, holes: 0, joins: 0, slits: 1 },
      { pieces: 1, holes: 0 },
    ],
    [
      'a whisker at a corner, which is its tip',
      whole(base, Float64Array.of(20, 9.97, 26, 10, 20, 10.03)),
      { pieces: 0, holes: 0, joins: 0, slits: 0 },
      { pieces: 1, holes: 0 },
    ],
    ['nothing', [] as Rings, { pieces: 0, holes: 0, joins: 0, slits: 0 }, { pieces: 0, holes: 0 }],
  ] as const)('%s', (_, rings, taken, left) => {
    const { rings: clean, ...found } = withoutCrumbs(rings);
    expect(found).toEqual(taken);
    expect(countPieces(clean)).toEqual(left);
    // What is clean stays as it is, and all else keeps its edge.
    expect(withoutCrumbs(clean)).toEqual({ rings: clean, pieces: 0, holes: 0, joins: 0, slits: 0 });
    expect(areaOf(intersect(clean, rings))).toBeGreaterThan(areaOf(rings) - 0.5);
  });

  it('are taken out of every build, and what is seen stays', () => {
    const paints = [
      { layer: 'under', rings: [rectangle(0, 0, 40, 20)] },
      { layer: 'over', rings: unite([disc(10, 10, 6), rectangle(30, 2, 0.05, 10)]) },
    ];
    for (const school of ['overlay', 'inlay', 'trapped'] as const) {
      const { layers, crumbs } = buildLayers(separate(paints), { school, trapMm: 0.4 });
      expect(crumbs.pieces).toBe(1);
      expect(countPieces(layers[1]!.cut)).toEqual({ pieces: 1, holes: 0 });
    }
  });
});

function isBetween(counted: RasterCount, one: RasterCount, other: RasterCount): boolean {
  return (['pieces', 'holes'] as const).every(
    (kind) => counted[kind] >= Math.min(one[kind], other[kind]) && counted[kind] <= Math.max(one[kind], other[kind]),
  );
}

describe('pieces and counters, against a raster of 0.02 mm', () => {
  // At 16 mm, small enough to leave crumbs in many of them.
  /** A wheel whose rim meets itself across less than a millionth of a millimetre: it is no ring here, and is one on the raster. */
  const APART = 'emojione/person-mountain-biking-medium-skin-tone';
  it.each(
    openArtwork(process.env['LANTERN_LONG'] ? 100 : 3, 31)
      .filter(({ name }) => name !== APART)
      .map(({ name, svg }) => ({ name, svg })),
  )('$name', ({ name, svg }) => {
    const artwork = readSvg(new TextEncoder().encode(svg), name);
    const { regions } = paintRegions(artwork, 16 / Math.max(artwork.widthMm, artwork.heightMm));
    const separation = separate(regions.map((region) => ({ layer: region.colour, rings: region.rings })));
    const { layers } = buildLayers(separation, { school: 'trapped', trapMm: 0.3 });
    for (const region of layers.flatMap((layer) => regionsOf(layer.cut))) {
      // Each piece by itself: where a raster cannot tell, as it has no more than half a square's certainty, any count between is right, or a finer one tells.
      const piece = ringsOf([region]);
      const counted = { pieces: 1, holes: region.holes.length };
      const isRight =
        isBetween(counted, rasterCount(piece, 0.035), rasterCount(piece, 0.065)) ||
        isBetween(counted, rasterCount(piece, 0.046, 0.005), rasterCount(piece, 0.054, 0.005));
      expect(isRight, `${counted.pieces} piece with ${counted.holes} holes`).toBe(true);
      expect(grow(piece, -0.049).length).toBeGreaterThan(0);
    }
    const looks = recompose(layers).reduce(
      (sum, { key, shows }) =>
        sum + Math.abs(areaOf(shows) - areaOf(layers.find((layer) => layer.key === key)!.visible)),
      0,
    );
    // At this size coats of arms are mostly crumbs.
    expect(looks).toBeLessThan(0.03 * regions.reduce((sum, region) => sum + areaOf(region.rings), 0));
  });
});
