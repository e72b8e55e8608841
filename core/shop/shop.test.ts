import { describe, expect, it } from 'vitest';
import { DEMO_SHOP_FILE } from '../../demo/shop.js';
import { BENCH_SHOP_FILE } from '../testing/bench-shop.js';
import { seeded } from '../testing/seeded.js';
import { InputError } from '../words/index.js';
import { SHOP_FIELDS, sayFault, valueAt } from './fields/index.js';
import {
  amountOf,
  areaLeft,
  asFilmPiece,
  FILM_FAMILIES,
  measureOf,
  newBlank,
  newFilm,
  newMaker,
  parseShop,
  SHOP_KINDS,
  SHOP_SCHEMAS,
  shortFilms,
  startingSet,
  STOCK_ACTS,
  toThousandth,
  wholeShop,
  type FilmFamily,
  type StockPiece,
} from './index.js';

const families = Object.keys(FILM_FAMILIES) as FilmFamily[];

/** A file as somebody may write it. */
type Loose = Readonly<Record<'films' | 'stock' | 'mats', Record<string, unknown>[]>> & {
  readonly settings: Record<string, unknown>;
};

describe('the shops that are shipped', () => {
  it.each([
    ['demo', DEMO_SHOP_FILE],
    ['bench', BENCH_SHOP_FILE],
  ] as const)('%s is one by the schema', (_, file) => expect(parseShop(structuredClone(file))).toEqual(file));

  it('read files from before films and makers said how bulky waste may be, and what they say themselves wins', () => {
    const without = (records: readonly object[]) =>
      records.map(({ stripBulkMm: _, ...record }: { stripBulkMm?: unknown }) => record);
    const old = { ...BENCH_SHOP_FILE, films: without(BENCH_SHOP_FILE.films), makers: without([newMaker('ilse')]) };
    expect(parseShop(old)).toEqual({
      ...BENCH_SHOP_FILE,
      films: BENCH_SHOP_FILE.films.map((film) => ({ ...film, stripBulkMm: 80 })),
      makers: [newMaker('ilse')],
    });
    const before = (cutters: readonly object[]) =>
      cutters.map(({ leaderMm: _, tailMm: __, ...cutter }: { leaderMm?: unknown; tailMm?: unknown }) => cutter);
    expect(parseShop({ ...BENCH_SHOP_FILE, cutters: before(BENCH_SHOP_FILE.cutters) })).toEqual(BENCH_SHOP_FILE);
    expect(
      parseShop({ ...old, films: BENCH_SHOP_FILE.films.map((film) => ({ ...film, stripBulkMm: 55 })) }).films.every(
        ({ stripBulkMm }) => stripBulkMm === 55,
      ),
    ).toBe(true);
  });

  it('the demo has what a real one has', () => {
    const { films, stock, mats, blades, cutters, blanks, makers } = DEMO_SHOP_FILE;
    expect(new Set(films.map((film) => film.family))).toEqual(new Set(families));
    expect([
      films.length >= 40,
      stock.length,
      stock.filter(({ kind }) => kind === 'offcut').length,
      mats.length,
      blades.length,
      cutters.length,
      blanks.length,
      makers.length,
    ]).toEqual([true, 60, 12, 3, 3, 2, 10, 2]);
    expect(new Set(films.map(({ id }) => id)).size).toBe(films.length);
    expect(shortFilms(films, stock).map(({ film }) => film.id)).toEqual(expect.arrayContaining(['ember', 'reed']));
  });

  it.each([
    [
      'a film of no family',
      (file: Loose) => {
        file.films[0]!['family'] = 'velvet';
      },
      '/films/0/family',
    ],
    [
      'a cost that is none',
      (file: Loose) => {
        file.films[2]!['costPerM2'] = 'x';
      },
      '/films/2/costPerM2',
    ],
    [
      'a roll of −3 m',
      (file: Loose) => {
        file.stock[0]!['left'] = -3000;
      },
      '/stock/0/left',
    ],
    [
      'a field too many',
      (file: Loose) => {
        file.mats[0]!['shiny'] = true;
      },
      '/mats/0',
    ],
    [
      'a piece of no film',
      (file: Loose) => {
        file.stock[1]!['filmId'] = 'gone';
      },
      '/stock/1/filmId',
    ],
    [
      'no such cutter',
      (file: Loose) => {
        file.settings['cutterId'] = 'gone';
      },
      '/settings/cutterId',
    ],
    [
      'an id twice',
      (file: Loose) => {
        file.films[1]!['id'] = file.films[0]!['id'];
      },
      undefined,
    ],
  ])('with %s it is refused, with its place', (_, spoil, path) => {
    const file = structuredClone(BENCH_SHOP_FILE);
    spoil(file as unknown as Loose);
    try {
      parseShop(file);
      expect.unreachable();
    } catch (error) {
      expect(error).toBeInstanceOf(InputError);
      expect([(error as InputError).code, (error as InputError).path]).toEqual(['shop-invalid', path]);
    }
  });
});

describe('films', () => {
  it.each(families)('of %s begin with what is right by the schema', (family) => {
    const film = newFilm('a', family);
    expect(parseShop({ ...BENCH_SHOP_FILE, films: [...BENCH_SHOP_FILE.films, film] }).films.at(-1)).toEqual(film);
    expect([film.press === null, film.adhesive === null]).toEqual(
      FILM_FAMILIES[family].way === 'press' ? [false, true] : [true, false],
    );
  });

  it('to begin with are right, have names of their own, and are of the families asked for', () => {
    let id = 0;
    const films = startingSet(families, () => `s${(id += 1)}`);
    expect(parseShop({ ...BENCH_SHOP_FILE, films: [...BENCH_SHOP_FILE.films, ...films] }).films).toHaveLength(
      films.length + BENCH_SHOP_FILE.films.length,
    );
    expect(new Set(films.map(({ name }) => name)).size).toBe(films.length);
    expect(new Set(films.map(({ family }) => family))).toEqual(new Set(families));
    expect(startingSet(['flock'], () => 'x').every((film) => film.family === 'flock')).toBe(true);
  });
});

describe('fields', () => {
  const records: Readonly<Record<string, Record<string, unknown>>> = {
    ...Object.fromEntries(
      SHOP_KINDS.filter((kind) => kind !== 'pieces' && kind !== 'settings').map((kind) => [
        kind,
        DEMO_SHOP_FILE[kind as 'films'][0] as unknown as Record<string, unknown>,
      ]),
    ),
    settings: { ...DEMO_SHOP_FILE.settings },
    pieces: DEMO_SHOP_FILE.stock[0] as unknown as Record<string, unknown>,
  };
  it.each(SHOP_KINDS)('of %s are fields that its schema has', (kind) => {
    for (const { path } of SHOP_FIELDS[kind].flatMap(({ fields }) => fields))
      expect(Object.keys((SHOP_SCHEMAS[kind] as { properties: object }).properties)).toContain(path.split('.')[0]);
    expect(
      SHOP_FIELDS[kind].flatMap(({ fields }) => fields).some(({ path }) => valueAt(records[kind]!, path) !== undefined),
    ).toBe(true);
  });

  it('are said to be wrong in a sentence', () => {
    expect(
      sayFault({
        instancePath: '/a',
        keyword: 'maximum',
        params: { limit: 5 },
        parentSchema: { minimum: 0, maximum: 5 },
      }),
    ).toBe('It must be from 0 to 5.');
    expect(sayFault({ instancePath: '/a', keyword: 'minLength', params: { limit: 1 } })).toBe('It must not be empty.');
  });
});

const sumOf = (lines: readonly { readonly amount: number }[]) =>
  toThousandth(lines.reduce((sum, { amount }) => sum + amount, 0));
const piece = (more: Partial<StockPiece> = {}): StockPiece => ({
  id: 'p',
  filmId: 'tar',
  kind: 'roll',
  number: null,
  widthMm: 500,
  lengthMm: 10_000,
  edgeMm: 5,
  place: '',
  note: '',
  retired: false,
  left: 10_000,
  ...more,
});

describe('what is left', () => {
  it.each(Array.from({ length: 20 }, (_, seed) => seed))('is what a hand with a slate reckons, seed %i', (seed) => {
    const random = seeded(seed);
    const lines: { amount: number }[] = [];
    // The slate holds thousandths, so that it never errs by a hair.
    let slate = 0;
    for (let i = 0; i < 200; i += 1) {
      const act = STOCK_ACTS[Math.floor(random() * STOCK_ACTS.length)]!;
      const figure = Math.round(random() * 5_000_000) / 1000;
      const all = act === 'thrown away' && random() < 0.5;
      lines.push({ amount: amountOf(act, all ? null : figure, sumOf(lines)) });
      const by = Math.round(figure * 1000);
      slate = act === 'counted' ? by : all ? 0 : slate + (act === 'used' || act === 'thrown away' ? -by : by);
      expect(sumOf(lines)).toBe(slate / 1000);
    }
  });

  it('is what a plan may cut', () => {
    expect(asFilmPiece(piece({ left: 3210 }))).toMatchObject({ lengthMm: 3210, quantity: 1 });
    expect(asFilmPiece(piece({ left: 0 }))).toMatchObject({ quantity: 0 });
    expect(asFilmPiece(piece({ kind: 'sheet', lengthMm: 290, left: 4 }))).toMatchObject({ lengthMm: 290, quantity: 4 });
    expect(asFilmPiece(piece({ retired: true }))).toMatchObject({ quantity: 0 });
    expect([
      areaLeft(piece({ left: 2000 })),
      areaLeft(piece({ kind: 'sheet', widthMm: 300, lengthMm: 300, left: 3 })),
      areaLeft(piece({ retired: true })),
    ]).toEqual([1e6, 270_000, 0]);
  });

  it('runs short below what the shop wants, the shortest first; retired films and those that nobody minds do not', () => {
    const films = [
      { ...newFilm('a', 'cast'), reorderM2: 4 },
      { ...newFilm('b', 'cast'), reorderM2: 10 },
      { ...newFilm('c', 'cast'), reorderM2: 0 },
      { ...newFilm('d', 'cast'), reorderM2: 9, retired: true },
      { ...newFilm('e', 'cast'), reorderM2: 1 },
    ];
    const stock = [
      piece({ filmId: 'a', left: 6000 }),
      piece({ id: 'q', filmId: 'b', left: 2000 }),
      piece({ id: 'r', filmId: 'e', left: 2000 }),
    ];
    expect(shortFilms(films, stock).map(({ film, leftM2 }) => [film.id, leftM2])).toEqual([
      ['b', 1],
      ['a', 3],
    ]);
    // The very level is not short of it.
    expect(shortFilms([{ ...newFilm('e', 'cast'), reorderM2: 1 }], stock)).toEqual([]);
  });
});

it('of two readings the smaller counts', () => {
  const reading = (mm: number) => ({
    what: 'circumference' as const,
    mm,
    on: '2026-01-01',
    by: '',
    with: 'tape' as const,
  });
  const blank = {
    ...newBlank('b'),
    readings: [reading(258), reading(256.5), { ...reading(12), what: 'handle gap' as const }],
  };
  expect([measureOf(blank, 'circumference'), measureOf(blank, 'handle gap'), measureOf(blank, 'slant')]).toEqual([
    256.5,
    12,
    null,
  ]);
});

it('a shop cuts with the cutter that it names', () => {
  const [one] = BENCH_SHOP_FILE.cutters;
  const file = { ...BENCH_SHOP_FILE, cutters: [one!, { ...one!, id: 'other', widthMm: 1200 }] };
  expect(wholeShop({ ...file, settings: { ...file.settings, cutterId: 'other' } }).cutter.widthMm).toBe(1200);
});
