/*
 * What the shop has: films and their families, pieces of them, mats, the cutter, and the settings it is told.
 */
export type { CutterProfile } from './cutter.js';
export { FILM_FAMILIES, type Film, type FilmFamily } from './film.js';
export type { FilmPiece, Mat } from './piece.js';
export { settingsFor } from './settings.js';
export type { Shop } from './shop.js';
