/*
 * What the shop has: films and their families, what they bear where they live, pieces of them, mats, the cutter, and the settings it is told.
 */
export type { CutterProfile } from './cutter.js';
export { FILM_FAMILIES, wayOf, type Adhesive, type Film, type FilmFamily, type FilmWay } from './film.js';
export { drawBackMm, durableMm, LIVES, type Lives } from './lives.js';
export type { FilmPiece, Mat } from './piece.js';
export { settingsFor } from './settings.js';
export type { Shop } from './shop.js';
