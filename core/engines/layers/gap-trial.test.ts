import { describe, expect, it } from 'vitest';
import { rectangle } from '../../testing/seeded.js';
import {
  buildLayers,
  contactsOf,
  gapTrial,
  separate,
  type BuiltLayer,
  type GapTrialOptions,
  type School,
} from './index.js';

/** Two films side by side, 50 mm wide each, the right one over the left. */
function sideBySide(school: School, trapMm: number): readonly BuiltLayer[] {
  const paints = [
    { layer: 'left', rings: [rectangle(0, 0, 50, 40)] },
    { layer: 'right', rings: [rectangle(50, 0, 50, 40)] },
  ];
  return buildLayers(separate(paints), { school, trapMm }).layers;
}

const FAR = [
  { x: -1e7, y: 20 },
  { x: 1e7, y: 20 },
] as const;
const options = (
  more: Partial<GapTrialOptions> = {},
  a = 0.3,
  c = 0,
  marks: GapTrialOptions['terms']['marks'] = FAR,
): GapTrialOptions => ({
  terms: {
    placementErrorMm: a,
    repeatabilityMm: c,
    marks,
    first: 'left',
    pair: () => ({ shrink: 0, drawBackMm: 0, box: { minX: 50, minY: 0, maxX: 50, maxY: 40 } }),
  },
  lap: () => 'trap',
  trapMm: 0,
  visibleMm: 0.1,
  placements: 4000,
  seed: 5,
  ...more,
});

/** Share of a normal deviate above z (Abramowitz and Stegun 26.2.17). */
function above(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    (Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? tail : 1 - tail;
}

describe('a gap trial of two rectangles', () => {
  // Marks endlessly far apart turn nothing: the edge opens by the mean of two errors, each normal with a standard deviation of a / 3.
  it.each([
    [0.3, 0, 0],
    [0.3, 0, 0.1],
    [0.3, 0.1, 0.15],
    [0.5, 0.05, 0.2],
    [0.2, 0.2, 0],
  ])('agrees with the exact risk: a = %f, c = %f, t = %f', (a, c, trapMm) => {
    const { risk } = gapTrial(sideBySide('trapped', trapMm), options({ trapMm }, a, c));
    // The cutter errs for both layers.
    const sigma = Math.hypot(a / 3 / Math.SQRT2, (c / 3) * Math.SQRT2);
    const exact = above((0.1 + trapMm) / sigma);
    expect(Math.abs(risk - exact)).toBeLessThan(4 * Math.sqrt((exact * (1 - exact)) / 4000) + 1e-4);
  });

  it('turning opens the far end: the risk is higher the nearer the marks', () => {
    const risks = [1e6, 100, 40, 15].map(
      (apart) =>
        gapTrial(
          sideBySide('inlay', 0),
          options({}, 0.3, 0, [
            { x: 50, y: 20 - apart / 2 },
            { x: 50, y: 20 + apart / 2 },
          ]),
        ).risk,
    );
    expect(risks).toEqual([...risks].sort((x, y) => x - y));
    expect(risks[3]! - risks[0]!).toBeGreaterThan(0.05);
  });

  it('opens by what draws back and shrinks, whatever the hand does', () => {
    const still = (more: object) => ({
      ...options({}, 0),
      terms: {
        ...options({}, 0).terms,
        marks: [
          { x: 0, y: 20 },
          { x: 20, y: 20 },
        ] as const,
        pair: () => ({ shrink: 0, drawBackMm: 0, box: { minX: 50, minY: 0, maxX: 50, maxY: 40 }, ...more }),
      },
    });
    expect(gapTrial(sideBySide('inlay', 0), still({ drawBackMm: 0.16 }))).toMatchObject({
      risk: 1,
      widestMm: expect.closeTo(0.16, 9),
    });
    // The edge lies 40 mm from the middle of the marks.
    expect(gapTrial(sideBySide('inlay', 0), still({ shrink: 0.01 }))).toMatchObject({
      risk: 1,
      widestMm: expect.closeTo(0.4, 9),
    });
    // Where the upper film shrinks more, it closes in on this side.
    expect(gapTrial(sideBySide('inlay', 0), still({ shrink: -0.01 })).risk).toBe(0);
  });

  it('two that are laid to a third may both be off, with marks and by eye', () => {
    for (const marks of [FAR, null]) {
      const risk = (first: string) =>
        gapTrial(sideBySide('inlay', 0), { ...options({}, 0.3), terms: { ...options({}, 0.3, 0, marks).terms, first } })
          .risk;
      expect(risk('another')).toBeGreaterThan(1.3 * risk('left'));
    }
  });

  it('tells the risk for every trap, never rising, and the least trap for a chosen one', () => {
    const { curve, trapFor, risk } = gapTrial(sideBySide('trapped', 0.2), options({ trapMm: 0.2 }));
    for (let i = 1; i < curve.length; i += 1) expect(curve[i]!.risk).toBeLessThanOrEqual(curve[i - 1]!.risk);
    expect(curve.find((point) => point.trapMm === 0.2)!.risk).toBe(risk);
    const trap = trapFor(0.01)!;
    expect(gapTrial(sideBySide('trapped', trap), options({ trapMm: trap })).risk).toBeLessThanOrEqual(0.01);
    expect(gapTrial(sideBySide('trapped', trap - 0.05), options({ trapMm: trap - 0.05 })).risk).toBeGreaterThan(0.01);
  });

  it('is the same for one seed and another for another', () => {
    const run = (seed: number) => gapTrial(sideBySide('inlay', 0), options({ seed })).risk;
    expect(run(1)).toBe(run(1));
    expect(run(1)).not.toBe(run(2));
  });

  it('finds no gap where a layer runs whole under', () => {
    const paints = [
      { layer: 'base', rings: [rectangle(0, 0, 100, 100)] },
      { layer: 'top', rings: [rectangle(30, 30, 40, 40)] },
    ];
    const { layers } = buildLayers(separate(paints), { school: 'overlay', trapMm: 0 });
    expect(gapTrial(layers, options({ lap: () => 'cut' }, 2))).toMatchObject({ risk: 0, worst: null });
    const { layers: inlaid } = buildLayers(separate(paints), { school: 'inlay', trapMm: 0 });
    const trial = gapTrial(inlaid, options({ lap: () => 'none' }, 2));
    expect(trial).toMatchObject({ worst: { lower: 'base', upper: 'top' } });
    expect(trial.risk).toBeGreaterThan(0.9);
    // No trap was wanted there, so none helps.
    expect(trial.trapFor(0.01)).toBeNull();
  });

  it('shows where: the side that moves away opens, far from the middle of the marks oftenest', () => {
    const { heat } = gapTrial(
      sideBySide('inlay', 0),
      options({}, 0.3, 0, [
        { x: 50, y: 0 },
        { x: 50, y: 10 },
      ]),
    );
    for (const spot of heat) expect(spot.x).toBeCloseTo(50, 6);
    const near = heat.filter((spot) => spot.y < 10);
    const far = heat.filter((spot) => spot.y > 30);
    expect(Math.max(...near.map((s) => s.share))).toBeLessThan(Math.min(...far.map((s) => s.share)));
  });
});

describe('contacts', () => {
  const layersOf = (rings: readonly (readonly [string, Float64Array])[]) =>
    separate(rings.map(([layer, ring]) => ({ layer, rings: [ring] }))).layers;
  it('are where layers meet, and only there', () => {
    const layers = layersOf([
      ['a', rectangle(0, 0, 50, 40)],
      ['b', rectangle(50, 10, 50, 20)],
      ['c', rectangle(120, 0, 10, 10)],
    ]);
    expect(contactsOf(layers)).toEqual([
      {
        a: 'a',
        b: 'b',
        box: {
          minX: expect.closeTo(50, 1),
          maxX: expect.closeTo(50, 1),
          minY: expect.closeTo(10, 1),
          maxY: expect.closeTo(30, 1),
        },
        farthestMm: expect.closeTo(Math.hypot(50 - 65, 10), 1),
      },
    ]);
  });
  it('are not seen where boxes overlap and areas do not', () => {
    const frame = separate([
      {
        layer: 'frame',
        rings: [
          rectangle(0, 0, 100, 100),
          rectangle(5, 5, 90, 90)
            .reverse()
            .reduce((ring, _, i, all) => {
              ring[i] = all[i % 2 === 0 ? i + 1 : i - 1]!;
              return ring;
            }, new Float64Array(8)),
        ],
      },
      { layer: 'inside', rings: [rectangle(40, 40, 20, 20)] },
    ]).layers;
    expect(contactsOf(frame)).toEqual([]);
  });
});
