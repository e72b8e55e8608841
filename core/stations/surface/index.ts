/*
 * What is decorated, and how large the design is made on it.
 */
export { measuredOf, surfaceSlice, type SurfaceDecisions, type SurfacePatch } from './decisions.js';
export { sayUnit } from './say.js';
export { surfaceStage, withOverhang, type SurfaceOut } from './stage.js';
