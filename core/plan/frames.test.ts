import { describe, expect, it } from 'vitest';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { areaOf, boundsOf, countPieces, grow, intersect, subtract, unite } from '../geometry/index.js';
import { emptyRecipe, parseRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { AT_ORIGIN, drawingPart, letteringPart, newLettering } from '../stations/artwork/index.js';
import { newOutline, type BuildDecisions } from '../stations/layers/index.js';
import { Planner } from './planner.js';
import type { Plan } from './plan.js';

const drawn = (body: string) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60">${body}</svg>`,
  );
const [RED, BLUE, YELLOW] = ['lock-gate', 'narrow-blue', 'wick-yellow'] as const;
const source = (id: string) => ({ id, fileName: `${id}.svg`, sha256: (id === 'a' ? '0' : '1').repeat(64) });
const parts = drawingPart(source('a'));
type Build = Partial<BuildDecisions['build']>;

function planOf(patch: RecipePatch, a: Uint8Array, b?: Uint8Array) {
  const recipe = parseRecipe(
    patchRecipe(patchRecipe(emptyRecipe('Frames'), { artworks: [parts], surface: { size: { mode: 'own' } } }), patch),
  );
  return new Planner(resourcesInNode).plan({
    recipe,
    shop: BENCH_SHOP,
    sources: new Map([['a', a], ...(b ? [['b', b] as const] : [])]),
  });
}
const built = (body: string, build: Build) => planOf({ build }, drawn(body));
const cut = (found: Plan, film: string) => found.build!.layers.find((layer) => layer.film.id === film)!.cut;
const codes = (found: Plan) => found.findings.map((finding) => finding.code);
const finding = (found: Plan, code: string) => found.findings.find((one) => one.code === code)!;
/** A plan with a finding's remedy taken. */
const taken = (found: Plan, code: string, at: number, body: string, build: Build) => {
  const remedy = finding(found, code).remedies![at]!;
  return planOf(
    patchRecipe(patchRecipe(parseRecipe(patchRecipe(emptyRecipe('x'), {})), { build }), remedy.patch as RecipePatch)
      .build
      ? { build: { ...build, ...(remedy.patch as { build: Build }).build } }
      : {},
    drawn(body),
  );
};

const FOUR =
  '<circle cx="15" cy="15" r="10" fill="#b3262b"/><circle cx="60" cy="15" r="10" fill="#b3262b"/><circle cx="105" cy="15" r="10" fill="#1d4e89"/><circle cx="105" cy="45" r="4" fill="#1d4e89"/>';
const outline = { ...newOutline('o', 'chalk') };

describe('outlines of their own', () => {
  it('go round each piece, apart from each other', async () => {
    const found = await built(FOUR, { school: 'overlay', outlines: [{ ...outline, each: 'piece', widthMm: 3 }] });
    expect(countPieces(cut(found, 'chalk')).pieces).toBe(4);
    expect(areaOf(cut(found, 'chalk'))).toBeCloseTo(Math.PI * (3 * 13 ** 2 + 7 ** 2), -1);
    expect(codes(found)).not.toContain('outlines-meet');
  });

  it('are as wide as the film must be to be weeded when the app decides, and no wider than keeps them apart', async () => {
    const found = await built(FOUR, { school: 'overlay', outlines: [{ ...outline, each: 'piece' }] });
    const width = Number(found.rulings.find((r) => r.id === 'build.outline.o')!.value);
    expect(width).toBe(found.build!.layers.find((layer) => layer.film.id === 'chalk')!.film.thinnestMm);
    expect(found.rulings.find((r) => r.id === 'build.outline.o')!.sentence).toContain('4 outlines');
  });

  it('that meet are told, and both remedies mend it', async () => {
    const build: Build = { school: 'overlay', outlines: [{ ...outline, each: 'piece', widthMm: 12 }] };
    const found = await built(FOUR, build);
    expect(codes(found)).toContain('outlines-meet');
    expect(countPieces(cut(found, 'chalk')).pieces).toBeLessThan(4);
    const narrower = await taken(found, 'outlines-meet', 0, FOUR, build);
    expect([codes(narrower).includes('outlines-meet'), countPieces(cut(narrower, 'chalk')).pieces]).toEqual([false, 4]);
    const one = await taken(found, 'outlines-meet', 1, FOUR, build);
    expect([codes(one).includes('outlines-meet'), countPieces(cut(one, 'chalk')).pieces]).toEqual([false, 1]);
  });

  it('go round each part of the design, each in one piece', async () => {
    const words = {
      ...letteringPart('w', { ...newLettering('HI'), capHeightMm: 20, trackingPct: 30 }),
      place: { ...AT_ORIGIN, xMm: 0, yMm: 100 },
    };
    const found = await planOf(
      { artworks: [parts, words], build: { school: 'overlay', outlines: [{ ...outline, each: 'part' }] } },
      drawn('<circle cx="30" cy="30" r="10" fill="#b3262b"/>'),
    );
    expect(countPieces(cut(found, 'chalk')).pieces).toBe(2);
    expect(
      countPieces(unite(found.regions!.regions.filter((r) => r.part === 'w').flatMap((r) => [...r.rings]))).pieces,
    ).toBeGreaterThan(1);
  });

  it('go round chosen parts, and not round others of the same film', async () => {
    const second = { ...drawingPart(source('b')), place: { ...AT_ORIGIN, xMm: 60, yMm: 120 } };
    const found = await planOf(
      {
        artworks: [parts, second],
        build: { school: 'overlay', outlines: [{ ...outline, around: { by: 'parts', ids: ['b'] }, widthMm: 3 }] },
      },
      drawn('<circle cx="30" cy="30" r="10" fill="#b3262b"/>'),
      drawn('<circle cx="30" cy="30" r="8" fill="#b3262b"/>'),
    );
    expect(areaOf(cut(found, 'chalk'))).toBeCloseTo(Math.PI * 11 ** 2, 0);
  });

  it('round a part that is gone say so, and the remedy takes them away', async () => {
    const build: Build = { outlines: [{ ...outline, around: { by: 'parts', ids: ['gone'] } }] };
    const found = await built(FOUR, build);
    expect(finding(found, 'outline-idle').message).toContain('parts');
    expect(codes(await taken(found, 'outline-idle', 0, FOUR, build))).not.toContain('outline-idle');
  });

  it('too narrow to join what they go round are told, with the width that does', async () => {
    const build: Build = { school: 'overlay', outlines: [{ ...outline, widthMm: 5 }] };
    const found = await built(FOUR, build);
    expect(finding(found, 'outline-pieces').message).toContain('4 pieces');
    expect(countPieces(cut(await taken(found, 'outline-pieces', 0, FOUR, build), 'chalk')).pieces).toBe(1);
  });
});

describe('the cut line of a print', () => {
  const WORD = 'M5 10h4v15h12v-15h4v40h-4v-15h-12v15h-4zM28 10h4v40h-4zM35 10h20v4h-16v14h12v4h-12v14h16v4h-20z';
  const printed = (byMm: number | null, side: 'inside' | 'outside' | 'bleed'): Build => ({
    contour: { filmId: 'chalk', side, byMm },
  });
  it.each([
    ['20', 0.3],
    ['120', 0.5],
    ['400', 1],
    ['800', 2],
  ] as const)('lies inside by the size of the work: %s mm', async (size, by) => {
    const found = await planOf(
      { build: printed(null, 'inside') },
      new TextEncoder().encode(
        `<svg xmlns="http://www.w3.org/2000/svg" width="${size}mm" height="${size}mm" viewBox="0 0 10 10"><rect width="10" height="10" fill="#b3262b"/></svg>`,
      ),
    );
    expect(found.rulings.find((r) => r.id === 'build.contour')!.value).toBe(by);
    expect(areaOf(cut(found, 'chalk'))).toBeCloseTo((Number(size) - 2 * by) ** 2, 0);
  });

  it('outside joins what lies near into one piece that can be weeded', async () => {
    const found = await built(`<path d="${WORD}" fill="#b3262b"/>`, printed(null, 'outside'));
    expect(countPieces(cut(found, 'chalk')).pieces).toBe(1);
    expect(codes(found).filter((code) => code.startsWith('contour'))).toEqual([]);
  });

  it('too near outside falls into pieces, which is told, and the remedy mends it', async () => {
    const build = printed(0.8, 'outside');
    const found = await built(`<path d="${WORD}" fill="#b3262b"/>`, build);
    expect(countPieces(cut(found, 'chalk')).pieces).toBe(3);
    expect(finding(found, 'contour-pieces').message).toContain('3 separate pieces');
    expect(
      countPieces(cut(await taken(found, 'contour-pieces', 0, `<path d="${WORD}" fill="#b3262b"/>`, build), 'chalk'))
        .pieces,
    ).toBe(1);
  });

  it('leaves prints that lie far apart apart, and says from where on they are one', async () => {
    const found = await built(
      '<circle cx="10" cy="10" r="8" fill="#b3262b"/><circle cx="110" cy="50" r="8" fill="#b3262b"/>',
      printed(null, 'outside'),
    );
    expect(countPieces(cut(found, 'chalk')).pieces).toBe(2);
    expect(found.rulings.find((r) => r.id === 'build.contour')!.because.join()).toContain('far apart');
  });

  it('inside that cuts a print in two, or leaves nothing, is told, and a bleed mends it', async () => {
    const neck = '<path d="M10 10h30v18h20v-18h30v40h-30v-18h-20v18h-30z" fill="#b3262b"/>';
    const build = printed(3, 'inside');
    const found = await built(neck, build);
    expect(finding(found, 'contour-pieces').message).toContain('falls apart');
    const bleeds = await taken(found, 'contour-pieces', 0, neck, build);
    expect([codes(bleeds).some((code) => code.startsWith('contour')), areaOf(cut(bleeds, 'chalk'))]).toEqual([
      false,
      expect.closeTo(2480, 0),
    ]);
    // Of nothing there is nothing to cut.
    const nothing = await built('<rect width="100" height="5" fill="#b3262b"/>', printed(3, 'inside'));
    expect(finding(nothing, 'contour-nothing').severity).toBe('blocker');
  });
});

describe('a base', () => {
  const APART =
    '<rect x="5" y="5" width="30" height="30" fill="#1d4e89"/><circle cx="20" cy="20" r="8" fill="#f2b632"/><rect x="42" y="5" width="30" height="30" fill="#b3262b"/>';
  it('is one piece under everything, lowest, whatever shows of it', async () => {
    const found = await built(APART, { base: { filmId: BLUE } });
    const [lowest] = found.build!.layers;
    expect([lowest!.film.id, lowest!.pieces, lowest!.holes]).toEqual([BLUE, 1, 0]);
    for (const { cut: rings, film } of found.build!.layers)
      if (film.id !== BLUE) expect(areaOf(subtract(rings, lowest!.cut))).toBeLessThan(0.01);
    expect(found.build!.pairs.every((pair) => pair.lower.id === BLUE && pair.school === 'overlay')).toBe(true);
    // Its edge stays where nothing is near it.
    expect(boundsOf(lowest!.cut)).toMatchObject({ minX: expect.closeTo(0, 2), maxX: expect.closeTo(67, 2) });
    expect(found.rulings.find((r) => r.id === 'build.base')!.because.join()).toContain('bridged');
  });

  it('shows nothing more where all parts touch', async () => {
    const found = await built(
      '<rect width="60" height="60" fill="#16181a"/><rect x="60" width="40" height="60" fill="#b3262b"/>',
      { base: { filmId: 'tar' } },
    );
    expect(areaOf(found.build!.layers[0]!.visible)).toBeCloseTo(3600, 0);
    expect(found.rulings.find((r) => r.id === 'build.base')!.because.join()).toContain('touch');
  });

  it('is cut whole though nothing of it shows, and though an outline is of the same film', async () => {
    const WHOLE =
      '<rect width="60" height="60" fill="#1d4e89"/><rect x="60" width="40" height="60" fill="#b3262b"/><circle cx="30" cy="30" r="9" fill="#f2b632"/>';
    const hidden = await built(WHOLE, { base: { filmId: 'tar' } });
    expect(hidden.build!.layers[0]).toMatchObject({
      key: 'tar',
      order: 1,
      pieces: 1,
      holes: 0,
      areaMm2: expect.closeTo(6000, 0),
      visible: [],
    });
    expect(hidden.build!.layers.map(({ order }) => order)).toEqual([1, 2, 3, 4]);
    expect(hidden.sheets!.sheets.flatMap(({ films }) => films.map(({ id }) => id))).toContain('tar');
    const framed = await built(WHOLE, {
      base: { filmId: 'tar' },
      outlines: [{ ...outline, filmId: 'tar', widthMm: 2 }],
    });
    expect(framed.build!.layers[0]).toMatchObject({
      key: 'tar',
      pieces: 1,
      holes: 0,
      areaMm2: expect.closeTo(104 * 64 - (4 - Math.PI) * 4, 0),
    });
  });

  it('also of a film that nothing is drawn in', async () =>
    expect((await built(APART, { base: { filmId: 'tar' } })).build!.layers[0]).toMatchObject({
      key: 'tar',
      pieces: 1,
    }));

  it('lies over an outline round all, and cannot be a film that takes nothing', async () => {
    expect(
      (await built(APART, { base: { filmId: BLUE }, outlines: [{ ...outline, widthMm: 4 }] }))
        .build!.layers.map((layer) => layer.key)
        .slice(0, 2),
    ).toEqual(['chalk', BLUE]);
    const found = await built(APART, { base: { filmId: 'brass' } });
    expect(finding(found, 'base-idle').message).toContain('nothing sticks');
    expect(codes(await taken(found, 'base-idle', 0, APART, { base: { filmId: 'brass' } }))).not.toContain('base-idle');
  });
});

describe('one film decided against all others', () => {
  const THREE =
    '<rect width="70" height="60" fill="#b3262b"/><rect x="70" width="50" height="60" fill="#1d4e89"/><circle cx="30" cy="30" r="12" fill="#f2b632"/>';
  const lap = (found: Plan, a: string, b: string) => areaOf(intersect(cut(found, a), cut(found, b)));
  it('goes for each of its pairs, but not for one that has its own decision', async () => {
    const all = await built(THREE, { filmPairs: { [RED]: { school: 'inlay', trapMm: null } } });
    expect([lap(all, RED, YELLOW), lap(all, RED, BLUE)].every((mm2) => mm2 < 0.01)).toBe(true);
    expect(all.build!.pairs.map((pair) => pair.decidedFor)).toEqual(['lower', 'lower']);
    const but = await built(THREE, {
      filmPairs: { [RED]: { school: 'inlay', trapMm: null } },
      pairs: { [`${RED} > ${YELLOW}`]: { school: 'trapped', trapMm: 1 } },
    });
    expect(lap(but, RED, YELLOW)).toBeGreaterThan(60);
    expect(lap(but, RED, BLUE)).toBeLessThan(0.01);
    const upper = await built(THREE, { filmPairs: { [YELLOW]: { school: 'overlay', trapMm: null } } });
    expect(lap(upper, RED, YELLOW)).toBeCloseTo(Math.PI * 144, -1);
    expect(upper.build!.pairs.find((pair) => pair.upper.id === YELLOW)!.because[0]).toContain('all that it meets');
  });

  it('that meets none says so, and its remedy takes it back', async () => {
    const build: Build = { filmPairs: { tar: { school: 'inlay', trapMm: null } } };
    const found = await built(THREE, build);
    expect(codes(found)).toContain('film-pairs-idle');
    expect(codes(await taken(found, 'film-pairs-idle', 0, THREE, build))).not.toContain('film-pairs-idle');
  });
});

describe('words that are cut out of a base', () => {
  /** Letters of bars on a ground that has nothing under them, as a traced picture has: two words, four letters and three. */
  const letters = [10, 18, 26, 34, 60, 68, 76].map((x) => `M${x} 20h5v20h-5z`).join('');
  const TRACED = `<path fill-rule="evenodd" d="M0 0h120v60h-120z${letters}" fill="#1d4e89"/><path d="${letters}" fill="#b3262b"/>`;
  it('become one piece each, and their base is whole but for them and their clear space', async () => {
    const found = await built(TRACED, {
      knockOuts: [
        { shapeFilmId: RED, baseFilmId: BLUE, clearanceMm: 1, fillBelowMm: 0, dropBelowMm2: null, joinWords: true },
      ],
    });
    const red = cut(found, RED);
    expect(countPieces(red).pieces).toBe(2);
    expect(areaOf(intersect(cut(found, BLUE), grow(red, 0.98)))).toBeLessThan(0.01);
    expect(
      areaOf(subtract(subtract([new Float64Array([0, 0, 120, 0, 120, 60, 0, 60])], grow(red, 1.02)), cut(found, BLUE))),
    ).toBeLessThan(0.01);
    const ruling = found.rulings.find((r) => r.id === `build.knock-out.${RED}.${BLUE}`)!;
    expect(ruling.because[0]).toContain('2 words');
  });
});
