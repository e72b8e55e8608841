/*
 * plan(): the stages in their order. The only part of core that may know them all.
 */
export { settingsFor } from './settings.js';
export { schoolsSideBySide, tryGaps, type SchoolFigures, type TrialAnswer, type TrialWish } from './trials.js';
export type { PairPlan } from './pairs.js';
export { Planner, type PlanHooks, type PlanInput } from './make-plan.js';
export type { ReadPart } from './artwork-stage.js';
export type { Replacement } from './change-parts.js';
export { planReport, sheetSvg, type PlanReport } from './report.js';
export type { TakenCopies } from './sheets-stage.js';
export { restToFreeze, sheetToFreeze, type CutInPart, type SheetToFreeze } from './frozen-sheet.js';
export { exportBuild, EXPORT_FORMATS, type ExportFormat } from './export-build.js';
export { layerSvg } from './layer-svg.js';
export type {
  ArtworkStage,
  ColourUse,
  LayerToCut,
  Plan,
  PlacedGroup,
  PlanLayer,
  PreparedLayer,
  SheetPlan,
  SheetsStage,
} from './plan.js';
