/*
 * What lies on which piece of film: every layer as often as copies of it are still to be cut.
 */
export { isLayered, turnsOf } from './direction.js';
export { groupOf, groupsFor, outlinesOf, placed, type Group } from './group.js';
export { edgesOf, fitsOn, loadableOf, roomOn, smallestFirst, type Loadable } from './loadable.js';
export { sheetsSlice, type SheetsDecisions, type SheetsPatch } from './decisions.js';
export type { CutSoFar, LayerToCut, PanelNumber, PlacedGroup, SheetGroup, SheetPlan, TakenCopies, TakenDirections } from './sheet-plan.js';
export { sheetsStage, type SheetsOut } from './stage.js';
