/*
 * Which pieces of film carry a job's layers: what is decided of that, and what is said of it. Laying out itself is done in core/laying.
 */
export { sheetsSlice, type SheetsDecisions, type SheetsPatch } from './decisions.js';
export { sayFoilShort, sayHelp } from './say.js';
export { NEW_LONE_WISH, sheetsStage, wishAlone, type LayerToCut, type LoneBatch, type SheetsOut } from './stage.js';
