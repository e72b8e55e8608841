import type { Film } from '../shop/index.js';
import type { LaidSheets, Shortage } from '../laying/index.js';
import { sayFoilShort, sayHelp } from '../stations/sheets/index.js';

export function saySheetChanged(): string {
  return 'This sheet has changed: one of its jobs, the films, or what is cut of them are not the same any more. Nothing was cut. Look at the sheet again, then cut it.';
}

export function sayBlocked(why: string): string {
  return `Nothing was cut, because something stops this job: ${why}`;
}

/** Of what there is not enough, in a sentence, and the spacing that would help. */
export interface ShortageView {
  readonly filmId: string;
  readonly message: string;
  readonly spacingMm: number | null;
}

/** All that is short, films first. `titles` are those of the jobs. */
export function shortages(
  { short, missingFoil }: Pick<LaidSheets, 'short' | 'missingFoil'>,
  titles: readonly string[],
): readonly ShortageView[] {
  return [
    ...short.map((one) => ({ filmId: one.film.id, message: sayShortage(one, titles), spacingMm: one.spacingMm })),
    ...missingFoil.map((one) => ({ filmId: one.film.id, message: sayFoilShort(one), spacingMm: null })),
  ];
}

/** What is short, by how much, and what would help. `titles` are those of the jobs. */
function sayShortage({ film, missing, ...help }: Shortage, titles: readonly string[]): string {
  const what = missing.map(
    ({ job, quantity }) => `${quantity === 1 ? 'a layer' : `${quantity} layers`} of “${titles[job]}”`,
  );
  return `There is not enough ${film.name} for ${what.join(', ')}. ${sayHelp(help)}`.trim();
}

export function sayNotTurnedSo({ name }: Film, isDirected: boolean): string {
  return isDirected
    ? `${name} has a direction, or belongs to a design that has one. It cannot be turned.`
    : 'All layers of one design lie in one direction, so this one can be turned by half only.';
}

export function sayNoPlaceNearer(): string {
  return 'It stays where it was. Nearer to where you let it go there is no free place on this piece: what lies there, or the edge of the film, is in the way. Move what is in the way first.';
}

export function sayNoRoomThere(): string {
  return 'There is no room for it on this piece beside what was laid by hand before. Let some of that go first.';
}
