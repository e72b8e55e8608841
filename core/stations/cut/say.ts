import type { Film } from '../../shop/index.js';
import { listed, type Ruling } from '../../words/index.js';
import { filmsOfSheet, type FrozenSheet } from './frozen-sheet.js';

export function saySettings(film: Film): Ruling<never> {
  return {
    id: `cut.${film.id}`,
    stage: 'cut',
    subject: `Settings for ${film.name}`,
    sentence: `${film.name} is cut with {value} at ${film.speedMmS} mm/s.`,
    value: film.forceG,
    unit: 'g',
    because: ['The shop keeps these settings with the film. Make a test cut when the blade or the roll is new.'],
  };
}

export function sayNothingOpen(): string {
  return 'Every part of this sheet is whole. There is nothing left to cut.';
}

/** The films of a sheet by name. */
export function sayFilmsOfSheet(sheet: Pick<FrozenSheet, 'film' | 'zones'>): string {
  return listed(filmsOfSheet(sheet).map(({ name }) => name));
}
