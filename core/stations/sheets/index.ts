/*
 * What lies on which piece of film, of one job or of several together, in which passes of the cutter.
 */
export { isLayered, turnsOf } from './direction.js';
export { groupOf, groupsFor, outlinesOf, placed, type Group } from './group.js';
export { itemsOf, toCutOf, type JobToLay } from './items.js';
export {
  BoxesOf,
  drawnIn,
  loadablesOf,
  nestItemOf,
  nestSheetOf,
  rackOf,
  type LayItem,
  type ShopToLay,
} from './lay-film.js';
export { laySheets, shopFor, type BetterSoFar, type LaySheetsHooks } from './lay-sheets.js';
export { foilViews, leftoverViews, type FoilView, type LeftoverView } from './leftover-view.js';
export { NEW_LAY_WISH, SHEET_ORDERS, type LayWish, type SheetOrder } from './lay-wish.js';
export { edgesOf, fitsOn, loadableOf, roomOn, smallestFirst, type Loadable } from './loadable.js';
export { onPieces, type OnPiece } from './on-pieces.js';
export { panelsOn } from './panels-on.js';
export { longestOf } from './sections.js';
export { sayFoilShort, sayHelp } from './say.js';
export { neighboursOf } from './shared-borders.js';
export { sheetsSlice, type SheetsDecisions, type SheetsPatch } from './decisions.js';
export type {
  CutSoFar,
  FoilOnSheet,
  LaidPlace,
  LaidSheets,
  LayerToCut,
  Leftover,
  MissingFoil,
  PanelNumber,
  Pin,
  PlacedGroup,
  Section,
  SheetGroup,
  SheetPlan,
  SheetZone,
  Shortage,
  TakenCopies,
  TakenDirections,
  Unplaced,
} from './sheet-plan.js';
export { sheetsStage, type SheetsOut } from './stage.js';
export { mirroredFilms } from './sheet-plan.js';
