import { beforeAll, describe, expect, it } from 'vitest';
import { resourcesInNode } from '../../../../platform/artwork-resources.js';
import { areaOf, boundsOf, countPieces, unite, type Rings } from '../../../geometry/index.js';
import { inWords, newLettering } from '../../../stations/artwork/index.js';
import { ArtworkReader, paintRegions, SHIPPED_FONTS, type Lettering } from '../index.js';
import { separate } from '../../layers/index.js';
import { openFont } from './font.js';
import { shippedFontCalled } from './shipped-fonts.js';
import { withFindings } from '../../../testing/with-findings.js';

const reader = new ArtworkReader(resourcesInNode);
const set = async (text: string, more: Partial<Lettering> = {}) => {
  const artwork = withFindings(await reader.lettering({ ...newLettering(text), ...more }, null));
  const { regions } = paintRegions(artwork, 1);
  return {
    artwork,
    regions,
    joined: separate(regions.map((r) => ({ layer: r.colour, rings: r.rings }))).layers,
    codes: artwork.findings.map((f) => f.code),
  };
};
const boxOf = (rings: Rings) => boundsOf(rings)!;
const heightOf = (rings: Rings) => boxOf(rings).maxY - boxOf(rings).minY;
const widthOf = (rings: Rings) => boxOf(rings).maxX - boxOf(rings).minX;

describe('shipped fonts', () => {
  it('are of every kind that signs are made in', () => {
    expect(SHIPPED_FONTS.length).toBeGreaterThanOrEqual(12);
    expect(new Set(SHIPPED_FONTS.map((font) => font.style))).toEqual(
      new Set(['slab', 'roman', 'grotesque', 'condensed', 'rounded', 'script', 'stencil']),
    );
  });

  it.each(SHIPPED_FONTS.filter((font) => font.style !== 'script').map((font) => font.id))(
    '%s has capitals of the height asked for',
    async (font) => {
      const { regions, codes } = await set('H', { font, capHeightMm: 37 });
      expect(heightOf(regions[0]!.rings)).toBeCloseTo(37, 1);
      expect(codes).toEqual([]);
    },
  );

  it.each(SHIPPED_FONTS.map((font) => font.id))('%s keeps the counters of letters that are joined', async (font) => {
    const { joined, regions } = await set('Boat 8', { font });
    const counters = regions.reduce((sum, region) => sum + countPieces(region.rings).holes, 0);
    expect(countPieces(joined[0]!.visible).holes).toBeGreaterThanOrEqual(counters);
    expect(counters).toBeGreaterThanOrEqual(SHIPPED_FONTS.find((f) => f.id === font)!.style === 'stencil' ? 0 : 4);
  });

  it('are found by the names that drawings give them', () =>
    expect(['Zilla Slab', 'zillaslab', 'ZILLA-SLAB', 'Unknown'].map((name) => shippedFontCalled(name)?.id)).toEqual([
      'zilla-slab',
      'zilla-slab',
      'zilla-slab',
      undefined,
    ]));
});

describe('a lettering', () => {
  it('fills its frame', async () => {
    const { artwork, regions } = await set('Quay\nside');
    const box = boxOf(regions.flatMap((r) => [...r.rings]));
    expect([box.minX, box.minY]).toEqual([expect.closeTo(0, 1), expect.closeTo(0, 1)]);
    expect([box.maxX, box.maxY]).toEqual([expect.closeTo(artwork.widthMm, 1), expect.closeTo(artwork.heightMm, 1)]);
  });

  it('joins letters of a script into one piece', async () => {
    const { regions, joined } = await set('heron', { font: 'pacifico' });
    expect(regions).toHaveLength(5);
    expect(countPieces(joined[0]!.visible).pieces).toBe(1);
  });

  it('sets letters further apart by a share of the cap height', async () => {
    const [plain, apart] = [await set('HHH'), await set('HHH', { trackingPct: 50 })];
    expect(apart.artwork.widthMm - plain.artwork.widthMm).toBeCloseTo(2 * 20, 3);
  });

  it('kerns when it is asked to', async () => {
    const [kerned, plain] = [
      await set('AVAT', { font: 'archivo' }),
      await set('AVAT', { font: 'archivo', kerning: false }),
    ];
    expect(kerned.artwork.widthMm).toBeLessThan(plain.artwork.widthMm - 1);
  });

  it('takes ligatures when it is asked to, but not between letters set apart', async () => {
    const letters = async (more: Partial<Lettering>) =>
      (await set('office', { font: 'playfair-display', ...more })).regions.length;
    const [joined, plain, apart] = [
      await letters({}),
      await letters({ ligatures: false }),
      await letters({ trackingPct: 20 }),
    ];
    expect(joined).toBeLessThan(plain);
    expect(apart).toBe(plain);
  });

  it.each([
    ['left', 0],
    ['centre', 0.5],
    ['right', 1],
  ] as const)('aligns its lines: %s', async (align, share) => {
    const { regions } = await set('HHHHHH\nH', { align, lineSpacing: 2 });
    const [long, short] = [boxOf(regions.slice(0, 6).flatMap((r) => [...r.rings])), boxOf(regions[6]!.rings)];
    expect(short.minX - long.minX).toBeCloseTo(share * (long.maxX - long.minX - (short.maxX - short.minX)), 1);
    expect(short.maxY - long.maxY).toBeCloseTo(80, 1);
  });

  it.each(['up', 'down'] as const)('runs along an arc, %s: every letter upright on the circle', async (bend) => {
    const arc = { radiusMm: 200, bend };
    const { regions, artwork } = await set('HHHHHHHHH', { arc, capHeightMm: 20 });
    const straight = await set('H', { capHeightMm: 20 });
    for (const region of regions) expect(areaOf(region.rings)).toBeCloseTo(areaOf(straight.regions[0]!.rings), 1);
    // The first and last stand as far round as the words are long, the middle one is level.
    const box = (i: number) => boxOf(regions[i]!.rings);
    expect(heightOf(regions[4]!.rings)).toBeCloseTo(20, 1);
    expect(Math.sign(box(0).minY - box(4).minY)).toBe(bend === 'up' ? 1 : -1);
    expect(box(0).minY).toBeCloseTo(box(8).minY, 3);
    expect(artwork.heightMm).toBeGreaterThan(24);
  });

  it('says when its circle is too small', async () =>
    expect((await set('A very long name for a small circle', { arc: { radiusMm: 60, bend: 'up' } })).codes).toEqual([
      'arc-too-tight',
    ]));

  it('takes colours in turn', async () => {
    const colours = ['#aa0000', '#0000aa'];
    // An accent that is typed as a character of its own is its letter's.
    expect(
      (await set('a\u0301b', { colourBy: 'letter', colours })).regions
        .map((r) => r.colour)
        .filter((hex, i, all) => all.indexOf(hex) === i),
    ).toEqual(['#aa0000', expect.any(String)]);
    const shown = async (colourBy: Lettering['colourBy']) =>
      (await set('ab cd\nef', { colourBy, colours })).regions.map((r) => (r.colour === '#aa0000' ? 'r' : 'b')).join('');
    expect([await shown('all'), await shown('line'), await shown('word'), await shown('letter')]).toEqual([
      'rrrrrr',
      'rrrrbb',
      'rrbbrr',
      'rbrbrb',
    ]);
  });

  it('has other forms of letters, and puts them where they are asked for', async () => {
    const lettering = { ...newLettering('Heron'), font: 'great-vibes' };
    const [h] = await reader.choices(lettering, null);
    expect(h).toMatchObject({ index: 0, letter: 'H' });
    expect(h!.forms.length).toBeGreaterThan(1);
    const [plain, other] = [
      await set('Heron', lettering),
      await set('Heron', { ...lettering, alternates: { 0: h!.forms[1]!.feature! } }),
    ];
    expect(areaOf(other.regions[0]!.rings)).not.toBeCloseTo(areaOf(plain.regions[0]!.rings), 2);
    for (let i = 1; i < 5; i += 1)
      expect(widthOf(other.regions[i]!.rings)).toBeCloseTo(widthOf(plain.regions[i]!.rings), 6);
  });

  it('takes letters of other languages from the font’s second file', async () =>
    expect((await set('Őrség Łódź')).codes).toEqual([]));

  it('names letters that a font has not, and sets the rest', async () => {
    const { artwork, regions } = await set('A界B');
    expect(artwork.findings[0]!.message).toContain('“界”');
    expect(regions).toHaveLength(2);
  });

  it('of blanks alone paints nothing', async () => expect((await set('   ')).regions).toEqual([]));
});

describe('a font of one’s own', () => {
  let bytes: Uint8Array;
  beforeAll(async () => {
    bytes = await resourcesInNode.fontFile('@expo-google-fonts/lobster/400Regular/Lobster_400Regular.ttf');
  });

  it('is read from its file', async () => {
    expect(await reader.fontName(bytes, 'mine.ttf')).toContain('Lobster');
    const artwork = await reader.lettering({ ...newLettering('Wick'), font: 'own:1' }, bytes);
    expect(unite(paintRegions(artwork, 1).regions.flatMap((r) => [...r.rings])).length).toBeGreaterThan(0);
  });

  it.each([
    ['no font', () => new TextEncoder().encode('I am no font at all')],
    ['empty', () => new Uint8Array()],
    ['cut off', () => bytes.slice(0, 3000)],
  ])('is refused with a sentence when it is %s', (_, make) =>
    expect(inWords(() => openFont([make()], 'bad.ttf'))).rejects.toThrow(/cannot be read as a font/),
  );
});

describe('accents that are typed after their letters', () => {
  it('are set like the letters that fonts have for both', async () => {
    const [composed, apart] = [await set('Café Åsa'), await set('Café Åsa'.normalize('NFD'))];
    expect(apart.codes).toEqual([]);
    expect(apart.regions.map(({ rings }) => areaOf(rings))).toEqual(composed.regions.map(({ rings }) => areaOf(rings)));
  });
});
