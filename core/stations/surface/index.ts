/*
 * What is decorated, and how large the design is made on it.
 */
export { surfaceSlice, type SurfaceDecisions, type SurfacePatch } from './decisions.js';
export { surfaceStage, withOverhang, type SurfaceOut } from './stage.js';
