/*
 * What the cutter is told, and what was cut: frozen sheets and their runs, what of them is whole, film used.
 */
export { countGroups } from './count-groups.js';
export { filmUse, type FilmUse } from './film-use.js';
export {
  sheetToFreeze,
  restToFreeze,
  type CutInPart,
  type GroupToFreeze,
  type RestToFreeze,
  type SheetToFreeze,
} from './freeze-sheet.js';
export {
  carriesJob,
  copyWhereItBegan,
  filmOfGroup,
  filmsOfSheet,
  shareOfJob,
  type CopyVerdict,
  type FrozenGroup,
  type FrozenLeftover,
  type FrozenSheet,
  type FrozenZone,
  type SheetDecision,
  type WeedPlace,
} from './frozen-sheet.js';
export { copiesOnFilm, keyOfPlace, openPlaces, openParts, placesOnPiece, type CopyOnFilm } from './on-film.js';
export { packLists, unpackLists } from './packed-lists.js';
export {
  ENDED,
  farthestRun,
  tookFilm,
  type BookedRun,
  type Run,
  type RunProgress,
  type RunState,
  type WholeOnPiece,
} from './run.js';
export { sayFilmsOfSheet } from './say.js';
export { cutStage, programOf, type CutOut } from './stage.js';
export {
  copiesCut,
  cutSoFar,
  sheetsThatCount,
  standings,
  takenCopies,
  type SheetStanding,
  type SpoiledOfJob,
} from './standing.js';
export { whySpoiledStays, whyThrownAwayStays, type KeptWord } from './take-back.js';
export { weededSeconds } from './weeded.js';
export { contoursOfGroups, wholeOnPiece, wholeParts, type WholeMarks } from './whole.js';
