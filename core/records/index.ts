/*
 * What was cut: frozen sheets and their runs, what of them is whole, film used, and the estimate against what really happened.
 */
export { filmUse, type FilmUse } from './film-use.js';
export { packLists, unpackLists } from './packed-lists.js';
export { ENDED, type Run, type RunProgress, type RunState, type WholeOnPiece } from './run.js';
export type { FrozenGroup, FrozenSheet, SheetDecision, WeedPlace } from './sheet.js';
export { standings, takenCopies, type SheetStanding } from './standing.js';
export { contoursOfGroups, wholeOnPiece, wholeParts, type WholeMarks } from './whole.js';
