/*
 * How the layers come together: the steps, in the right order for the way the maker works.
 */
export { assembleSlice, type AssembleDecisions, type AssemblePatch } from './decisions.js';
export type { AssemblyStep } from './say.js';
export { assembleStage, type AssembleOut } from './stage.js';
