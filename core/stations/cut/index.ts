/*
 * What the cutter is told, and what was cut: frozen sheets and their runs, what of them is whole, film used.
 */
export { filmUse, type FilmUse } from './film-use.js';
export {
  planToFreeze,
  restToFreeze,
  sheetToFreeze,
  type CutInPart,
  type GroupToFreeze,
  type ReadyToCut,
  type RestToFreeze,
  type SheetToFreeze,
} from './freeze-sheet.js';
export {
  carriesJob,
  filmOfGroup,
  filmsOfSheet,
  shareOfJob,
  type FrozenGroup,
  type FrozenLeftover,
  type FrozenSheet,
  type FrozenZone,
  type SheetDecision,
  type WeedPlace,
} from './frozen-sheet.js';
export { packLists, unpackLists } from './packed-lists.js';
export { ENDED, type Run, type RunProgress, type RunState, type WholeOnPiece } from './run.js';
export { sayFilmsOfSheet } from './say.js';
export { cutStage, programOf, type CutOut } from './stage.js';
export { copiesCut, cutSoFar, standings, takenCopies, type SheetStanding, type SpoiledOfJob } from './standing.js';
export { weededSeconds } from './weeded.js';
export { contoursOfGroups, wholeOnPiece, wholeParts, type WholeMarks } from './whole.js';
