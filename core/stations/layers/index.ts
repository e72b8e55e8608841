/*
 * How the layers are built: taken apart by film, their order, schools and traps pair by pair, outlines and knock-outs, and what is
 * wrong with the result.
 */
export { checkStage, type Checks } from './check-stage.js';
export {
  ALL_HOLES_MM,
  buildSlice,
  CONTOUR_SIDES,
  newKnockOut,
  newOutline,
  OUTLINE_EACH,
  type Around,
  type Base,
  type BlockOut,
  type BuildDecisions,
  type BuildPatch,
  type Contour,
  type KnockOut,
  type Outline,
  type OutlineEach,
  type PairDecision,
} from './decisions.js';
export { clipOfPanel, layersOnPanel } from './panel-layers.js';
export { panelsStage, type DesignApart, type Panel, type PanelsOut } from './panels-stage.js';
export { carefulMm, type RuledPair } from './pairs.js';
export {
  LOWEST_MORE_MM,
  markSizeOf,
  reachOfPreparation,
  ruledBorderMm,
  ruledGapMm,
  type PreparationWanted,
} from './reach.js';
export { separateStage, type Separated } from './separate-stage.js';
export { buildStage, type BuildOut, type JobLayer, type PairPlan } from './stage.js';
export { touchesUp, touchUpStage } from './touch-up-stage.js';
export {
  schoolsSideBySide,
  tryGaps,
  type SchoolFigures,
  type SchoolsGround,
  type TrialAnswer,
  type TrialGround,
  type TrialWish,
} from './trials.js';
export { framingFilms, withFramingFilms } from './framing-films.js';
export { ruledOutlineEach } from './outline-each.js';
