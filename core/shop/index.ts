/*
 * What the shop has: films and their families, what they bear where they live, pieces of them and the book of what is left, tools, makers and
 * blanks, and the settings that a cutter is told.
 */
export { BLADE_ANGLES, type Blade } from './blade.js';
export {
  BLANK_KINDS,
  HELD,
  MATTERS,
  MEASURED_WITH,
  MEASURES,
  measureOf,
  newBlank,
  type Blank,
  type BlankReading,
  type BlankTrial,
  type Measure,
} from './blank.js';
export { newCutter, type CutterCard, type CutterProfile } from './cutter.js';
export {
  ADHESIVE_COLOURS,
  ADHESIVES,
  FILM_FAMILIES,
  FILM_SCHEMA,
  FINISHES,
  newFilm,
  PEELS,
  PRESSURES,
  STRIP_BULK,
  STRIP_BULK_MM,
  wayOf,
  type Adhesive,
  type Film,
  type FilmFamily,
  type FilmWay,
  type Pattern,
  type PressFigures,
} from './film.js';
export { cutFilmOf, filmsToChoose, FOIL_OVERHANG_MM, isFoil, isHeatAdhesive } from './foil.js';
export {
  isKept,
  leftoversAround,
  leftoversOf,
  LEFTOVER_RULE,
  worthOf,
  type LaidRectangle,
  type LeftoverRule,
  type Rectangle,
} from './leftovers.js';
export { drawBackMm, durableMm, LIVES, type Lives } from './lives.js';
export { HANDS, newMaker, type Maker } from './maker.js';
export { fieldOf, type Mat, type MatCard } from './mat.js';
export type { Picture } from './picture.js';
export {
  areaLeft,
  asFilmPiece,
  PIECE_KINDS,
  type FilmPiece,
  type PieceCard,
  type PieceKind,
  type StockPiece,
} from './piece.js';
export { parseShop, SHOP_FILE_SCHEMA } from './parse-shop.js';
export { cutterInUse, shopForPlans, wholeShop } from './shop-for-plans.js';
export { PRESS_KINDS, type Press } from './press.js';
export { settingsFor } from './settings.js';
export {
  EMPTY_SHOP,
  SETTINGS_ID,
  SHOP_KINDS,
  SHOP_SCHEMAS,
  type RecordChange,
  type Shop,
  type ShopFile,
  type ShopKind,
  type ShopRecords,
  type ShopSettings,
  type WholeShop,
} from './shop.js';
export { startingSet } from './starting-set.js';
export {
  amountOf,
  MOST,
  STOCK_ACTS,
  STOCK_WHYS,
  toThousandth,
  type StockAct,
  type StockLine,
  type StockWhy,
} from './stock-book.js';
export { leftOfFilms, shortFilms, type ShortFilm } from './stock-levels.js';
export { TACKS, TAPE_MATTERS, type Tape } from './tape.js';
export { CLOTH, familyToBuy, filmsToRule, isSpecial, wayOn, whyUnsuited, type Ground } from './suits.js';
export { saySideUp, sayWhyMirrored, SIDES_UP, sideUpOf, type SideUp } from './side-up.js';
