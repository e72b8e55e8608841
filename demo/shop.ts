import {
  shopForPlans,
  SETTINGS_ID,
  wholeShop,
  type PieceKind,
  type ShopFile,
  type StockPiece,
} from '../core/shop/index.js';
import { DEMO_FILMS } from './films.js';
import { DEMO_BLADES, DEMO_BLANKS, DEMO_CUTTERS, DEMO_MAKERS, DEMO_MATS, DEMO_PRESSES, DEMO_TAPES } from './tools.js';

/* The stock of Halyard & Wick, made up: what stands in the rack, lies in the drawer, and was put into the offcut box. */

function piece(
  id: string,
  filmId: string,
  kind: PieceKind,
  widthMm: number,
  lengthMm: number,
  left: number,
  place: string,
): StockPiece {
  return { id, filmId, kind, number: null, widthMm, lengthMm, edgeMm: 5, place, note: '', retired: false, left };
}

/** Usable width and what is left, mm: what the pinch rollers need is already off. */
const ROLLS: readonly (readonly [filmId: string, widthMm: number, leftMm: number])[] = [
  ['chalk', 590, 18_400],
  ['tar', 590, 22_000],
  ['lock-gate', 590, 9_300],
  ['towpath', 590, 6_100],
  ['narrow-blue', 590, 12_800],
  ['wick-yellow', 590, 7_700],
  ['ember', 590, 4_200],
  ['heron', 590, 5_000],
  ['reed', 590, 3_600],
  ['mist', 590, 8_000],
  ['bollard', 590, 2_400],
  ['brass', 590, 1_900],
  ['apron-cream', 480, 10_000],
  ['grainy-mask', 590, 15_000],
  ['thrift-pink', 590, 7_200],
  ['teasel', 590, 4_800],
  ['primrose', 590, 9_900],
  ['kingfisher', 590, 6_600],
  ['duckweed', 590, 3_300],
  ['slate', 590, 11_000],
  ['blackout', 590, 8_800],
  ['sky', 590, 5_500],
  ['plum', 590, 4_000],
  ['crate', 590, 2_700],
  ['fog', 590, 9_000],
  ['lamp-amber', 590, 2_000],
  ['lamp-yellow', 590, 1_800],
  ['quay-tiles', 590, 3_000],
  ['galley-black', 480, 3_100],
  ['pennant-red', 480, 4_400],
  ['jersey-blue', 480, 5_200],
  ['moss-flock', 480, 1_600],
  ['foam-puff', 480, 2_200],
  ['heat-glue', 480, 6_000],
  ['blast-mask', 590, 7_500],
];

/** How many, each of 290 × 290 unless said. */
const SHEETS: readonly (readonly [filmId: string, count: number, widthMm?: number, lengthMm?: number])[] = [
  ['lock-gate', 3],
  ['narrow-blue', 2],
  ['bollard', 4],
  ['brass', 5],
  ['bramble', 6],
  ['hull-weave', 4],
  ['frost-glitter', 5, 290, 480],
  ['copper-foil', 8, 290, 290],
  ['shimmer-foil', 3, 290, 290],
  ['dye-sheet', 40, 200, 290],
  ['quay-tiles', 2],
  ['lamp-amber', 3],
  ['plum', 2],
];

const OFFCUTS: readonly (readonly [filmId: string, widthMm: number, lengthMm: number])[] = [
  ['chalk', 280, 210],
  ['wick-yellow', 290, 590],
  ['tar', 190, 145],
  ['tar', 290, 330],
  ['lock-gate', 260, 120],
  ['towpath', 150, 290],
  ['narrow-blue', 240, 180],
  ['kingfisher', 290, 160],
  ['slate', 280, 280],
  ['galley-black', 290, 240],
  ['apron-cream', 160, 220],
  ['fog', 270, 350],
];

const stock: readonly StockPiece[] = [
  ...ROLLS.map(([filmId, widthMm, left]) =>
    piece(`${filmId}-roll`, filmId, 'roll', widthMm, Math.ceil(left / 5000) * 5000, left, 'rack'),
  ),
  ...SHEETS.map(([filmId, count, widthMm = 290, lengthMm = 290]) =>
    piece(`${filmId}-sheets`, filmId, 'sheet', widthMm, lengthMm, count, 'flat drawer'),
  ),
  ...OFFCUTS.map(([filmId, widthMm, lengthMm], i) => ({
    ...piece(`offcut-${i + 1}`, filmId, 'offcut', widthMm, lengthMm, 1, 'offcut box'),
    number: i + 1,
  })),
];

export const DEMO_SHOP_FILE: ShopFile = {
  settings: { id: SETTINGS_ID, name: 'Halyard & Wick', cutterId: 'bench' },
  films: DEMO_FILMS,
  stock,
  mats: DEMO_MATS,
  blades: DEMO_BLADES,
  cutters: DEMO_CUTTERS,
  tapes: DEMO_TAPES,
  presses: DEMO_PRESSES,
  makers: DEMO_MAKERS,
  blanks: DEMO_BLANKS,
};

/** The same as a plan reads it. */
export const DEMO_SHOP = shopForPlans(wholeShop(DEMO_SHOP_FILE));
