/*
 * What is added so that the layers can be weeded and laid: marks, the weeding border, the weed map.
 */
export { prepareSlice, type PrepareDecisions, type PreparePatch } from './decisions.js';
export { prepareStage, type PreparedLayer, type PreparedPanel, type PrepareOut } from './stage.js';
