import type { CutterProfile } from './cutter.js';
import type { Film } from './film.js';
import type { FilmPiece, Mat } from './piece.js';

/** What the shop has: films, pieces of them, mats, and the cutter. */
export interface Shop {
  readonly films: readonly Film[];
  readonly mats: readonly Mat[];
  readonly pieces: readonly FilmPiece[];
  readonly cutter: CutterProfile;
}
