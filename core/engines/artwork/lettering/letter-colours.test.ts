import { describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import { areaOf, boundsOf, grow, intersect, subtract, unite, type Rings } from '../../../geometry/index.js';
import { buildLayers, recompose, separate } from '../../layers/index.js';
import { newLettering } from '../../../stations/artwork/index.js';
import { seeded } from '../../../testing/seeded.js';
import { ArtworkReader, colourDifference, coloursOf, paintRegions, SHIPPED_FONTS, type Lettering } from '../index.js';
import { mixInLab } from '../colour.js';

const reader = new ArtworkReader(resourcesInNode);
const RED = '#b3262b';
const YELLOW = '#f2b632';
const BLUE = '#1d4e89';

async function painted(text: string, more: Partial<Lettering>) {
  const { regions } = paintRegions(
    await reader.lettering({ ...newLettering(text), font: 'archivo', ...more }, null),
    1,
  );
  const byColour = new Map<string, Rings[]>();
  for (const { colour, rings } of regions) byColour.set(colour, [...(byColour.get(colour) ?? []), rings]);
  return {
    regions,
    areas: new Map([...byColour].map(([colour, all]): [string, Rings] => [colour, unite(all.flat())])),
  };
}
const whole = async (text: string, more: Partial<Lettering>) =>
  unite(
    (await painted(text, { ...more, colourBy: 'all', share: { kind: 'turn' } })).regions.flatMap(({ rings }) => [
      ...rings,
    ]),
  );

/** The parts lie side by side, and together they are the letters as they were. */
function expectWhole(parts: readonly Rings[], letters: Rings): void {
  const all = unite(parts.flat());
  expect(areaOf(subtract(all, letters)) + areaOf(subtract(letters, all))).toBeLessThan(1e-3);
  parts.forEach((a, i) => parts.slice(i + 1).forEach((b) => expect(areaOf(intersect(a, b))).toBeLessThan(1e-3)));
}

describe('bands through letters', () => {
  it('end where they were set to, as shares of a flat capital over its baseline', async () => {
    const { areas } = await painted('HE', {
      capHeightMm: 50,
      colourBy: 'band',
      colours: [RED, YELLOW, BLUE],
      bands: { heights: [0.2, 0.6], along: 'line' },
    });
    const [low, middle, high] = [RED, YELLOW, BLUE].map((colour) => boundsOf(areas.get(colour)!)!);
    // The frame begins at the top of the letters, 50 mm over the baseline.
    expect([low!.maxY - low!.minY, middle!.maxY - middle!.minY, high!.maxY - high!.minY]).toEqual([
      expect.closeTo(10, 2),
      expect.closeTo(20, 2),
      expect.closeTo(20, 2),
    ]);
    expect([high!.minY, middle!.minY, low!.minY]).toEqual([
      expect.closeTo(0, 2),
      expect.closeTo(20, 2),
      expect.closeTo(40, 2),
    ]);
  });

  it('are even where they were set for another number of them', async () => {
    const { areas } = await painted('I', {
      capHeightMm: 60,
      colourBy: 'band',
      colours: [RED, YELLOW, BLUE],
      bands: { heights: [0.9], along: 'line' },
    });
    for (const rings of areas.values()) expect(boundsOf(rings)!.maxY - boundsOf(rings)!.minY).toBeCloseTo(20, 1);
  });

  it('go along each letter’s own height when that is asked for', async () => {
    const { regions } = await painted('Ho', {
      capHeightMm: 50,
      colourBy: 'band',
      colours: [RED, BLUE],
      bands: { heights: [0.5], along: 'letter' },
    });
    const halves = (element: string) =>
      regions
        .filter((region) => region.element === element)
        .map(({ rings }) => boundsOf(rings)!)
        .map(({ minY, maxY }) => maxY - minY);
    for (const element of ['the letter “H”', 'the letter “o”']) {
      const [below, above] = halves(element);
      expect(below).toBeCloseTo(above!, 2);
    }
    expect(halves('the letter “o”')[0]).toBeLessThan(0.9 * halves('the letter “H”')[0]!);
  });

  it('keep an accent with its letter', async () => {
    const { areas } = await painted('E\u0301', {
      capHeightMm: 50,
      colourBy: 'band',
      colours: [RED, BLUE],
      bands: { heights: [0.5], along: 'letter' },
    });
    const [below, above] = [RED, BLUE].map((colour) => boundsOf(areas.get(colour)!)!);
    expect(below!.maxY - below!.minY).toBeCloseTo(above!.maxY - above!.minY, 1);
  });

  it('turn with letters on an arc', async () => {
    const arc = { radiusMm: 60, bend: 'up' } as const;
    const { areas } = await painted('HIHIHIH', {
      capHeightMm: 20,
      arc,
      colourBy: 'band',
      colours: [RED, BLUE],
      bands: { heights: [0.5], along: 'line' },
    });
    // A straight cut through an arc of 60 mm would leave the outer letters in one colour.
    expect(areaOf(areas.get(RED)!) / areaOf(areas.get(BLUE)!)).toBeGreaterThan(0.8);
    expect(areaOf(areas.get(RED)!) / areaOf(areas.get(BLUE)!)).toBeLessThan(1.25);
  });

  it.each(Array.from({ length: process.env['LANTERN_LONG'] ? 200 : 24 }, (_, seed) => seed))(
    'take letters apart and leave them whole, seed %i',
    async (seed) => {
      const random = seeded(seed);
      const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!;
      const count = 2 + Math.floor(4 * random());
      const more: Partial<Lettering> = {
        font: pick(SHIPPED_FONTS.filter(({ style }) => style !== 'stencil')).id,
        capHeightMm: 10 + 60 * random(),
        arc: random() < 0.3 ? { radiusMm: 150, bend: pick(['up', 'down']) } : null,
        colours: [RED, YELLOW, BLUE, '#16181a', '#1f6b45'].slice(0, count),
        bands: {
          heights: random() < 0.5 ? [] : Array.from({ length: count - 1 }, () => 0.02 + 0.96 * random()),
          along: pick(['line', 'letter']),
        },
      };
      const text = pick(['Wick', 'Heron 8', 'Boat\nQuay', 'gypsy', 'Änderung']);
      const { regions } = await painted(text, { ...more, colourBy: 'band' });
      const letters = new Map<string, Rings[]>();
      for (const { element, rings } of regions) letters.set(element, [...(letters.get(element) ?? []), rings]);
      const all = unite(regions.flatMap(({ rings }) => [...rings]));
      const plain = await whole(text, more);
      expect(areaOf(subtract(all, plain)) + areaOf(subtract(plain, all))).toBeLessThan(1e-3);
      // Of straight bands none lies on another, whatever letters run into each other.
      const { areas } = await painted(text, {
        ...more,
        colourBy: 'band',
        arc: null,
        bands: { ...more.bands!, along: 'line' },
      });
      if (!text.includes('\n')) expectWhole([...areas.values()], await whole(text, { ...more, arc: null }));
    },
  );
});

describe('layers of banded and faded letters', () => {
  it.each([
    ['straight bands', { colourBy: 'band', bands: { heights: [0.3, 0.6], along: 'line' } }],
    ['bands by each letter', { colourBy: 'band', bands: { heights: [], along: 'letter' } }],
    ['a fade over letters', { colourBy: 'letter', share: { kind: 'fade', steps: 4 } }],
  ] as const)('show %s as they were, each with its trap under its neighbour', async (_, more) => {
    for (const font of ['zilla-slab', 'pacifico', 'oswald']) {
      const { regions } = await painted('Heron', { font, capHeightMm: 50, colours: [RED, YELLOW, BLUE], ...more });
      const { layers } = buildLayers(separate(regions.map(({ colour, rings }) => ({ layer: colour, rings }))), {
        school: 'trapped',
        trapMm: 0.4,
      });
      for (const { key, shows } of recompose(layers)) {
        const { visible } = layers.find((layer) => layer.key === key)!;
        expect(areaOf(subtract(shows, visible)) + areaOf(subtract(visible, shows))).toBeLessThan(0.05);
      }
      // What runs under a neighbour is the trap, and no more.
      const laps = layers.reduce((sum, { cut, visible }) => sum + areaOf(subtract(cut, visible)), 0);
      if (more.colourBy === 'band') expect(laps).toBeGreaterThan(1);
      for (const { cut, visible } of layers) expect(areaOf(subtract(cut, grow(visible, 0.41)))).toBeLessThan(0.01);
    }
  });
});

describe('colours shared out', () => {
  const colourOfEach = async (text: string, more: Partial<Lettering>) =>
    (await painted(text, more)).regions.map(({ colour }) => colour);

  it('go to letters one after the other, or in equal runs', async () => {
    const colours = [RED, YELLOW, BLUE];
    expect(await colourOfEach('ABCDEF', { colourBy: 'letter', colours })).toEqual([...colours, ...colours]);
    expect(await colourOfEach('ABCDEF', { colourBy: 'letter', colours, share: { kind: 'runs' } })).toEqual([
      RED,
      RED,
      YELLOW,
      YELLOW,
      BLUE,
      BLUE,
    ]);
    expect(await colourOfEach('AB CD EF', { colourBy: 'word', colours: [RED, BLUE], share: { kind: 'runs' } })).toEqual(
      [RED, RED, RED, RED, BLUE, BLUE],
    );
  });

  it('fade from the first to the last by even steps of CIELAB', async () => {
    const colours = await colourOfEach('ABCDE', {
      colourBy: 'letter',
      colours: [RED, YELLOW],
      share: { kind: 'fade', steps: 5 },
    });
    expect([colours[0], colours[4]]).toEqual([RED, YELLOW]);
    expect(new Set(colours).size).toBe(5);
    expect(colours).toEqual([0, 0.25, 0.5, 0.75, 1].map((share) => mixInLab(RED, YELLOW, share)));
    const between = (i: number) => colourDifference(colours[i]!, colours[i + 1]!);
    expect(Math.max(...[0, 1, 2, 3].map(between)) / Math.min(...[0, 1, 2, 3].map(between))).toBeLessThan(3);
  });

  it('fade over three, each of which is met on the way', () => {
    const colours = coloursOf({ colourBy: 'letter', colours: [RED, YELLOW, BLUE], share: { kind: 'fade', steps: 5 } });
    expect([colours[0], colours[2], colours[4]]).toEqual([RED, YELLOW, BLUE]);
  });

  it('fade over bands: as many as there are steps', async () => {
    const { areas } = await painted('H', {
      colourBy: 'band',
      colours: [RED, YELLOW],
      share: { kind: 'fade', steps: 4 },
      bands: { heights: [], along: 'line' },
    });
    expect(areas.size).toBe(4);
  });
});
