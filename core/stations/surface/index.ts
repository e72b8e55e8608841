/*
 * What is decorated, and how large the design is made on it.
 */
export { surfaceCheckStage, type LettersOnDesign } from './check-stage.js';
export {
  groundOf,
  HANGS,
  LONGEST_DESIGN_MM,
  measuredOf,
  MOST_COPIES_ON_BOARD,
  MOST_MEMBERS,
  NAME_WIDEST_MM,
  SURFACE_KINDS,
  surfaceSlice,
  type Arc,
  type CompoundMeasures,
  type CylinderMeasures,
  type FlatMeasures,
  type GarmentMeasures,
  type Hangs,
  type OtherDesign,
  type Several,
  type SizeWanted,
  type SurfaceDecisions,
  type SurfaceKindName,
  type SurfacePatch,
  type TaperMeasures,
  type Team,
  type TeamMember,
} from './decisions.js';
export { instancesOf, type Instance } from './instances.js';
export { fromBlank, newReadings, readingsOf, workedBefore, type TakenReading } from './from-blank.js';
export { measureTroubles, type MeasureTrouble } from './measures.js';
export { sayFieldTroubles, sayRecipeTroubles } from './say-measures.js';
export { sayUnit, THING } from './say.js';
export { sayBeyondSlant, sayNoCone } from './say-measures.js';
export { designsOnOne, partsInDesigns, type DesignOnThing, type DesignParts } from './several.js';
export { sayDesignName } from './say-several.js';
export { severalWish, surfaceStage, type OwnDesign, type SurfaceFigures, type SurfaceOut } from './stage.js';
export { LARGER_WORK } from './say.js';
export { warpStage } from './warp-stage.js';
export { sayCondensed } from './say-garment.js';
export { readTeam, type TeamRead } from './team-list.js';
export { wrapTemplate } from './wrap-template.js';
