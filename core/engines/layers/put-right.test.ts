import { describe, expect, it } from 'vitest';
import {
  areaOf,
  boundsOf,
  grow,
  intersect,
  pointCount,
  regionsOf,
  subtract,
  unite,
  type Ring,
  type Rings,
} from '../../geometry/index.js';
import { EVERYWHERE, type PlaceRules } from '../../words/index.js';
import { NO_REPAIR, sayLayerTroubles, sayPaintTroubles } from '../../stations/artwork/index.js';
import { blob, disc, rectangle, seeded } from '../../testing/seeded.js';
import { checkLayers, checkPaints, narrowGaps, putRight, separate, thinnestPart, thinParts, touchUp } from './index.js';

const SEEDS = Array.from({ length: 16 }, (_, seed) => seed);
/** Areas of single colours, cut as they are seen, put right as in a job whose films are weeded from 1 mm on. */
const touched = (
  areas: readonly { colour: string; rings: Rings }[],
  repair: Partial<typeof NO_REPAIR>,
  rules: PlaceRules = EVERYWHERE,
) => {
  const seen = (list: readonly { colour: string; rings: Rings }[]) =>
    separate(list.map(({ colour, rings }) => ({ layer: colour, rings }))).layers;
  const layers = seen(areas).map(({ key, visible }) => ({ key, thinnestMm: 1, durableMm: 1, cut: visible, visible }));
  const after = touchUp(areas, layers, (colour) => colour, { ...NO_REPAIR, ...repair }, rules);
  return after && new Map(seen(after).map(({ key, visible }) => [key, visible]));
};
/** A thick square with a thin tail. */
const tailed = (tailMm: number): Rings => unite([rectangle(0, 0, 20, 20), rectangle(15, 10 - tailMm / 2, 25, tailMm)]);
const far = () => 50;
const frame = { minX: 0, minY: 0, maxX: 100, maxY: 100 };

describe('thin parts', () => {
  it('are measured at the thinnest', () => {
    for (const mm of [0.5, 0.8, 1.6, 2.4]) expect(Math.abs(thinnestPart(tailed(mm))!.mm - mm)).toBeLessThan(0.11);
    expect(thinnestPart([rectangle(0, 0, 30, 30)])).toBeNull();
  });

  it('are found where they are thinner than asked for, and not where they are as wide', () => {
    expect(thinParts(tailed(0.6), 1)).toHaveLength(1);
    expect(thinParts(tailed(1), 1)).toEqual([]);
    expect(thinParts(tailed(0.6), 0)).toEqual([]);
  });

  it('are not the tips of corners', () => {
    expect(thinParts([rectangle(0, 0, 30, 30), Float64Array.of(40, 0, 60, 0, 50, 18)], 1)).toEqual([]);
  });

  it.each(SEEDS)('lie inside the area and are gone from it after an opening, seed %i', (seed) => {
    const area = unite([blob(seeded(seed), 0, 0, 20)]);
    const parts = thinParts(area, 2).flatMap((part) => [part.outer, ...part.holes]);
    expect(areaOf(subtract(parts, area))).toBeLessThan(1e-3);
    expect(areaOf(intersect(parts, grow(grow(area, -1), 1)))).toBeLessThan(0.05);
  });

  it.each(SEEDS)(
    'are all that the plain opening test leaves and that is long, though only what may be thin is tested, seed %i',
    (seed) => {
      const random = seeded(seed + 100);
      const bars = Array.from({ length: 14 }, () =>
        random() < 0.5
          ? rectangle(60 * random(), 60 * random(), 30 * random(), 0.3 + 2 * random())
          : rectangle(60 * random(), 60 * random(), 0.3 + 2 * random(), 30 * random()),
      );
      const area = unite([
        ...bars,
        ...Array.from({ length: 9 }, () => blob(random, 60 * random(), 60 * random(), 2 + 8 * random())),
      ]);
      for (const width of [0.8, 1.5]) {
        const plain = regionsOf(subtract(area, grow(grow(area, -width / 2), width / 2 + 0.02)));
        const across = (part: { outer: Ring }) =>
          Math.hypot(
            boundsOf([part.outer])!.maxX - boundsOf([part.outer])!.minX,
            boundsOf([part.outer])!.maxY - boundsOf([part.outer])!.minY,
          );
        const long = plain.filter((part) => across(part) > 4.2 * width);
        const found = thinParts(area, width).flatMap((part) => [part.outer, ...part.holes]);
        for (const part of long)
          expect(areaOf(intersect([part.outer], found))).toBeGreaterThan(0.8 * areaOf([part.outer, ...part.holes]));
      }
    },
  );

  it.each(SEEDS)('are thickened to the width and no more than half of it further out, seed %i', (seed) => {
    const tail = 0.2 + seeded(seed)() * 0.7;
    const thick = touched([{ colour: '#000000', rings: tailed(tail) }], { thickenMm: 1 })!.get('#000000')!;
    expect(thinParts(thick, 0.95)).toEqual([]);
    expect(areaOf(subtract(tailed(tail), thick))).toBeLessThan(1e-6);
    expect(areaOf(subtract(thick, grow(tailed(tail), 0.51)))).toBeLessThan(1e-3);
  });
});

describe('narrow gaps', () => {
  const halves: Rings = [rectangle(0, 0, 20, 20), rectangle(20.5, 0, 20, 20)];

  it('are found between parts and within one', () => {
    expect(narrowGaps(halves, 1)).toHaveLength(1);
    expect(narrowGaps(halves, 0.4)).toEqual([]);
    expect(narrowGaps(unite([disc(0, 0, 10), ...[disc(0, 0, 5), disc(0, 0, 4.6)]], 'evenodd'), 1)).not.toEqual([]);
  });

  it('are filled', () => {
    const filled = touched([{ colour: '#000000', rings: halves }], { closeGapsMm: 1 })!.get('#000000')!;
    expect(narrowGaps(filled, 1)).toEqual([]);
    expect(areaOf(filled)).toBeGreaterThan(809);
  });
});

describe('putting right', () => {
  const ink = (rings: Rings, colour = '#000000') => ({ colour, rings });

  it('changes nothing when nothing is to be put right', () => {
    const areas = [ink([rectangle(0, 0, 9, 9)]), ink([disc(5, 5, 3)], '#ffffff')];
    expect(putRight(areas, NO_REPAIR)).toEqual(areas);
  });

  it('takes a colour for another', () => {
    expect(
      putRight([ink([disc(0, 0, 3)], '#111111')], { ...NO_REPAIR, recolour: { '#111111': '#000000' } })[0]!.colour,
    ).toBe('#000000');
  });

  it('leaves out what is hidden or painted twice, and the look stays', () => {
    const areas = [
      ink([disc(5, 5, 2)], '#b3262b'),
      ink([rectangle(0, 0, 10, 10)]),
      ink([rectangle(0, 0, 10, 10)]),
      ink([disc(9, 9, 4)], '#f2b632'),
    ];
    expect(putRight(areas, { ...NO_REPAIR, tidy: true }).map((area) => area.colour)).toEqual(['#000000', '#f2b632']);
  });

  it('simplifies within the tolerance', () => {
    const ring = disc(0, 0, 20, 2000);
    const [simple] = putRight([ink([ring])], { ...NO_REPAIR, simplifyMm: 0.03 });
    expect(pointCount(simple!.rings)).toBeLessThan(200);
    expect(areaOf(subtract([ring], grow(simple!.rings, 0.031)))).toBeLessThan(1e-6);
  });
});

describe('touching up what would be cut', () => {
  const [INK, RED] = ['#000000', '#b3262b'];
  const ink = (...rings: Rings) => ({ colour: INK, rings });
  const red = (...rings: Rings) => ({ colour: RED, rings });

  it('drops specks and fills pinholes, and keeps what is larger', () => {
    const rings = unite(
      [rectangle(0, 0, 20, 20), disc(5, 5, 0.3), disc(12, 12, 3), disc(40, 5, 0.3), disc(40, 15, 2)],
      'evenodd',
    );
    expect(touched([ink(...rings)], { speckMm2: 1 })!.get(INK)).toHaveLength(3);
  });

  it('keeps a large piece that is painted in small shapes', () => {
    const tiles = Array.from({ length: 100 }, (_, i) =>
      ink(rectangle((i % 10) * 0.5, Math.floor(i / 10) * 0.5, 0.5, 0.5)),
    );
    expect(touched(tiles, { speckMm2: 1 })).toBeNull();
  });

  it('shows what lies beneath a dropped speck, and fills the hole of one that lay in bare surface', () => {
    const over = touched([ink(rectangle(0, 0, 20, 20)), red(disc(5, 5, 0.3))], { speckMm2: 1 })!;
    expect(over.has(RED)).toBe(false);
    expect(over.get(INK)).toHaveLength(1);
    const fitted = touched(
      [ink(...unite([rectangle(0, 0, 20, 20), disc(5, 5, 0.3)], 'evenodd')), red(disc(5, 5, 0.3))],
      { speckMm2: 1 },
    )!;
    expect(areaOf(fitted.get(INK)!)).toBeCloseTo(400, 2);
  });

  it('widens a part that is thin only because another covers it', () => {
    // A square of 20 whose right edge alone shows, 0.4 wide.
    const after = touched([ink(rectangle(0, 0, 20, 20)), red(rectangle(-1, -1, 20.6, 22))], { thickenMm: 1 })!;
    expect(thinParts(after.get(INK)!, 0.95)).toEqual([]);
    expect(areaOf(intersect(after.get(INK)!, after.get(RED)!))).toBeLessThan(1e-6);
  });

  it('fills no gap with what would hide another film', () => {
    const halves = [ink(rectangle(0, 0, 20, 20)), ink(rectangle(20.5, 0, 20, 20))];
    expect(touched([...halves, red(rectangle(20, 0, 0.5, 20))], { closeGapsMm: 1 })).toBeNull();
  });

  it('acts at the chosen places only', () => {
    const dots = [ink(rectangle(0, 0, 20, 20)), ink(disc(40, 5, 0.3)), ink(disc(40, 15, 0.3))];
    const atTop: PlaceRules = { ...EVERYWHERE, reaches: (_, box) => box.maxY < 10 };
    expect(touched(dots, { speckMm2: 1 }, atTop)!.get(INK)).toHaveLength(2);
  });
});

describe('checks', () => {
  const codes = (findings: readonly { code: string }[]) => findings.map((finding) => finding.code);

  it('find what would spoil the cut of a layer, with places and a remedy each', () => {
    const cut = [
      ...tailed(0.5),
      ...unite([rectangle(60, 0, 20, 20), disc(70, 10, 0.3)], 'evenodd'),
      ...unite([disc(90, 5, 0.3)]),
      rectangle(60, 20.4, 20, 9),
    ];
    const findings = checkLayers([{ key: 'tar', thinnestMm: 1, cut }]);
    expect(codes(findings)).toEqual(['thin-parts', 'narrow-gaps', 'specks', 'pinholes']);
    for (const { layers } of findings)
      expect(layers).toMatchObject([{ key: 'tar', leastMm: 1, places: expect.arrayContaining([expect.anything()]) }]);
    for (const { where, places, count, remedies } of sayLayerTroubles(findings, () => 'Tar black')) {
      expect(places!.length).toBe(count);
      expect(where).toEqual(places![0]);
      expect(remedies).toHaveLength(1);
    }
  });

  it('tell strokes that can be weeded and will not last from those that cannot be weeded', () => {
    const cut = [...tailed(1.5), ...tailed(0.5).map((ring) => ring.map((v, i) => (i % 2 === 0 ? v + 60 : v)))];
    const [thin, weak, ...others] = checkLayers([{ key: 'tar', thinnestMm: 1, durableMm: 2, cut }]);
    expect(others).toEqual([]);
    expect([thin!.code, thin!.layers[0]!.places.length, weak!.code, weak!.layers[0]!.places.length]).toEqual([
      'thin-parts',
      1,
      'not-durable',
      1,
    ]);
    expect(weak!.layers[0]).toMatchObject({ leastMm: 2, places: [{ maxX: expect.closeTo(40, 0) }] });
  });

  it('find nothing in sound work', () => {
    expect(checkLayers([{ key: 'tar', thinnestMm: 1, cut: [rectangle(0, 0, 30, 30), disc(50, 10, 5)] }])).toEqual([]);
    expect(checkPaints([{ colour: '#b3262b', rings: [rectangle(0, 0, 30, 30)] }], [frame], far)).toEqual([]);
  });

  it('find near colours, a white ground, hidden and doubled shapes, and outlines of too many corners', () => {
    const areas = [
      { colour: '#ffffff', rings: [rectangle(0, 0, 100, 100)] },
      { colour: '#b3262b', rings: [disc(20, 20, 3)] },
      { colour: '#1d4e89', rings: [rectangle(5, 5, 40, 40)] },
      { colour: '#1d4e89', rings: [rectangle(5, 5, 40, 40)] },
      { colour: '#1d4e8a', rings: [disc(70, 70, 10, 3000)] },
    ];
    const near = (a: string, b: string) => (a.slice(0, 6) === b.slice(0, 6) ? 0.2 : 50);
    expect(codes(checkPaints(areas, [frame], near))).toEqual([
      'near-colours',
      'white-ground',
      'painted-twice',
      'hidden',
      'crowded-outline',
    ]);
  });

  it('offer only remedies that end the finding', () => {
    const areas = [{ colour: '#000000', rings: [disc(50, 50, 30, 9000)] }];
    const [finding] = sayPaintTroubles(checkPaints(areas, [frame], far), NO_REPAIR);
    const after = putRight(areas, { ...NO_REPAIR, ...finding!.remedies![0]!.patch.repair });
    expect(checkPaints(after, [frame], far)).toEqual([]);
  });
});
