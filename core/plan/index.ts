/*
 * The plan: the stages in their order, and what is shown of it to page, API and command line. The only room of core that knows all stations.
 */
export { exportBuild } from './export-build.js';
export type { OtherSize, RepeatWish, Replacement } from './change-parts.js';
export {
  jobCard,
  jobFigures,
  STATION_STATES,
  type JobFigures,
  type StationCard,
  type StationState,
} from './job-card.js';
export { layerSvg } from './layer-svg.js';
export type { DrawnPath } from './page/drawn-path.js';
export type {
  DrawnSheet,
  LaidSheetView,
  LayerToCutView,
  LayerView,
  LetterForms,
  PaintView,
  PartView,
  PlanView,
  PrepareView,
} from './page/plan-view.js';
export type { ArtworkOut, Plan } from './plan.js';
export { printJob, PRINT_ON, PRINTS, type JobPrint, type PrintOn } from './print-job.js';
export { builtWithOf, type JobSoFar } from './built-with.js';
export { Planner, type PlanHooks, type PlanInput } from './planner.js';
export { foilsReport, mapFigures, planReport, sheetSvg, type PlanReport } from './report.js';
