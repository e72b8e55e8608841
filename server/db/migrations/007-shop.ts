import type { Knex } from 'knex';

/*
 * The shop is kept in the application: every record of it in one table with a history, what is left of each piece as the sum of a book whose
 * lines are never changed, and of every run who was at work and with which blade. Films carry more than before; sheets that were cut show their
 * film and piece, so theirs are completed as well.
 */

interface Row {
  readonly id: string;
  readonly data: string;
}

interface OldPiece {
  readonly id: string;
  readonly filmId: string;
  readonly kind: 'roll' | 'sheet' | 'offcut';
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly quantity: number;
  readonly edgeMm: number;
}

/** By family, as they stood when this version shipped: °C, seconds, pressure, peel, tack seconds, seconds it bears, least °C. */
const PRESSED: Readonly<
  Record<string, readonly [number, number, string, string, number | null, number | null, number]>
> = {
  heatTransfer: [150, 12, 'medium', 'warm', 2, 60, 140],
  heatGlitter: [160, 15, 'medium', 'warm', 2, 60, 150],
  flock: [160, 16, 'medium', 'cold', 2, 60, 150],
  puff: [155, 9, 'light', 'hot', 2, 60, 150],
  foil: [150, 6, 'medium', 'cold', 2, 40, 140],
  dyeTransfer: [185, 240, 'medium', 'hot', null, null, 180],
};
const LAYING_MIN_C = 10;
const LIGHTFAST_YEARS: Readonly<Record<string, number>> = {
  calendered: 2,
  polymeric: 5,
  cast: 8,
  translucent: 3,
  reflective: 5,
  textured: 3,
};
/** Every older version called the shop so at the head of the page. */
const NAME = 'Halyard & Wick';

function completedFilm(json: string): string {
  const film = JSON.parse(json) as { family: string };
  const figures = PRESSED[film.family];
  const [tempC, seconds, pressure, peel, tackSeconds, bearsSeconds, leastC] = figures ?? [];
  const press = figures ? { tempC, seconds, pressure, peel, tackSeconds, bearsSeconds, leastC } : null;
  return JSON.stringify({
    layingMinC: press ? null : LAYING_MIN_C,
    press,
    lightfastYears: LIGHTFAST_YEARS[film.family] ?? null,
    pattern: null,
    supplier: '',
    article: '',
    note: '',
    reorderM2: 0,
    retired: false,
    ...film,
  });
}

/** Offcuts have numbers now; those of sheets that were cut had none. */
function completedPiece(json: string | null): string | null {
  return json && JSON.stringify({ number: null, ...(JSON.parse(json) as object) });
}

export const shop: Knex.Migration = {
  async up(db) {
    await db.schema
      .createTable('shop_records', (t) => {
        t.text('kind').notNullable();
        t.text('id').notNullable();
        t.integer('rank').notNullable();
        t.text('data').notNullable();
        t.integer('revision').notNullable();
        t.primary(['kind', 'id']);
      })
      .createTable('shop_history', (t) => {
        t.integer('position').primary();
        t.text('changes').notNullable();
        t.text('at').notNullable();
        t.text('who').notNullable();
        t.text('edit').unique();
      })
      .createTable('stock_lines', (t) => {
        t.increments('id');
        t.text('piece_id').notNullable().index();
        t.text('at').notNullable();
        t.text('who').notNullable();
        t.text('why').notNullable();
        t.float('amount').notNullable();
        t.text('note').notNullable();
        t.text('sheet_id').references('sheets.id');
        t.text('run_id');
        t.integer('takes_back').unique().references('stock_lines.id');
        t.integer('revision').notNullable();
        t.text('edit').unique();
        t.unique(['run_id', 'why']);
      });
    for (const act of ['update', 'delete'])
      await db.raw(
        `create trigger stock_lines_no_${act} before ${act} on stock_lines begin select raise(abort, 'The stock book is only added to.'); end`,
      );
    await db.schema.alterTable('shop_state', (t) => t.integer('position').notNullable().defaultTo(0));
    await db.schema.alterTable('runs', (t) => {
      t.text('blade_id');
      t.text('who').notNullable().defaultTo('');
    });
    await takeOver(db);
    for (const table of ['pieces', 'films', 'mats', 'cutters']) await db.schema.dropTable(table);
    for (const { id, film, piece } of await db<{ id: string; film: string; piece: string | null }>('sheets').select(
      'id',
      'film',
      'piece',
    ))
      await db('sheets')
        .where({ id })
        .update({ film: completedFilm(film), piece: completedPiece(piece) });
  },
  async down() {
    throw new Error('The stock book cannot be unwritten; restore a backup instead.');
  },
};

async function takeOver(db: Knex): Promise<void> {
  const { revision } = (await db<{ revision: number }>('shop_state').first())!;
  const add = (kind: string, rows: readonly Row[]) =>
    db.batchInsert(
      'shop_records',
      rows.map(({ id, data }, rank) => ({ kind, id, rank, data, revision })),
      50,
    );
  const laid = (row: Row, more: object): Row => ({
    id: row.id,
    data: JSON.stringify({ ...(JSON.parse(row.data) as object), ...more }),
  });
  const films = (await db<Row>('films').orderBy('rank')).map((row) => ({ id: row.id, data: completedFilm(row.data) }));
  const pieces = (await db<Row>('pieces').orderBy('id')).map((row) => JSON.parse(row.data) as OldPiece);
  const cutters = (await db<Row>('cutters').orderBy('id')).map((row) => laid(row, { bladeId: null, retired: false }));
  let number = 0;
  const cards = pieces.map(({ quantity: _quantity, ...piece }) => ({
    ...piece,
    number: piece.kind === 'offcut' ? (number += 1) : null,
    place: '',
    note: '',
    retired: false,
  }));
  await add('films', films);
  await add(
    'pieces',
    cards.map((card) => ({ id: card.id, data: JSON.stringify(card) })),
  );
  await add(
    'mats',
    (await db<Row>('mats').orderBy('id')).map((row) => laid(row, { usesBefore: 0, retired: false })),
  );
  await add('cutters', cutters);
  if (cutters[0])
    await add('settings', [{ id: 'shop', data: JSON.stringify({ id: 'shop', name: NAME, cutterId: cutters[0].id }) }]);
  const at = new Date().toISOString();
  const lines = pieces.map(({ id, kind, lengthMm, quantity }) => ({
    piece_id: id,
    at,
    who: '',
    why: 'received',
    amount: kind === 'roll' ? lengthMm * Math.min(1, quantity) : quantity,
    note: 'What was left when the stock book began',
    revision,
  }));
  await db.batchInsert('stock_lines', lines, 50);
}
