import { describe, expect, it } from 'vitest';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { paintRegions, readArtwork } from '../engines/artwork/index.js';
import { areaOf, countPieces, intersect, subtract, unite } from '../geometry/index.js';
import { drawingPart } from '../stations/artwork/index.js';
import { emptyRecipe, parseRecipe, patchRecipe, type RecipePatch } from '../recipe/index.js';
import { exportBuild } from './export-build.js';
import { Planner } from './planner.js';
import { schoolsSideBySide, tryGaps } from '../stations/layers/index.js';
import type { Plan } from './plan.js';

const svg = (body: string) =>
  new TextEncoder().encode(
    `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="60mm" viewBox="0 0 120 60">${body}</svg>`,
  );
/** Red under a yellow disc, blue beside it. */
const THREE = svg(
  '<rect width="70" height="60" fill="#b3262b"/><rect x="70" width="50" height="60" fill="#1d4e89"/><circle cx="30" cy="30" r="12" fill="#f2b632"/>',
);
const [RED, BLUE, YELLOW] = ['lock-gate', 'narrow-blue', 'wick-yellow'];
const recipeOf = (patch: RecipePatch = {}) =>
  parseRecipe(
    patchRecipe(
      patchRecipe(emptyRecipe('Build'), {
        artworks: [drawingPart({ id: 'a', fileName: 'a.svg', sha256: '0'.repeat(64) })],
        surface: { size: { mode: 'own' } },
      }),
      patch,
    ),
  );
const plan = (bytes: Uint8Array, patch: RecipePatch = {}, shop = BENCH_SHOP) =>
  new Planner(resourcesInNode).plan({ recipe: recipeOf(patch), shop, sources: new Map([['a', bytes]]) });
const layer = (found: Plan, film: string) => found.build!.layers.find((l) => l.film.id === film)!;
const pairs = (found: Plan) => Object.fromEntries(found.build!.pairs.map((pair) => [pair.key, pair.school]));

describe('pairs of layers', () => {
  it('are those that meet, each by the job’s school', async () =>
    expect(pairs(await plan(THREE))).toEqual({
      'lock-gate > narrow-blue': 'trapped',
      'lock-gate > wick-yellow': 'trapped',
    }));

  it('can each be built otherwise, and only that pair changes', async () => {
    const [before, after] = [
      await plan(THREE),
      await plan(THREE, { build: { pairs: { 'lock-gate > wick-yellow': { school: 'inlay', trapMm: null } } } }),
    ];
    const lap = (found: Plan, upper: string) => areaOf(intersect(layer(found, RED).cut, layer(found, upper).cut));
    expect(lap(before, YELLOW)).toBeGreaterThan(10);
    expect(lap(after, YELLOW)).toBeLessThan(0.01);
    expect(lap(after, BLUE)).toBeCloseTo(lap(before, BLUE), 1);
    const whole = await plan(THREE, {
      build: { pairs: { 'lock-gate > wick-yellow': { school: 'overlay', trapMm: null } } },
    });
    expect(lap(whole, YELLOW)).toBeCloseTo(Math.PI * 144, -1);
    expect(lap(whole, BLUE)).toBeCloseTo(lap(before, BLUE), 1);
  });

  it('can have a trap of their own', async () => {
    const own = await plan(THREE, { build: { pairs: { 'lock-gate > wick-yellow': { school: null, trapMm: 2 } } } });
    expect(areaOf(intersect(layer(own, RED).cut, layer(own, YELLOW).cut))).toBeCloseTo(Math.PI * (144 - 100), 0);
    expect(own.build!.pairs.find((pair) => pair.upper.id === YELLOW)).toMatchObject({ decidedFor: 'pair', trapMm: 2 });
  });

  it('of dye-transfer sheets are butted, and a textured film takes nothing', async () => {
    const dyed = {
      ...BENCH_SHOP,
      films: BENCH_SHOP.films.map((film) =>
        film.id === RED ? { ...film, family: 'dyeTransfer' as const, takesOnTop: true } : film,
      ),
    };
    const found = await plan(
      THREE,
      { films: { byColour: { '#b3262b': RED!, '#1d4e89': BLUE!, '#f2b632': YELLOW! } } },
      dyed,
    );
    expect(new Set(Object.values(pairs(found)))).toEqual(new Set(['inlay']));
    expect(found.build!.pairs[0]!.because.join()).toContain('Dyes mix');
  });

  it('with light film over dark get the least trap, and one warning for all that says what will be seen', async () => {
    const wide = svg(
      '<rect width="120" height="60" fill="#b3262b"/><rect y="20" width="120" height="20" fill="#1d4e89"/><circle cx="60" cy="10" r="4" fill="#f2b632"/>',
    );
    const found = await plan(wide);
    const [light, alike] = [YELLOW, BLUE].map((upper) => found.build!.pairs.find((pair) => pair.upper.id === upper)!);
    expect([light!.why, light!.trapMm, alike!.why, alike!.trapMm]).toEqual(['shadow', 0.4, 'as-job', 0.45]);
    const ghosts = found.findings.filter((finding) => finding.code === 'ghost');
    expect(ghosts.map((finding) => finding.message)).toEqual([
      'A darker film under a lighter one can be seen as a faint dark line: Lock-gate red runs 0.4 mm under Wick yellow, which hides 92 %.',
    ]);
    expect(pairs(await plan(wide, ghosts[0]!.remedies!.at(-1)!.patch))['lock-gate > wick-yellow']).toBe('inlay');
    const hiding = {
      ...BENCH_SHOP,
      films: BENCH_SHOP.films.map((film) => (film.id === YELLOW ? { ...film, opacityPct: 100 } : film)),
    };
    expect((await plan(wide, {}, hiding)).findings.map((finding) => finding.code)).not.toContain('ghost');
  });

  it('keep a trap that was set by hand, light over dark as well', async () => {
    const found = await plan(THREE, { build: { trapMm: 0.8 } });
    expect(found.build!.pairs.map((pair) => pair.trapMm)).toEqual([0.8, 0.8]);
  });

  it('are fed with where the work lives, how it is laid and whose hand it is', async () => {
    const trap = async (patch: RecipePatch) => (await plan(THREE, patch)).build!.trapMm;
    expect(await trap({})).toBe(0.4);
    // Cast and monomeric film draw back 0.07 and 0.30 in sun, and 0.04 and 0.12 indoors.
    expect(await trap({ build: { lives: 'washed' } })).toBe(0.6);
    expect(await trap({ build: { placementErrorMm: 0.5 } })).toBe(0.6);
    const boat: RecipePatch = { surface: { size: { mode: 'width', mm: 1400 } } };
    expect(await trap({ ...boat, assembly: { way: 'wet' } })).toBeGreaterThan(await trap(boat));
    expect(await trap({ ...boat, assembly: { way: 'wet' } })).toBe(await trap({ ...boat, assembly: { way: 'tape' } }));
  });

  it('with a translucent film over a darker one get the least trap, and a warning', async () => {
    const found = await plan(THREE, { films: { byColour: { '#f2b632': 'mist' } } });
    const ghost = found.build!.pairs.find((pair) => pair.upper.id === 'mist')!;
    const plain = found.build!.pairs.find((pair) => pair.upper.id === BLUE)!;
    expect(ghost.trapMm).toBeLessThan(plain.trapMm);
    expect(found.findings.map((f) => f.code)).toContain('ghost');
  });

  it('need less by chance than at the worst', async () => {
    const [worst, chance] = [await plan(THREE, { build: { trapForm: 'worst' } }), await plan(THREE)];
    expect(chance.build!.trapMm).toBeLessThan(worst.build!.trapMm);
  });

  it('look the same in every mixture of schools', async () => {
    for (const school of ['overlay', 'inlay', 'trapped'] as const) {
      const { build } = await plan(THREE, {
        build: {
          school,
          pairs: {
            'lock-gate > narrow-blue': { school: 'inlay', trapMm: null },
            'lock-gate > wick-yellow': { school: 'overlay', trapMm: null },
          },
        },
      });
      const top = unite(build!.layers.slice(1).flatMap((l) => [...l.cut]));
      expect(areaOf(subtract(build!.layers[0]!.cut, top))).toBeCloseTo(4200 - Math.PI * 144, -1);
    }
  });
});

describe('where the work lives', () => {
  const line = svg(
    '<rect x="10" y="10" width="40" height="30" fill="#b3262b"/><rect x="49" y="20" width="60" height="1.5" fill="#b3262b"/>',
  );
  const codes = async (patch: RecipePatch) => (await plan(line, patch)).findings.map((finding) => finding.code);

  it('asks for strokes that last there, and the remedy makes them so', async () => {
    expect(await codes({})).not.toContain('not-durable');
    const outdoors: RecipePatch = { build: { lives: 'outdoors' } };
    const finding = (await plan(line, outdoors)).findings.find((one) => one.code === 'not-durable')!;
    expect(finding.message).toContain('under 2 mm');
    expect(await codes({ ...outdoors, ...finding.remedies![0]!.patch })).not.toContain('not-durable');
  });
});

describe('the marks', () => {
  it('stand where the maker wants them, and further apart they need less trap', async () => {
    const [near, far] = [
      await plan(THREE, { preparation: { markPlaces: 'outside' } }),
      await plan(THREE, { preparation: { markDistanceMm: 900 } }),
    ];
    expect(far.prepare!.panels[0]!.marks!.distanceMm).toBeCloseTo(900, 6);
    expect(far.build!.trapMm).toBeLessThan(near.build!.trapMm);
    expect(far.rulings.find((ruling) => ruling.id === 'prepare.marks')).toMatchObject({
      overridden: true,
      proposed: near.prepare!.panels[0]!.marks!.distanceMm,
    });
  });
});

describe('an outline', () => {
  const wide = (widthMm: number | null, size: RecipePatch = { surface: { kind: 'flat', size: { mode: 'fit' } } }) =>
    plan(svg('<circle cx="30" cy="30" r="25" fill="#1d4e89"/><circle cx="90" cy="30" r="25" fill="#1d4e89"/>'), {
      ...size,
      build: {
        outlines: [
          { id: 'o', filmId: 'chalk', around: null, each: 'all' as const, widthMm, join: 'round', fillBelowMm: 0 },
        ],
      },
    });
  const right = (found: Plan) =>
    found.surface!.design.xMm +
    Math.max(
      ...found.build!.layers.flatMap((l) => l.cut.map((ring) => Math.max(...ring.filter((_, i) => i % 2 === 0)))),
    );

  it('is reckoned in when the design is fitted to its panel', async () => {
    const found = await wide(12);
    expect(right(found)).toBeLessThanOrEqual(290.005);
    expect(found.findings.map((f) => f.code)).not.toContain('outline-into-margins');
  });

  it('whose width is ruled only later says when it reaches into the margins, and the size that helps', async () => {
    const over = await wide(null);
    const finding = over.findings.find((f) => f.code === 'outline-into-margins')!;
    const helped = await wide(null, patchRecipe(recipeOf({ surface: { kind: 'flat' } }), finding.remedies![0]!.patch));
    expect(right(helped)).toBeLessThanOrEqual(290.1);
    expect(helped.findings.map((f) => f.code)).not.toContain('outline-into-margins');
  });
});

describe('the order', () => {
  const order = async (body: string, patch: RecipePatch = {}) =>
    (await plan(svg(body), patch)).build!.layers.map((l) => l.film.id);
  const halves = (left: string, right: string) =>
    `<rect width="60" height="60" fill="${left}"/><rect x="60" width="60" height="60" fill="${right}"/>`;

  it('puts the lighter of two below, so that the darker hides the lap, and a translucent film below whatever it abuts', async () => {
    expect(await order(halves('#f2b632', '#1d4e89'))).toEqual([YELLOW, BLUE]);
    expect(await order(halves('#1d4e89', '#f2b632'))).toEqual([YELLOW, BLUE]);
    expect(
      await order('<rect width="15" height="60" fill="#f2b632"/><rect x="15" width="105" height="60" fill="#1d4e89"/>'),
    ).toEqual([YELLOW, BLUE]);
    expect(await order(halves('#1d4e89', '#f2b632'), { films: { byColour: { '#f2b632': 'mist' } } })).toEqual([
      'mist',
      BLUE,
    ]);
  });

  it('explains layers that lie over each other by turns, and gives the order it took', async () => {
    const found = await plan(
      svg(
        '<rect width="40" height="60" fill="#b3262b"/><rect x="20" width="40" height="60" fill="#1d4e89"/><rect x="50" width="40" height="60" fill="#b3262b"/>',
      ),
    );
    expect(found.rulings.find((ruling) => ruling.id === 'build.order')!.because.join()).toMatch(
      /(Lock-gate red and Narrow blue|Narrow blue and Lock-gate red) lie over each other in turns/,
    );
  });

  it('puts the larger below where films about as light only abut', async () => {
    const small = svg(
      '<rect width="30" height="60" fill="#1d4e89"/><rect x="30" width="90" height="60" fill="#b3262b"/>',
    );
    const found = await plan(small);
    expect(found.build!.layers.map((l) => l.film.id)).toEqual([RED, BLUE]);
    expect(found.rulings.find((r) => r.id === 'build.order')!.because.join()).toContain('more area');
  });
  it('is the artwork’s where shapes overlap, whatever their size', async () =>
    expect(
      (
        await plan(svg('<circle cx="9" cy="9" r="8" fill="#b3262b"/><path d="M0 9h120v51H0z" fill="#1d4e89"/>'))
      ).build!.layers.map((l) => l.film.id),
    ).toEqual([RED, BLUE]));
  it('is the maker’s when given, but for what can carry nothing', async () => {
    const found = await plan(THREE, {
      films: { byColour: { '#b3262b': 'brass' } },
      build: { order: ['brass', YELLOW!, BLUE!] },
    });
    expect(found.build!.layers.at(-1)!.film.id).toBe('brass');
    expect(found.rulings.find((r) => r.id === 'build.top')!.because.join()).toContain('keep their order');
  });
});

describe('outlines, knock-outs and a block-out', () => {
  const outline = {
    id: 'o',
    filmId: 'chalk',
    around: null,
    each: 'all' as const,
    widthMm: null,
    join: 'round' as const,
    fillBelowMm: 0,
  };
  const TWO = svg('<circle cx="20" cy="30" r="10" fill="#b3262b"/><circle cx="60" cy="30" r="10" fill="#b3262b"/>');

  it('an outline lies behind everything, as wide as makes one piece that can be weeded', async () => {
    const found = await plan(TWO, { build: { outlines: [outline], school: 'overlay' } });
    const [chalk, red] = found.build!.layers;
    expect([chalk!.film.id, chalk!.pieces, red!.pieces]).toEqual(['chalk', 1, 2]);
    expect(found.rulings.find((r) => r.id === 'build.outline.o')!.value).toBeGreaterThanOrEqual(10);
  });

  it('several go round each other, each in its own film', async () => {
    const found = await plan(TWO, {
      build: {
        outlines: [
          { ...outline, widthMm: 3 },
          { ...outline, id: 'p', filmId: 'tar', widthMm: 4 },
        ],
        school: 'overlay',
      },
    });
    expect(found.build!.layers.map((l) => l.film.id)).toEqual(['tar', 'chalk', RED]);
    expect(areaOf(layer(found, 'tar').cut)).toBeCloseTo(2 * Math.PI * 289, -1);
  });

  it('an outline thinner than its film can be weeded at is warned about', async () =>
    expect(
      (await plan(TWO, { build: { outlines: [{ ...outline, widthMm: 0.3 }] } })).findings.map((f) => f.code),
    ).toContain('outline-thin'));

  it('a knock-out leaves clear space round its shapes', async () => {
    const found = await plan(THREE, {
      build: {
        knockOuts: [
          {
            shapeFilmId: YELLOW!,
            baseFilmId: RED!,
            clearanceMm: 2,
            fillBelowMm: 0,
            dropBelowMm2: null,
            joinWords: false,
          },
        ],
      },
    });
    expect(areaOf(layer(found, RED).cut)).toBeLessThan(4200 - Math.PI * 195 + 60);
    expect(areaOf(intersect(layer(found, RED).cut, layer(found, YELLOW).cut))).toBe(0);
    expect(areaOf(layer(found, YELLOW).cut)).toBeCloseTo(Math.PI * 144, -1);
  });

  it('an outline goes round chosen films, behind them and over what lies below', async () => {
    const ON_GROUND = svg(
      '<rect width="80" height="60" fill="#1d4e89"/><circle cx="25" cy="30" r="10" fill="#b3262b"/><circle cx="60" cy="30" r="8" fill="#f2b632"/>',
    );
    const found = await plan(ON_GROUND, {
      build: { school: 'inlay', outlines: [{ ...outline, around: { by: 'films', ids: [RED!] }, widthMm: 3 }] },
    });
    expect(found.build!.layers.map((one) => one.film.id).indexOf('chalk')).toBeGreaterThan(
      found.build!.layers.map((one) => one.film.id).indexOf(BLUE!),
    );
    expect(areaOf(layer(found, 'chalk').cut)).toBeCloseTo(Math.PI * (13 ** 2 - 10 ** 2), 0);
    expect(Math.abs(areaOf(layer(found, BLUE!).cut) - (4800 - Math.PI * 13 ** 2 - Math.PI * 64))).toBeLessThan(1);
    expect(areaOf(layer(found, YELLOW!).cut)).toBeCloseTo(Math.PI * 64, 0);
  });

  it('an outline round all that stands after one round some goes round that too', async () => {
    const found = await plan(TWO, {
      build: {
        school: 'inlay',
        outlines: [
          { ...outline, around: { by: 'films', ids: [RED!] }, widthMm: 3 },
          { ...outline, id: 'p', filmId: 'tar', widthMm: 2 },
        ],
      },
    });
    expect(areaOf(layer(found, 'tar').cut)).toBeCloseTo(2 * Math.PI * (15 ** 2 - 13 ** 2), 0);
  });

  it('a block-out backs a film all over, a little within its edge', async () => {
    const found = await plan(THREE, {
      build: { school: 'inlay', blockOut: { filmId: 'chalk', underFilmId: YELLOW!, insetMm: 0.5 } },
    });
    const [lowest] = found.build!.layers;
    expect([lowest!.film.id, lowest!.order]).toEqual(['chalk', 1]);
    expect(areaOf(lowest!.cut)).toBeCloseTo(Math.PI * 11.5 ** 2, 0);
    expect(found.sheets!.sheets.flatMap(({ films }) => films.map(({ id }) => id))).toContain('chalk');
  });
});

describe('a decision that does nothing says why, and what it offers ends it', () => {
  const APART = svg(
    '<rect width="20" height="20" fill="#b3262b"/><rect x="60" width="20" height="20" fill="#1d4e89"/>',
  );
  const letters = svg(
    '<path d="M0 0h30v40H0zM8 8v24h14V8z" fill-rule="evenodd" fill="#1d4e89"/><rect x="33" width="20" height="40" fill="#1d4e89"/>',
  );
  const outline = {
    id: 'o',
    filmId: 'chalk',
    around: null,
    each: 'all' as const,
    widthMm: 4,
    join: 'round' as const,
    fillBelowMm: 0,
  };
  it.each<[string, Uint8Array, RecipePatch, string]>([
    [
      'a knock-out of a film that is gone',
      APART,
      {
        build: {
          knockOuts: [
            {
              shapeFilmId: 'ember',
              baseFilmId: RED!,
              clearanceMm: 1,
              fillBelowMm: 0,
              dropBelowMm2: null,
              joinWords: false,
            },
          ],
        },
      },
      'knock-out-idle',
    ],
    [
      'a knock-out of a film from itself',
      APART,
      {
        build: {
          knockOuts: [
            {
              shapeFilmId: RED!,
              baseFilmId: RED!,
              clearanceMm: 1,
              fillBelowMm: 0,
              dropBelowMm2: null,
              joinWords: false,
            },
          ],
        },
      },
      'knock-out-idle',
    ],
    [
      'a knock-out of what lies apart',
      APART,
      {
        build: {
          knockOuts: [
            {
              shapeFilmId: BLUE!,
              baseFilmId: RED!,
              clearanceMm: 1,
              fillBelowMm: 0,
              dropBelowMm2: null,
              joinWords: false,
            },
          ],
        },
      },
      'knock-out-idle',
    ],
    [
      'a backing under itself',
      APART,
      { build: { blockOut: { filmId: RED!, underFilmId: RED!, insetMm: 0.3 } } },
      'block-out-idle',
    ],
    [
      'a backing of a film that is gone',
      APART,
      { build: { blockOut: { filmId: 'chalk', underFilmId: 'ember', insetMm: 0.3 } } },
      'block-out-idle',
    ],
    [
      'an outline round films that are gone',
      APART,
      { build: { outlines: [{ ...outline, around: { by: 'films', ids: ['ember'] } }] } },
      'outline-idle',
    ],
    [
      'an outline in a film that is gone',
      APART,
      { build: { outlines: [{ ...outline, filmId: 'no-such-film' }] } },
      'outline-idle',
    ],
    [
      'an outline that lies flush and falls apart',
      letters,
      { build: { school: 'inlay', outlines: [outline] } },
      'outline-islands',
    ],
  ])('%s', async (_, bytes, patch, code) => {
    const found = await plan(bytes, patch);
    const idle = found.findings.filter((finding) => /-idle$|-islands$/.test(finding.code));
    expect(idle.map((finding) => finding.code)).toEqual([code]);
    const after = await plan(bytes, patchRecipe(recipeOf(patch), idle[0]!.remedies![0]!.patch));
    expect(after.findings.map((finding) => finding.code)).not.toContain(code);
  });

  it('a lap of a dye that would mix', async () => {
    const dyed = {
      ...BENCH_SHOP,
      films: BENCH_SHOP.films.map((film) => (film.id === RED ? { ...film, family: 'dyeTransfer' as const } : film)),
    };
    const patch: RecipePatch = {
      films: { byColour: { '#b3262b': RED!, '#1d4e89': BLUE!, '#f2b632': YELLOW! } },
      build: { pairs: { 'lock-gate > wick-yellow': { school: 'overlay', trapMm: null } } },
    };
    const [idle] = (await plan(THREE, patch, dyed)).findings.filter((finding) => finding.code === 'pair-idle');
    expect(idle!.message).toContain('dyes mix');
    expect(
      (await plan(THREE, patchRecipe(recipeOf(patch), idle!.remedies![0]!.patch), dyed)).findings.map(
        (finding) => finding.code,
      ),
    ).not.toContain('pair-idle');
  });
});

describe('printed artwork', () => {
  it.each([
    ['inside', -1],
    ['outside', 1],
  ] as const)('is one layer, its cut line moved %s', async (side, sign) => {
    const found = await plan(
      svg(
        '<rect x="10" y="10" width="50" height="40" fill="#b3262b"/><rect x="60" y="10" width="50" height="40" fill="#1d4e89"/>',
      ),
      { build: { contour: { filmId: 'chalk', side, byMm: 0.5 } } },
    );
    expect(found.build!.layers.map((l) => l.film.id)).toEqual(['chalk']);
    expect(areaOf(found.build!.layers[0]!.cut)).toBeCloseTo(
      100 * 40 + sign * 280 * 0.5 + (sign > 0 ? Math.PI * 0.25 : 4 * 0.25),
      0,
    );
  });
});

describe('what is said of a build', () => {
  it('tells where a lower layer runs through under a narrow one', async () => {
    const stripe = svg(
      '<rect width="120" height="60" fill="#b3262b"/><rect y="30" width="120" height="0.5" fill="#f2b632"/>',
    );
    expect((await plan(stripe)).findings.map((f) => f.code)).toContain('closes-under');
  });
  it('proposes one film where two are near, and the remedy makes them one layer', async () => {
    const near = svg(
      '<rect width="60" height="60" fill="#f7f5ef"/><rect x="60" width="20" height="60" fill="#c3c8cc"/>',
    );
    const shop = {
      ...BENCH_SHOP,
      films: BENCH_SHOP.films.map((film) =>
        film.id === 'heron' ? { ...film, colour: '#eceae4', finish: 'gloss' as const } : film,
      ),
    };
    const before = await plan(near, { films: { byColour: { '#c3c8cc': 'heron' } } }, shop);
    const finding = before.findings.find((f) => f.code === 'fewer-films')!;
    expect(finding.message).toContain('saves a sheet and an alignment');
    expect((await plan(near, finding.remedies![0]!.patch, shop)).build!.layers).toHaveLength(1);
  });
});

describe('trials', () => {
  const wish = { placements: 400, seed: 3, readingMm: 500, risk: 0.01 };
  it('lay the layers with marks and by eye, which is no surer', async () => {
    const found = await plan(THREE);
    const { marked, byEye } = tryGaps(
      {
        build: found.build!,
        panels: found.panels!,
        recipe: recipeOf(),
        repeatabilityMm: BENCH_SHOP.cutter.repeatabilityMm,
      },
      wish,
    )!;
    expect(marked.risk).toBeLessThanOrEqual(byEye.risk);
    expect(marked.visibleMm).toBeCloseTo(0.145, 2);
    expect(marked.trapMm).not.toBeNull();
  });
  it('have nothing to say of one layer', async () => {
    const { build, panels } = await plan(svg('<rect width="9" height="9"/>'));
    expect(
      tryGaps(
        { build: build!, panels: panels!, recipe: recipeOf(), repeatabilityMm: BENCH_SHOP.cutter.repeatabilityMm },
        wish,
      ),
    ).toBeNull();
  });

  it('set the schools side by side: overlay thick and sure, inlay flat and risky', async () => {
    const found = await plan(THREE);
    const [overlay, inlay, trapped] = schoolsSideBySide(
      {
        separated: found.separated!,
        panels: found.panels!,
        recipe: recipeOf(),
        shop: BENCH_SHOP,
        heightMm: found.surface!.design.heightMm,
      },
      wish,
    );
    expect([overlay!.thickestUm, inlay!.thickestUm]).toEqual([135, 80]);
    expect(overlay!.filmMm2).toBeGreaterThan(trapped!.filmMm2);
    expect(trapped!.filmMm2).toBeGreaterThan(inlay!.filmMm2);
    expect(inlay!.risk).toBeGreaterThan(trapped!.risk);
    expect(inlay!.exactEdgesMm).toBeCloseTo(60 + 2 * Math.PI * 12, -0.5);
    expect([overlay!.exactEdgesMm, trapped!.exactEdgesMm]).toEqual([0, 0]);
  });
});

describe('a build taken away as a file', () => {
  it.each(['svg', 'dxf'] as const)('%s is read back with the same areas, marks included', async (format) => {
    const found = await plan(THREE);
    const bytes = await exportBuild(found, RED!, format);
    const { regions } = paintRegions(readArtwork(bytes, `layer.${format}`), 1);
    const area = unite(regions.flatMap((r) => [...r.rings]));
    const marks = found.prepare!.panels[0]!.marks!.marks.reduce((sum, mark) => sum + areaOf([mark.ring]), 0);
    expect(areaOf(area)).toBeCloseTo(layer(found, RED).areaMm2 + marks, 0);
    expect(countPieces(area).pieces).toBe(layer(found, RED).pieces + 2);
  });

  it('pdf is one page at true size', async () => {
    const { PDFDocument } = await import('pdf-lib');
    const found = await plan(THREE);
    const [page] = (await PDFDocument.load(await exportBuild(found, null, 'pdf'))).getPages();
    const { minX, maxX } = found
      .prepare!.panels[0]!.marks!.marks.map((m) => m.ring)
      .reduce(
        (sum, ring) => ({
          minX: Math.min(sum.minX, ...ring.filter((_, i) => i % 2 === 0)),
          maxX: Math.max(sum.maxX, ...ring.filter((_, i) => i % 2 === 0)),
        }),
        { minX: 0, maxX: 120 },
      );
    expect((page!.getWidth() * 25.4) / 72).toBeCloseTo(maxX - minX, 3);
  });

  it('is the same every time', async () => {
    const found = await plan(THREE);
    for (const format of ['svg', 'dxf', 'pdf'] as const)
      expect(await exportBuild(found, null, format)).toEqual(await exportBuild(found, null, format));
  });

  it('of a film that is not there is refused', async () =>
    await expect(exportBuild(await plan(THREE), 'nobody', 'svg')).rejects.toThrow('no layer'));
});
