/*
 * Every colour of the artwork and the film it is cut from.
 */
export { filmsSlice, type FilmsDecisions, type FilmsPatch } from './decisions.js';
export { filmsBetween, newColour } from './film-way.js';
export { filmsStage, type ColourUse, type FilmsOut } from './stage.js';
