/*
 * Painted areas become layers of film: what shows of each, and what is cut by the chosen school. Everything is in mm at the
 * size of the job; a build is never scaled.
 */
export { buildLayers, cutWhole, type BuildOptions, type PairBuild } from './build-layers.js';
export { colourFamilies, withFamilies, type ColourFamily } from './colour-families.js';
export {
  checkLayers,
  checkPaints,
  NEAR_COLOUR,
  type CheckedLayer,
  type LayerTrouble,
  type PaintTrouble,
} from './check.js';
export { contactsOf, neighboursOf, type LayerContact, type Neighbours } from './contacts.js';
export { withoutCrumbs, type Crumbless } from './crumbs.js';
export { crossSection, type SectionBar } from './cross-section.js';
export {
  gapTrial,
  type GapTrial,
  type GapTrialOptions,
  type GapTrialTerms,
  type HeatSpot,
  type PairTerms,
} from './gap-trial.js';
export type { Build, BuiltLayer, Crumbs, LayerPaint, School, Separation, VisibleLayer } from './layer.js';
export { joinPieces, type JoinedPieces } from './join-pieces.js';
export {
  bridged,
  knockedOut,
  leastBridging,
  leastForBridges,
  leastForOnePiece,
  mostApart,
  outlineArea,
  type OutlineJoin,
} from './outline.js';
export {
  BARE,
  meantColour,
  putRight,
  unseenAreas,
  type ColouredArea,
  type PaintRemedies,
  type UnseenArea,
} from './put-right.js';
export { withoutFineParts, type CuttableSeparation } from './fine-parts.js';
export { lapOf, recompose } from './recompose.js';
export { relabelled, separate } from './separate.js';
export { narrowGaps, thinnestPart, thinParts } from './thin-parts.js';
export { touchUp, type CutRemedies, type TouchedLayer } from './touch-up.js';
export {
  CAREFUL_MM,
  LAYINGS,
  LEAST_TRAP_MM,
  placementErrorMm,
  trapWidth,
  type Laying,
  type TrapForm,
  type TrapTerms,
  type TrapWidth,
} from './trap.js';
