import { Resvg } from '@resvg/resvg-js';
import { isDeepStrictEqual } from 'node:util';
import { describe, expect, it } from 'vitest';
import { BENCH_SHOP } from '../testing/bench-shop.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { emptyRecipe, parseRecipe, patchRecipe, type Recipe, type RecipePatch } from '../recipe/index.js';
import type { Shop } from '../shop/index.js';
import { AT_ORIGIN, drawingPart, newLettering, picturePart, type ArtworkPart } from '../stations/artwork/index.js';
import { viewOf } from './page/make-view.js';
import { Planner } from './planner.js';
import { planReport } from './report.js';
import { sampled } from '../testing/long-run.js';

/*
 * Whatever changes in a recipe or in the shop, a planner that has seen other things answers like one that has seen nothing. Each single
 * value is changed by itself, so that a stage whose key leaves out something it looks at is found. The quick run tries some of the values.
 */

const drawing =
  '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><rect width="60" height="40" fill="#16181a"/><circle cx="20" cy="20" r="12" fill="#b3262b"/><path d="M28 20h20v6H28z" fill="#f2b632"/><circle cx="55" cy="5" r=".4" fill="#f2b632"/><path d="M2 36h50v.3H2z" fill="#f7f5ef"/><rect x="3" y="3" width="6" height="5" fill="none" stroke="#b3262b" stroke-width=".1"/></svg>';
const png = new Uint8Array(
  new Resvg(
    '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><rect width="60" height="40" fill="#fff"/><rect x="10" y="8" width="26" height="22" fill="#1f6b45"/><circle cx="52" cy="20" r="2" fill="#1f6b45"/></svg>',
  )
    .render()
    .asPng(),
);
const sources = new Map([
  ['a', new TextEncoder().encode(drawing)],
  ['p', png],
]);
const sha = (digit: string) => digit.repeat(64);
const parts: readonly ArtworkPart[] = [
  { ...drawingPart({ id: 'a', fileName: 'a.svg', sha256: sha('0') }), place: { ...AT_ORIGIN, xMm: 30, yMm: 20 } },
  { ...picturePart({ id: 'p', fileName: 'p.png', sha256: sha('1') }), place: { ...AT_ORIGIN, xMm: 90, yMm: 20 } },
  {
    kind: 'lettering',
    id: 'l',
    group: null,
    lettering: {
      ...newLettering('Ab'),
      capHeightMm: 12,
      arc: { radiusMm: 80, bend: 'up' },
      alternates: { 0: 'salt' },
      colourBy: 'band',
      colours: ['#b3262b', '#f2b632'],
      bands: { heights: [0.4], along: 'line' },
    },
    fontSource: null,
    place: { ...AT_ORIGIN, xMm: 40, yMm: 60 },
  },
];
const place = { part: 'a', xMm: 55, yMm: 5, acrossMm: 1.1 };
const BASE: RecipePatch = {
  customer: 'Someone',
  due: '2026-12-01',
  artworks: parts,
  repair: {
    recolour: { '#000000': '#16181a' },
    noFilm: ['#00ff00'],
    speckMm2: 0.4,
    thickenMm: 0.5,
    closeGapsMm: 0.3,
    joinEndsMm: 0.2,
    gradientBands: 3,
    fonts: { Any: 'lobster' },
    only: { specks: [place], hairlines: [{ ...place, xMm: 6, yMm: 5.5, acrossMm: 8 }] },
    spared: { thicken: [{ ...place, xMm: 27, yMm: 36, acrossMm: 50, reason: 'as it is' }] },
    letBe: { hairlines: 'thin on purpose' },
  },
  films: { byColour: { '#f2b632': 'wick-yellow' }, patterns: { chalk: { xMm: 4, yMm: 7 } }, renewals: 1 },
  surface: {
    kind: 'flat',
    flat: {
      widthMm: 200,
      heightMm: 150,
      marginMm: { top: 10, right: 10, bottom: 10, left: 10 },
      free: [{ shape: 'circle', what: 'hook', xMm: 100, yMm: 12, diameterMm: 8 }],
    },
    ground: { matter: 'plastic', colour: '#f0f0f0' },
    freshPaint: 'wall',
    readFromMm: 3000,
    size: { mode: 'width', mm: 110 },
  },
  build: {
    pairs: { 'tar > lock-gate': { school: null, trapMm: 0.4 } },
    filmPairs: { 'wick-yellow': { school: 'inlay', trapMm: 0.3 } },
    outlines: [
      {
        id: 'o',
        filmId: 'chalk',
        around: { by: 'films', ids: ['tar', 'lock-gate'] },
        each: 'all',
        widthMm: 2,
        join: 'round',
        fillBelowMm: 1,
      },
    ],
    knockOuts: [
      {
        shapeFilmId: 'lock-gate',
        baseFilmId: 'tar',
        clearanceMm: 0.5,
        fillBelowMm: 2,
        dropBelowMm2: 3,
        joinWords: false,
      },
    ],
    blockOut: { filmId: 'heron', underFilmId: 'wick-yellow', insetMm: 0.5 },
    order: ['tar', 'lock-gate'],
  },
  // What is soon prepared: each leaf is changed to what takes longer.
  preparation: {
    border: 'box',
    borderGapMm: 4,
    labels: false,
    markPlaces: 'outside',
    markDistanceMm: 200,
    marksAt: [{ xMm: -20, yMm: 10 }],
  },
  sheets: { copies: 2 },
};
const base = parseRecipe(patchRecipe(emptyRecipe('Every leaf'), BASE));
const printed = parseRecipe(
  patchRecipe(base, {
    build: {
      outlines: [],
      knockOuts: [],
      blockOut: null,
      base: { filmId: 'tar' },
      contour: { filmId: 'chalk', side: 'outside', byMm: 1 },
    },
    preparation: { gang: { across: 2, down: 1, rows: 'tight', gapMm: 3 } },
  }),
);

const used = new Set(['tar', 'chalk', 'lock-gate', 'wick-yellow', 'heron', 'brass']);
const shop: Shop = {
  ...BENCH_SHOP,
  films: BENCH_SHOP.films.filter((film) => used.has(film.id)),
  pieces: BENCH_SHOP.pieces.filter((piece) => used.has(piece.filmId) && piece.kind !== 'sheet'),
};

type Path = readonly (string | number)[];

function leaves(value: unknown, at: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [at];
  return Object.entries(value).flatMap(([key, inner]) =>
    leaves(inner, [...at, Array.isArray(value) ? Number(key) : key]),
  );
}

function leafAt(value: unknown, path: Path): unknown {
  return path.reduce<unknown>((inner, key) => (inner as Record<string | number, unknown>)[key], value);
}

function changed<T>(value: T, [key, ...rest]: Path, to: unknown): T {
  const copy = (Array.isArray(value) ? [...(value as unknown[])] : { ...value }) as Record<string | number, unknown>;
  copy[key!] = rest.length === 0 ? to : changed(copy[key!], rest, to);
  return copy as T;
}

const WORDS = [
  'overlay',
  'inlay',
  'trapped',
  'worst',
  'chance',
  'outdoors',
  'dry',
  'wet',
  'mitred',
  'round',
  'inside',
  'outside',
  'bleed',
  'films',
  'parts',
  'piece',
  'keep',
  'drop',
  'fill',
  'take',
  'cut',
  'flat',
  'trace',
  'around',
  'left',
  'right',
  'up',
  'down',
  'word',
  'letter',
  'runs',
  'artboard',
  'fit',
  'own',
  'height',
  'tape',
  'oswald',
  '2026-12-24',
  '#1d4e89',
  'ss01',
  'cast',
  'matt',
  'roll',
  'offcut',
  'chalk',
  'tar',
  'wick-yellow',
  'diameter',
  'holder',
  'foot',
  'upright',
  'back',
  'vehicle',
  'boat',
  'never',
  'wood',
  'apron',
  'groups',
  'edge',
  'straight',
  'square',
  'a',
  sha('2'),
  'Renamed',
];

/** Other values for a leaf, of which the first that is allowed is taken. */
function others(leaf: unknown): unknown[] {
  if (typeof leaf === 'boolean') return [!leaf];
  if (typeof leaf === 'number')
    return [leaf * 1.1 + 0.1, leaf + 1, leaf - 1, leaf / 2].map((v) => Number(v.toFixed(4)));
  // What may be nothing is a figure, a word, or one of a few things.
  if (leaf === null)
    return [
      { xMm: 3, yMm: 4 },
      3,
      0.5,
      150,
      'inlay',
      {
        namePart: null,
        numberPart: null,
        members: [{ name: 'A', number: '1', size: '' }],
        widestMm: 300,
        condense: 'each',
      },
      { filmId: 'chalk', side: 'outside', byMm: 1 },
      { filmId: 'heron', underFilmId: 'wick-yellow', insetMm: 0.5 },
      { filmId: 'tar' },
      { across: 2, down: 1, rows: 'straight', gapMm: 4 },
      { by: 'parts', ids: ['a'] },
      { id: 'f', fileName: 'f.woff2', sha256: sha('3') },
    ];
  return WORDS.filter((word) => word !== leaf);
}

function isRecipe(recipe: Recipe): boolean {
  try {
    parseRecipe(recipe);
    return true;
  } catch {
    return false;
  }
}

const plan = (planner: Planner, recipe: Recipe, from: Shop) => planner.plan({ recipe, shop: from, sources });

async function sameAsFresh(seen: Planner, recipe: Recipe, from: Shop): Promise<boolean> {
  return isDeepStrictEqual(await plan(seen, recipe, from), await plan(new Planner(resourcesInNode), recipe, from));
}

describe.each([
  ['with outlines', base],
  ['printed', printed],
] as const)('a used planner answers like a fresh one, %s', (_, recipe) => {
  // The second recipe differs from the first only in how it is built, how copies lie in strips, and what follows from that.
  const paths = leaves(recipe).filter(([key, leaf]) => recipe === base || key === 'build' || leaf === 'gang');

  it('whatever leaf of the recipe changes', async () => {
    const seen = new Planner(resourcesInNode);
    await plan(seen, recipe, shop);
    const fixed: string[] = [];
    const wrong: string[] = [];
    for (const path of sampled(paths, 16)) {
      const next = others(leafAt(recipe, path))
        .map((value) => changed(recipe, path, value))
        .find(isRecipe);
      if (!next) fixed.push(path.join('.'));
      else if (!(await sameAsFresh(seen, next, shop))) wrong.push(path.join('.'));
    }
    expect(wrong).toEqual([]);
    // What says which kind or version it is cannot be anything else.
    expect(fixed.filter((path) => !/(^|\.)(kind|shape|version)$/.test(path))).toEqual([]);
    expect(paths.length).toBeGreaterThan(recipe === base ? 110 : 8);
  });
});

describe.each([
  ['a cylinder', { kind: 'cylinder', size: { mode: 'fit' } }],
  ['a taper', { kind: 'taper', size: { mode: 'width', mm: 70 } }],
  ['a compound', { kind: 'compound', size: { mode: 'fit' } }],
  ['glass', { kind: 'glass', size: { mode: 'fit' } }],
  [
    'a garment in sizes',
    {
      kind: 'garment',
      size: { mode: 'fit' },
      garment: {
        ...base.surface.garment,
        sizes: [
          { size: 'S', copies: 2, widthMm: null },
          { size: 'L', copies: 1, widthMm: 200 },
        ],
      },
    },
  ],
  [
    'a garment for a team',
    {
      kind: 'garment',
      size: { mode: 'own' },
      team: {
        namePart: 'l',
        numberPart: null,
        members: [
          { name: 'Cd', number: '1', size: 'M' },
          { name: 'Longer', number: '2', size: 'XL' },
        ],
        widestMm: 60,
        condense: 'each',
      },
    },
  ],
  [
    'a mug with two designs',
    {
      kind: 'cylinder',
      size: { mode: 'fit' },
      several: { others: [{ parts: ['l'], widthMm: 20 }], copies: 1, betweenMm: 6 },
    },
  ],
  [
    'a board with two designs, twice',
    {
      kind: 'flat',
      size: { mode: 'fit' },
      several: { others: [{ parts: ['l'], widthMm: null }], copies: 2, betweenMm: null },
    },
  ],
  [
    'a wall in panels',
    {
      kind: 'flat',
      size: { mode: 'width', mm: 1400 },
      flat: { ...base.surface.flat, widthMm: 3000, heightMm: 2000 },
      panels: { ...base.surface.panels, lapMm: 8, widestMm: 900 },
    },
  ],
] as const)('a used planner answers like a fresh one on %s', (_, surface) => {
  it('whatever leaf of the surface changes', async () => {
    const recipe = parseRecipe(
      patchRecipe(base, {
        artworks: [parts[0]!, parts[2]!],
        surface,
        build: { outlines: [], knockOuts: [], blockOut: null },
      }),
    );
    const seen = new Planner(resourcesInNode);
    await plan(seen, recipe, shop);
    const wrong: string[] = [];
    for (const path of sampled(
      leaves(recipe).filter(([key]) => key === 'surface'),
      5,
    )) {
      const next = others(leafAt(recipe, path))
        .map((value) => changed(recipe, path, value))
        .find(isRecipe);
      if (next && !(await sameAsFresh(seen, next, shop))) wrong.push(path.join('.'));
    }
    expect(wrong).toEqual([]);
  });
});

it('a used planner answers like a fresh one, whatever leaf of the shop changes', async () => {
  // Pictures and letters look at nothing of the shop.
  const drawn = patchRecipe(base, { artworks: [parts[0]!] });
  const seen = new Planner(resourcesInNode);
  await plan(seen, drawn, shop);
  const wrong: string[] = [];
  const paths = leaves(shop);
  for (const path of sampled(paths, 12)) {
    const leaf = leafAt(shop, path);
    // A family, a finish or a kind is one of a few words.
    const value =
      path.at(-1) === 'family'
        ? leaf === 'cast'
          ? 'calendered'
          : 'cast'
        : path.at(-1) === 'finish'
          ? leaf === 'matt'
            ? 'translucent'
            : 'matt'
          : path.at(-1) === 'kind'
            ? leaf === 'roll'
              ? 'sheet'
              : 'roll'
            : path.at(-1) === 'colour'
              ? '#1d4e89'
              : others(leaf)[0];
    if (!(await sameAsFresh(seen, drawn, changed(shop, path, value)))) wrong.push(path.join('.'));
  }
  expect(wrong).toEqual([]);
  expect(paths.length).toBeGreaterThan(130);
});

it('an empty stock crashes nothing and says what is missing', async () => {
  for (const empty of [
    { ...shop, films: [] },
    { ...shop, pieces: [] },
    { ...shop, mats: [] },
    { ...shop, films: [], pieces: [], mats: [] },
  ]) {
    const made = await plan(new Planner(resourcesInNode), base, empty);
    viewOf(made);
    planReport(made);
    const blockers = made.findings.filter((finding) => finding.severity === 'blocker').map((finding) => finding.code);
    if (empty.films.length === 0) expect(blockers).toEqual(['no-films']);
    else if (empty.pieces.length === 0) expect(new Set(blockers)).toEqual(new Set(['film-missing']));
  }
});
