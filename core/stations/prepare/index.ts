/*
 * What is added so that the layers can be weeded and laid: marks, the weeding border, the weed map.
 */
export { prepareSlice, type PrepareDecisions, type PreparePatch } from './decisions.js';
export { SHAPE_CHOICES } from './say-marks.js';
export { prepareStage, type LearnedWeeding, type PreparedLayer, type PreparedPanel, type PrepareOut } from './stage.js';
