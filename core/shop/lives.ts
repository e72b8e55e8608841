import type { Film } from './film.js';

/** Where finished work spends its life. All but indoors counts as sun. */
export const LIVES = ['indoors', 'outdoors', 'washed', 'walked-on'] as const;
export type Lives = (typeof LIVES)[number];

/** Weedable is not durable: strokes thinner than this lift in time, mm (docs/films.md). */
const DURABLE_MM: Readonly<Record<Lives, number>> = { indoors: 0, outdoors: 2, washed: 2, 'walked-on': 5 };

/** How far each edge of a film draws back where it lives, mm. */
export function drawBackMm(film: Pick<Film, 'drawBackIndoorsMm' | 'drawBackSunMm'>, lives: Lives): number {
  return lives === 'indoors' ? film.drawBackIndoorsMm : film.drawBackSunMm;
}

/** The thinnest stroke that lasts where the work lives, mm; never less than can be weeded. */
export function durableMm(film: Pick<Film, 'thinnestMm'>, lives: Lives): number {
  return Math.max(film.thinnestMm, DURABLE_MM[lives]);
}
