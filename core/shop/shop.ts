import { id, name, object } from '../words/schema.js';
import { BLADE_SCHEMA, type Blade } from './blade.js';
import { BLANK_SCHEMA, type Blank } from './blank.js';
import { CUTTER_SCHEMA, newCutter, type CutterCard, type CutterProfile } from './cutter.js';
import { FILM_SCHEMA, type Film } from './film.js';
import { MAKER_SCHEMA, type Maker } from './maker.js';
import { MAT_SCHEMA, type Mat, type MatCard } from './mat.js';
import { PIECE_SCHEMA, type FilmPiece, type PieceCard, type StockPiece } from './piece.js';
import { PRESS_SCHEMA, type Press } from './press.js';
import { TAPE_SCHEMA, type Tape } from './tape.js';

/** What a plan needs of the shop: films, pieces of them, mats, and the cutter that is used. */
export interface Shop {
  readonly films: readonly Film[];
  readonly mats: readonly Mat[];
  readonly pieces: readonly FilmPiece[];
  readonly cutter: CutterProfile;
}

/** What is said of the shop as a whole. */
export interface ShopSettings {
  readonly id: typeof SETTINGS_ID;
  readonly name: string;
  /** The cutter that sheets are sent to. */
  readonly cutterId: string;
}

export const SETTINGS_ID = 'shop';

/** Every kind of record that the shop keeps, and what each is. */
export interface ShopRecords {
  readonly settings: ShopSettings;
  readonly films: Film;
  readonly pieces: PieceCard;
  readonly mats: MatCard;
  readonly blades: Blade;
  readonly cutters: CutterCard;
  readonly tapes: Tape;
  readonly presses: Press;
  readonly makers: Maker;
  readonly blanks: Blank;
}

export type ShopKind = keyof ShopRecords;

/** The schema of each kind: a form, a file and a request are held to the same. */
export const SHOP_SCHEMAS = {
  settings: object({ id: { const: SETTINGS_ID }, name, cutterId: id }),
  films: FILM_SCHEMA,
  pieces: PIECE_SCHEMA,
  mats: MAT_SCHEMA,
  blades: BLADE_SCHEMA,
  cutters: CUTTER_SCHEMA,
  tapes: TAPE_SCHEMA,
  presses: PRESS_SCHEMA,
  makers: MAKER_SCHEMA,
  blanks: BLANK_SCHEMA,
} as const satisfies Readonly<Record<ShopKind, object>>;

export const SHOP_KINDS = Object.keys(SHOP_SCHEMAS) as readonly ShopKind[];

/** A change of one record: what it is from now on, or null for one that is gone. */
export type RecordChange = {
  readonly [K in ShopKind]: { readonly kind: K; readonly id: string; readonly value: ShopRecords[K] | null };
}[ShopKind];

/** A shop as a file holds it: every record, and of each piece what is left. */
export interface ShopFile {
  readonly settings: ShopSettings;
  readonly films: readonly Film[];
  readonly stock: readonly StockPiece[];
  readonly mats: readonly MatCard[];
  readonly blades: readonly Blade[];
  readonly cutters: readonly CutterCard[];
  readonly tapes: readonly Tape[];
  readonly presses: readonly Press[];
  readonly makers: readonly Maker[];
  readonly blanks: readonly Blank[];
}

/** All that the shop keeps, with what a plan needs of it. */
export type WholeShop = ShopFile & Shop;

/** A shop that has nothing yet, but a cutter that is given files. */
export const EMPTY_SHOP: ShopFile = {
  settings: { id: SETTINGS_ID, name: 'Our shop', cutterId: 'cutter' },
  films: [],
  stock: [],
  mats: [],
  blades: [],
  cutters: [newCutter('cutter')],
  tapes: [],
  presses: [],
  makers: [],
  blanks: [],
};
