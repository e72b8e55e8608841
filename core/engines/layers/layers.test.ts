import { describe, expect, it } from 'vitest';
import {
  areaOf,
  countPieces,
  grow,
  intersect,
  regionsOf,
  ringsOf,
  signedArea,
  subtract,
  tolerances,
  unite,
  type Rings,
} from '../../geometry/index.js';
import { disc, randomPaints, rectangle } from '../../testing/seeded.js';
import { buildLayers, crossSection, lapOf, recompose, separate, type Crumbs, type School } from './index.js';

const SEEDS = Array.from({ length: 24 }, (_, seed) => seed);
const TRAP = 0.4;
const keys = (layers: readonly { key: string }[]) => layers.map((layer) => layer.key);
/** Area that no kernel rounding explains: a hundredth of a mm all along a 100 mm edge. */
const NOTHING_MM2 = 0.02;

const build = (seed: number, school: School, trapMm = TRAP) => {
  const separation = separate(randomPaints(seed, 14, 4));
  const { layers, crumbs } = buildLayers(separation, { school, trapMm });
  return { separation, layers, crumbs };
};
/** What of an area hangs together with what shows, by more than a blade leaves. */
const hangingOn = (rings: Rings, visible: Rings, halfMm: number): Rings =>
  intersect(
    rings,
    grow(
      ringsOf(regionsOf(grow(rings, -halfMm)).filter(({ outer }) => areaOf(intersect([outer], visible)) > NOTHING_MM2)),
      halfMm + 0.02,
    ),
  );
/** Area that must not be there; where crumbs were taken out, as much of it as is wider than one. */
const wrongMm2 = (rings: Rings, { pieces, holes, joins, slits }: Crumbs) =>
  areaOf(pieces + holes + joins + slits > 0 ? grow(rings, -tolerances.CRUMB_MM) : rings);

describe('a trap', () => {
  const strip = (bareMm: number) =>
    buildLayers(
      separate([
        { layer: 'red', rings: [rectangle(0, 0, 60, 40)] },
        { layer: 'blue', rings: [rectangle(60 + bareMm, 0, 40, 40)] },
      ]),
      { school: 'trapped', trapMm: 0.8 },
    ).layers.find(({ key }) => key === 'red')!;
  it('does not jump over bare surface', () => {
    expect(countPieces(strip(0.2).cut)).toEqual({ pieces: 1, holes: 0 });
    expect(areaOf(strip(0.2).cut)).toBeCloseTo(60 * 40, 3);
  });
  it('runs under what touches', () => expect(areaOf(strip(0).cut)).toBeCloseTo(60.8 * 40, 1));
  it.each(SEEDS)('seed %i: has no piece of which nothing shows', (seed) => {
    for (const { cut, visible } of build(seed, 'trapped', 1.5).layers) {
      for (const { outer } of regionsOf(cut))
        expect(areaOf(intersect(grow([outer], 0.03), visible))).toBeGreaterThan(tolerances.CRUMB_MM2);
    }
  });
});

describe.each(SEEDS)('a random artwork, seed %i', (seed) => {
  it('comes apart into visible areas that do not overlap and add up to all that is painted', () => {
    const paints = randomPaints(seed, 14, 4);
    const { layers } = separate(paints);
    const sum = layers.reduce((total, layer) => total + areaOf(layer.visible), 0);
    const all = unite(paints.flatMap((paint) => [...paint.rings]));
    expect(sum).toBeCloseTo(areaOf(all), 2);
    layers.forEach((a, i) => {
      for (const b of layers.slice(i + 1)) expect(areaOf(intersect(a.visible, b.visible))).toBeLessThan(NOTHING_MM2);
    });
  });

  it.each(['overlay', 'inlay', 'trapped'] as const)('laid together again as %s shows what it showed', (school) => {
    const { layers, crumbs } = build(seed, school);
    for (const { key, shows } of recompose(layers)) {
      const { visible } = layers.find((layer) => layer.key === key)!;
      expect(wrongMm2(subtract(shows, visible), crumbs) + wrongMm2(subtract(visible, shows), crumbs)).toBeLessThan(
        NOTHING_MM2,
      );
    }
  });

  it('has inlay layers that never overlap', () => {
    const { layers } = build(seed, 'inlay');
    layers.forEach((a, i) => {
      for (const b of layers.slice(i + 1)) expect(areaOf(lapOf(a, b))).toBeLessThan(NOTHING_MM2);
    });
  });

  it('runs trapped layers under by the trap within 0.02 mm, wherever there is room and nowhere else', () => {
    const { layers, crumbs } = build(seed, 'trapped');
    layers.forEach((layer, i) => {
      const above: Rings = unite(layers.slice(i + 1).flatMap((upper) => [...upper.visible]));
      // Across bare surface it would be a loose strip: only what hangs together with something that shows is asked for.
      const least = hangingOn(
        unite([...layer.visible, ...intersect(grow(layer.visible, TRAP - 0.02), above)]),
        layer.visible,
        tolerances.CRUMB_MM,
      );
      const most = grow(layer.visible, TRAP + 0.02);
      expect(wrongMm2(subtract(least, layer.cut), crumbs)).toBeLessThan(NOTHING_MM2);
      expect(wrongMm2(subtract(layer.cut, most), crumbs)).toBeLessThan(NOTHING_MM2);
      expect(wrongMm2(subtract(subtract(layer.cut, layer.visible), above), crumbs)).toBeLessThan(NOTHING_MM2);
    });
  });

  it('gives the same layers in the same bytes when built again', () => {
    const [a, b] = [build(seed, 'trapped').layers, build(seed, 'trapped').layers];
    expect(a.map((layer) => layer.cut.map((ring) => [...ring]))).toEqual(
      b.map((layer) => layer.cut.map((ring) => [...ring])),
    );
  });

  it('scaled by k and trapped by t is the artwork trapped by t/k and scaled', () => {
    const k = 2.5;
    const paints = randomPaints(seed, 10, 3);
    const scaled = paints.map((paint) => ({ ...paint, rings: paint.rings.map((ring) => ring.map((v) => v * k)) }));
    const [large, small] = [
      buildLayers(separate(scaled), { school: 'trapped', trapMm: 1 }),
      buildLayers(separate(paints), { school: 'trapped', trapMm: 1 / k }),
    ];
    // What is a crumb at one size need not be one at the other.
    const byMm = [large, small].some(
      ({ crumbs: { pieces, holes, joins, slits } }) => pieces + holes + joins + slits > 0,
    )
      ? k * tolerances.CRUMB_MM
      : 0.01;
    large.layers.forEach((layer, i) => {
      const enlarged = small.layers[i]!.cut.map((ring) => ring.map((v) => v * k));
      // 0.02 mm along all edges: what differs must vanish when it is shrunk by half of that. Rings without area are no difference.
      const thick = (rings: Rings) =>
        areaOf(
          grow(
            rings.filter((ring) => signedArea(ring) > 1e-3),
            -byMm,
          ),
        );
      expect(thick(subtract(layer.cut, enlarged))).toBeLessThan(NOTHING_MM2);
      expect(thick(subtract(enlarged, layer.cut))).toBeLessThan(NOTHING_MM2);
    });
  });
});

describe('layers of drawn cases', () => {
  const base = { layer: 'base', rings: [rectangle(0, 0, 100, 60)] };
  const dot = { layer: 'dot', rings: [disc(50, 30, 10, 256)] };

  it('joins what overlaps of one film, and counts it', () => {
    const { layers, joined } = separate([
      { layer: 'ink', rings: [rectangle(0, 0, 10, 10)] },
      { layer: 'ink', rings: [rectangle(5, 0, 10, 10)] },
      { layer: 'ink', rings: [rectangle(15, 0, 5, 10)] },
    ]);
    expect(joined).toBe(2);
    expect(layers[0]!.visible).toHaveLength(1);
  });

  it('leaves out a layer that others cover wholly', () => {
    expect(keys(separate([dot, { ...base, layer: 'cover' }]).layers)).toEqual(['cover']);
  });

  it('takes a dot out of its base with a trap all round', () => {
    const { layers } = buildLayers(separate([base, dot]), { school: 'trapped', trapMm: 0.5 });
    expect(areaOf(layers[0]!.cut)).toBeCloseTo(6000 - Math.PI * 9.5 * 9.5, 0);
    expect(layers[0]!.cut.filter((ring) => signedArea(ring) < 0)).toHaveLength(1);
  });

  it('fills a hole too small to weed where an upper layer hides it', () => {
    const pinhole = { layer: 'dot', rings: [disc(50, 30, 0.6)] };
    const filled = buildLayers(separate([base, pinhole]), { school: 'trapped', trapMm: 0.4, thinnestMm: () => 1 });
    const left = buildLayers(separate([base, pinhole]), { school: 'trapped', trapMm: 0.4, thinnestMm: () => 0.1 });
    expect([filled.layers[0]!.cut.length, left.layers[0]!.cut.length]).toEqual([1, 2]);
  });

  it('never runs a film that takes nothing on top under another', () => {
    const { layers } = buildLayers(separate([base, dot]), { school: 'overlay', trapMm: 0.5, takesOnTop: () => false });
    expect(areaOf(lapOf(layers[0]!, layers[1]!))).toBeLessThan(NOTHING_MM2);
  });

  it('follows an order that contradicts the artwork and still shows the same', () => {
    const { layers } = buildLayers(separate([base, dot]), { school: 'trapped', trapMm: 0.5, order: ['dot', 'base'] });
    expect(keys(layers)).toEqual(['dot', 'base']);
    expect(areaOf(lapOf(layers[0]!, layers[1]!))).toBeCloseTo(Math.PI * (10.5 ** 2 - 100), 0);
    const shown = recompose(layers).find((layer) => layer.key === 'dot')!.shows;
    expect(areaOf(shown)).toBeCloseTo(Math.PI * 100, 0);
  });

  it('keeps holes that an overlay must show through when the same film lies below and above (bands with a star)', () => {
    const paints = [
      { layer: 'gold', rings: [rectangle(0, 0, 90, 60)] },
      { layer: 'white', rings: [rectangle(0, 0, 90, 40)] },
      { layer: 'blue', rings: [rectangle(0, 0, 90, 20)] },
      { layer: 'gold', rings: [disc(15, 10, 5)] },
    ];
    const { layers } = buildLayers(separate(paints), { school: 'overlay', trapMm: 0 });
    for (const { key, shows } of recompose(layers))
      expect(areaOf(shows)).toBeCloseTo(areaOf(layers.find((l) => l.key === key)!.visible), 3);
  });

  it('is shown cut through with the films that lie beneath each place', () => {
    const { layers } = buildLayers(separate([base, dot]), { school: 'trapped', trapMm: 0.5 });
    const bars = crossSection(layers, 30, (key) => (key === 'base' ? 70 : 50));
    expect(
      bars.map(({ key, baseUm, fromMm, toMm }) => [
        key,
        baseUm,
        Math.round(fromMm * 10) / 10,
        Math.round(toMm * 10) / 10,
      ]),
    ).toEqual([
      ['base', 0, 0, 40.5],
      ['base', 0, 59.5, 100],
      ['dot', 70, 40, 40.5],
      ['dot', 0, 40.5, 59.5],
      ['dot', 70, 59.5, 60],
    ]);
  });

  it('is cut through upright as it is level with its axes changed over', () => {
    const stripes = [
      { layer: 'a', rings: [rectangle(0, 0, 100, 20)] },
      { layer: 'b', rings: [rectangle(0, 20, 100, 10)] },
    ];
    const { layers } = buildLayers(separate(stripes), { school: 'inlay', trapMm: 0 });
    expect(crossSection(layers, 50, () => 70, 'upright').map(({ key, fromMm, toMm }) => [key, fromMm, toMm])).toEqual([
      ['a', 0, 20],
      ['b', 20, 30],
    ]);
    expect(crossSection(layers, 25, () => 70).map(({ key }) => key)).toEqual(['b']);
  });
});
