import type { Knex } from 'knex';

/*
 * Films carry how far their edges draw back, how well they hide, and what their glue is like. Adhesive films had a shrink in percent, which
 * says nothing of a film that is stuck down; pressed ones keep theirs. Sheets that were cut show their film as well, so theirs is completed.
 */

interface OldFilm {
  readonly family: string;
  readonly shrinkPct: number;
  readonly thinnestMm: number;
}

/** By family: edges that draw back indoors and in the sun, mm; how well it hides, %. As they stood when this version shipped. */
const FAMILIES: Readonly<Record<string, readonly [indoorsMm: number, sunMm: number, opacityPct: number]>> = {
  calendered: [0.12, 0.3, 95],
  cast: [0.04, 0.07, 92],
  translucent: [0.12, 0.25, 40],
  reflective: [0.1, 0.15, 100],
  textured: [0.1, 0.15, 100],
  heatTransfer: [0, 0, 95],
  flock: [0, 0, 100],
  dyeTransfer: [0, 0, 0],
  stencil: [0, 0, 95],
};
const PRESSED: readonly string[] = ['heatTransfer', 'flock', 'dyeTransfer'];
/** Cast films began with this, and no maker's sheet says so. */
const CAST_THINNEST_MM = { before: 0.8, now: 1 };

function completed(json: string): string {
  const film = JSON.parse(json) as OldFilm;
  const [drawBackIndoorsMm, drawBackSunMm, opacityPct] = FAMILIES[film.family] ?? [0.12, 0.3, 95];
  const isPressed = PRESSED.includes(film.family);
  const thinnestMm =
    film.family === 'cast' && film.thinnestMm === CAST_THINNEST_MM.before ? CAST_THINNEST_MM.now : film.thinnestMm;
  const adhesive = isPressed ? null : film.family === 'stencil' ? 'removable' : 'permanent';
  return JSON.stringify({
    ...film,
    thinnestMm,
    drawBackIndoorsMm,
    drawBackSunMm,
    opacityPct,
    shrinkPct: isPressed ? film.shrinkPct : 0,
    adhesive,
    adhesiveColour: isPressed ? null : 'clear',
  });
}

export const films: Knex.Migration = {
  async up(db) {
    for (const { id, data } of await db<{ id: string; data: string }>('films'))
      await db('films')
        .where({ id })
        .update({ data: completed(data) });
    for (const { id, film } of await db<{ id: string; film: string }>('sheets').select('id', 'film'))
      await db('sheets')
        .where({ id })
        .update({ film: completed(film) });
  },
  async down() {
    throw new Error('What films were told to shrink by is not known any more; restore a backup instead.');
  },
};
