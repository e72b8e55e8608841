/*
 * What is decorated, and how large the design is made on it.
 */
export { surfaceCheckStage, type LettersOnDesign } from './check-stage.js';
export { HANGS, measuredOf, SURFACE_KINDS, surfaceSlice, type Arc, type CompoundMeasures, type CylinderMeasures, type FlatMeasures, type Hangs, type SurfaceDecisions, type SurfaceKindName, type SurfacePatch, type TaperMeasures } from './decisions.js';
export { measureTroubles, type MeasureTrouble } from './measures.js';
export { sayFieldTroubles, sayRecipeTroubles } from './say-measures.js';
export { sayUnit, THING } from './say.js';
export { sayBeyondSlant, sayNoCone } from './say-measures.js';
export { surfaceStage, type SurfaceFigures, type SurfaceOut } from './stage.js';
export { warpStage } from './warp-stage.js';
export { wrapTemplate } from './wrap-template.js';
