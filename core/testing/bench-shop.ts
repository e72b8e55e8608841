import {
  EMPTY_SHOP,
  newCutter,
  newFilm,
  shopForPlans,
  wholeShop,
  type Film,
  type FilmFamily,
  type MatCard,
  type ShopFile,
  type StockPiece,
} from '../shop/index.js';

/* A small shop for tests: fourteen films in eight families, what lies in the rack, two mats and the cutter. */

const film = (
  id: string,
  name: string,
  family: FilmFamily,
  colour: string,
  costPerM2: number,
  forceG: number,
  speedMmS: number,
  more: Partial<Film> = {},
): Film => ({
  ...newFilm(id, family),
  name,
  colour,
  finish: 'gloss',
  costPerM2,
  forceG,
  speedMmS,
  ...more,
});

const films: readonly Film[] = [
  film('chalk', 'Chalk white', 'polymeric', '#f7f5ef', 8.9, 95, 200),
  film('tar', 'Tar black', 'polymeric', '#16181a', 8.9, 95, 200),
  film('lock-gate', 'Lock-gate red', 'calendered', '#b3262b', 6.6, 95, 200),
  film('towpath', 'Towpath green', 'calendered', '#1f6b45', 6.6, 95, 200),
  film('narrow-blue', 'Narrow blue', 'cast', '#1d4e89', 14.8, 80, 180),
  film('wick-yellow', 'Wick yellow', 'cast', '#f2b632', 14.8, 80, 180),
  film('ember', 'Ember orange', 'cast', '#dd6b20', 14.8, 80, 180),
  film('heron', 'Heron grey', 'cast', '#8b949c', 13.9, 80, 180, { finish: 'matt' }),
  film('reed', 'Reed brown', 'cast', '#6b4a2b', 13.9, 80, 180, { finish: 'matt' }),
  film('mist', 'Morning mist', 'translucent', '#dfe9ec', 11.5, 90, 180, { finish: 'translucent' }),
  film('bollard', 'Bollard silver', 'reflective', '#c3c8cc', 27, 150, 120),
  film('brass', 'Brushed brass', 'textured', '#b08d3f', 31, 170, 100, { finish: 'textured', directional: true }),
  film('apron-cream', 'Apron cream', 'heatTransfer', '#efe3c8', 18.4, 85, 160, { finish: 'matt' }),
  film('grainy-mask', 'Grain-boat mask', 'stencil', '#7fb7d6', 5.1, 70, 200),
];

const piece = (
  id: string,
  filmId: string,
  kind: StockPiece['kind'],
  widthMm: number,
  lengthMm: number,
  left: number,
): StockPiece => ({
  id,
  filmId,
  kind,
  number: kind === 'offcut' ? 1 : null,
  widthMm,
  lengthMm,
  edgeMm: 5,
  place: '',
  note: '',
  retired: false,
  left,
});
/** Roll widths are usable ones: what the pinch rollers need is already off. */
const roll = (filmId: string, widthMm: number, lengthMm: number) =>
  piece(`${filmId}-roll`, filmId, 'roll', widthMm, lengthMm, lengthMm);
const sheets = (filmId: string, quantity: number) => piece(`${filmId}-sheets`, filmId, 'sheet', 290, 290, quantity);
const offcut = (filmId: string, widthMm: number, lengthMm: number) =>
  piece(`${filmId}-offcut`, filmId, 'offcut', widthMm, lengthMm, 1);

const stock: readonly StockPiece[] = [
  roll('chalk', 590, 18_400),
  offcut('chalk', 280, 210),
  roll('tar', 590, 22_000),
  roll('lock-gate', 590, 9_300),
  sheets('lock-gate', 3),
  roll('towpath', 590, 6_100),
  roll('narrow-blue', 590, 12_800),
  sheets('narrow-blue', 2),
  roll('wick-yellow', 590, 7_700),
  offcut('wick-yellow', 290, 590),
  roll('ember', 590, 4_200),
  roll('heron', 590, 5_000),
  roll('reed', 590, 3_600),
  roll('mist', 590, 8_000),
  sheets('bollard', 4),
  roll('bollard', 590, 2_400),
  sheets('brass', 5),
  roll('brass', 590, 1_900),
  roll('apron-cream', 480, 10_000),
  roll('grainy-mask', 590, 15_000),
];

const mat = (id: string, name: string, lengthMm: number): MatCard => ({
  id,
  name,
  widthMm: 300,
  lengthMm,
  edgeMm: 5,
  usesBefore: 0,
  retired: false,
});

export const BENCH_SHOP_FILE: ShopFile = {
  ...EMPTY_SHOP,
  settings: { ...EMPTY_SHOP.settings, cutterId: 'bench' },
  films,
  stock,
  mats: [mat('mat-short', 'short mat', 300), mat('mat-long', 'long mat', 600)],
  cutters: [{ ...newCutter('bench'), name: 'bench cutter', host: '127.0.0.1', port: 9310 }],
};

/** The same as a plan reads it. */
export const BENCH_SHOP = shopForPlans(wholeShop(BENCH_SHOP_FILE));
