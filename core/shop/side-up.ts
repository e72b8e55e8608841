import { wayOf, type Film } from './film.js';

/** Which side of a film lies up when it is cut, by its family. Source: trade practice. */
export const SIDES_UP = ['film', 'adhesive', 'coloured'] as const;
export type SideUp = (typeof SIDES_UP)[number];

/** Films that are pressed lie carrier down and are cut from their back; dye sheets lie liner down, coloured side up; all others lie liner down, film side up. */
export function sideUpOf(film: Pick<Film, 'family'>): SideUp {
  if (film.family === 'dyeTransfer') return 'coloured';
  return wayOf(film) === 'press' ? 'adhesive' : 'film';
}

const LIES: Readonly<Record<SideUp, string>> = {
  film: 'liner down, film side up',
  adhesive: 'carrier down, adhesive side up',
  coloured: 'liner down, coloured side up',
};

const WHY_MIRRORED: Readonly<Record<SideUp, string>> = {
  film: 'it goes inside the glass',
  adhesive: 'it is cut from its back',
  coloured: 'it is laid face down',
};

/** How a film lies when it is cut, as it is said everywhere: “carrier down, adhesive side up, cut mirrored: it is cut from its back”. */
export function saySideUp(film: Pick<Film, 'family'>, isMirrored: boolean): string {
  const side = sideUpOf(film);
  return isMirrored ? `${LIES[side]}, cut mirrored: ${WHY_MIRRORED[side]}` : LIES[side];
}

const SAID_MIRRORED: Readonly<Record<SideUp, string>> = {
  film: 'This film is cut from its back and turned over when it is put on.',
  adhesive: 'This film lies adhesive side up, is cut from its back, and is turned over when it is pressed.',
  coloured: 'This sheet lies coloured side up, and is laid face down when it is pressed.',
};

/** Why a film is cut as a mirror image. */
export function sayWhyMirrored(film: Pick<Film, 'family'>, isInside: boolean): string {
  return isInside ? 'It goes inside the glass and is read from outside.' : SAID_MIRRORED[sideUpOf(film)];
}
