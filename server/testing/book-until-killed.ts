import { newFilm, type FilmPiece } from '../../core/shop/index.js';
import { openDatabase } from '../db/open-database.js';
import type { NewSheet } from '../stores/sheet-store.js';
import { storesOn } from './stores-on.js';

/* Cuts sheets of two rolls and puts what is left of them back, one after another, until it is killed; says each step as it is done. */

const [folder = '', round = ''] = process.argv.slice(2);
const db = await openDatabase(folder);
const { sheets, shop, runs } = storesOn(db);
// What was under way when it was killed is over.
await db('runs').whereNull('finished_at').update({ finished_at: 'killed', state: 'failed' });

const laid = { xMm: 0, yMm: 0, widthMm: 100, lengthMm: 10 };
const zone = (id: string) => ({
  ...laid,
  film: newFilm('tar', 'cast'),
  piece: {
    id,
    filmId: 'tar',
    kind: 'roll',
    number: null,
    widthMm: 500,
    lengthMm: 1,
    edgeMm: 5,
    quantity: 1,
  } satisfies FilmPiece,
});
const sheet: NewSheet = {
  batchId: null,
  film: newFilm('tar', 'cast'),
  piece: null,
  mat: null,
  zones: [zone('one'), zone('two')],
  usedLengthMm: 20,
  keptMm2: 1,
  filmMm2: 1,
  filmCost: 1,
  cutMm: 1,
  estimateSeconds: 1,
  pairsTotal: 10,
  restOf: null,
  jobs: [],
  weedWork: null,
  foils: [],
  leftovers: ['one', 'two', 'two'].map((pieceId) => ({ ...laid, pieceId, filmId: 'tar', edgeMm: 5, keep: true })),
  groups: [],
  program: {
    forceG: 1,
    speedMmS: 1,
    bladeOffsetMm: 0.25,
    overcutMm: 0,
    runs: [],
    wholeAt: new Int32Array(),
    partOf: new Int32Array(),
    outlines: [],
  },
};
for (let i = 0; ; i += 1) {
  const sheetId = await sheets.freeze(sheet);
  const { id } = await runs.create({ sheetId, who: '' });
  console.error('cut');
  await runs.save(id, {
    state: 'finished',
    message: '',
    pairsDone: 10,
    bearings: null,
    share: 1,
    actualSeconds: 1,
    whole: null,
  });
  const { revision } = await shop.get();
  const pieces = sheet.leftovers.map(({ filmId, widthMm, lengthMm }, n) => ({
    id: `${round}-${i}-${n}`,
    filmId,
    kind: 'offcut' as const,
    widthMm,
    lengthMm,
    edgeMm: 5,
    place: '',
    note: '',
    retired: false,
    worth: 1,
  }));
  await shop.putBack(pieces, sheetId, { revision, edit: `${round}-${i}`, who: '' });
  console.error('back');
}
