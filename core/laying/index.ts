/*
 * Lays prepared layers of one job or several on pieces and mats: which piece, what lies where, in which passes. It knows no recipe and says no sentence.
 */
export { isLayered } from './direction.js';
export { groupsFor, placed, type Group } from './group.js';
export { itemsOf, toCutOf } from './items.js';
export type { JobToLay, PanelNumber } from './job-to-lay.js';
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
export { layJobs, type BetterSoFar, type LayJobsHooks } from './lay-jobs.js';
export { NEW_LAY_WISH, SHEET_ORDERS, type LayWish, type SheetOrder } from './lay-wish.js';
export { foilViews, leftoverViews, type FoilView, type LeftoverView } from './leftover-view.js';
export { edgesOf, fitsOn, roomOn, smallestFirst, type Loadable } from './loadable.js';
export { onPieces, type OnPiece } from './on-pieces.js';
export { numberOf, panelsOn } from './panels-on.js';
export { roomsOf } from './rooms.js';
export { longestOf } from './sections.js';
export { neighboursOf } from './shared-borders.js';
export {
  mirroredFilms,
  type CutSoFar,
  type LaidPlace,
  type LaidSheets,
  type Leftover,
  type MissingFoil,
  type Pin,
  type PlacedGroup,
  type SheetGroup,
  type SheetPlan,
  type SheetZone,
  type Shortage,
  type TakenCopies,
  type TakenDirections,
  type Section,
} from './sheet-plan.js';
