import type { Knex } from 'knex';
import { unpackLists } from '../../../core/stations/cut/index.js';

/*
 * What is judged is a copy of one job, no longer a run of a sheet that may carry several. A rest names the copy that each of its own completes, a copy how many its job
 * had asked for, a sheet what of the shop its jobs were built with, a broken-off run what of each copy is open, and a sheet what of it went back to the rack. The name of every edit is kept, so that one that is sent twice is
 * known for it.
 */

interface Group {
  readonly sheet_id: string;
  readonly position: number;
  readonly job_id: string;
  readonly copy: number;
  readonly film_id: string;
  readonly fingerprint: string;
  readonly contours: number;
  readonly marks: number;
  readonly borders: number;
}

export const copies: Knex.Migration = {
  async up(db) {
    await db.schema.createTable('copy_verdicts', (t) => {
      t.text('sheet_id').notNullable();
      t.integer('position').notNullable();
      t.text('verdict').notNullable();
      t.text('who').notNullable();
      t.text('judged_at').notNullable();
      t.primary(['sheet_id', 'position']);
      t.foreign(['sheet_id', 'position'])
        .references(['sheet_id', 'position'])
        .inTable('sheet_groups')
        .onDelete('CASCADE');
    });
    await db.schema.createTable('edits', (t) => {
      t.text('of').notNullable();
      t.text('name').notNullable();
      t.text('answer').notNullable();
      t.text('at').notNullable();
      t.primary(['of', 'name']);
    });
    await db.schema.createTable('sheet_jobs', (t) => {
      t.text('sheet_id').notNullable().references('sheets.id');
      t.text('job_id').notNullable().references('jobs.id').onDelete('CASCADE');
      t.text('built_with').notNullable();
      t.text('recipe').notNullable();
      t.primary(['sheet_id', 'job_id']);
      t.index(['job_id']);
    });
    // Not through the schema builder, which would make a table anew and with that delete what refers to it.
    await db.raw('alter table sheet_groups add column of_position integer');
    await db.raw('alter table sheet_groups add column asked integer');
    await db.raw('alter table sheets add column leftovers_back text');
    await db.raw(
      `insert or ignore into edits select id, last_edit, 'null', updated_at from jobs where last_edit is not null`,
    );
    for (const table of ['shop_history', 'stock_lines'])
      await db.raw(`insert or ignore into edits select 'shop', edit, 'null', at from ${table} where edit is not null`);
    await db.raw('alter table jobs drop column last_edit');
    await nameWhatRestsComplete(db);
    await openOfBrokenRuns(db);
    await keepLeftoversBack(db);
    await keepVerdicts(db);
    await db.raw('alter table runs drop column outcome');
  },
  async down() {
    throw new Error('What was said of copies cannot be said of runs; restore a backup instead.');
  },
};

/** The copy of its sheet that a copy of a rest completes: the same layer of the same job, with the same number. */
async function nameWhatRestsComplete(db: Knex): Promise<void> {
  const rests = (await db('sheets').whereNotNull('rest_of').select('id', 'rest_of')) as {
    id: string;
    rest_of: string;
  }[];
  for (const { id, rest_of: of } of rests) {
    const [own, whole] = [await groupsOf(db, id), await groupsOf(db, of)];
    const free = new Set(whole);
    for (const group of own) {
      const match = [...free].find(
        (one) => one.job_id === group.job_id && one.fingerprint === group.fingerprint && one.copy === group.copy,
      );
      if (!match) continue;
      free.delete(match);
      await db('sheet_groups')
        .where({ sheet_id: id, position: group.position })
        .update({ of_position: match.position });
    }
  }
}

async function groupsOf(db: Knex, sheetId: string): Promise<Group[]> {
  return (await db('sheet_groups').where({ sheet_id: sheetId }).orderBy('position')) as Group[];
}

/** Of each run that broke off, which parts of which copy are open: worked out from its program, as it is from now on when a run ends. */
async function openOfBrokenRuns(db: Knex): Promise<void> {
  const runs = (await db('runs')
    .whereIn('state', ['cancelled', 'failed'])
    .where('pairs_done', '>', 0)
    .whereNotNull('whole')
    .select('id', 'sheet_id', 'pairs_done', 'whole')) as {
    id: string;
    sheet_id: string;
    pairs_done: number;
    whole: string;
  }[];
  for (const run of runs) {
    const program = (await db('programs').where({ sheet_id: run.sheet_id }).first()) as {
      whole_at: Buffer;
      part_of: Buffer;
    };
    const [wholeAt, partOf] = [unpackLists(program.whole_at)[0]!, unpackLists(program.part_of)[0]!];
    let at = 0;
    const byCopy = (await groupsOf(db, run.sheet_id)).map(({ contours, marks, borders }) => {
      const isWhole: boolean[] = [];
      for (const end = at + contours + marks + borders; at < end; at += 1) {
        const part = partOf[at] ?? -1;
        if (part >= 0) isWhole[part] = (isWhole[part] ?? true) && wholeAt[at]! <= run.pairs_done;
      }
      return { parts: isWhole.length, open: isWhole.flatMap((whole, part) => (whole ? [] : [part])) };
    });
    const isAllWhole = byCopy.every(({ open }) => open.length === 0);
    const whole = { ...(JSON.parse(run.whole) as object), byCopy: isAllWhole ? null : byCopy };
    await db('runs')
      .where({ id: run.id })
      .update({ whole: JSON.stringify(whole) });
  }
}

/** What went back to the rack of a sheet, as large as its card says today. What was worth keeping was worth 0.7 of its film, a strip narrower than 150 mm 0.4. */
async function keepLeftoversBack(db: Knex): Promise<void> {
  const lines = (await db('stock_lines')
    .join('shop_records', 'shop_records.id', 'stock_lines.piece_id')
    .where({ kind: 'pieces', why: 'returned' })
    .whereNotNull('sheet_id')
    .whereNull('run_id')
    .select('sheet_id', 'piece_id', 'data')) as { sheet_id: string; piece_id: string; data: string }[];
  const bySheet = new Map<string, { pieceId: string; mm2: number; worth: number }[]>();
  for (const { sheet_id: id, piece_id: pieceId, data } of lines) {
    const { filmId, widthMm, lengthMm } = JSON.parse(data) as { filmId: string; widthMm: number; lengthMm: number };
    const film = (await db('shop_records').where({ kind: 'films', id: filmId }).first('data')) as
      { data: string } | undefined;
    const { costPerM2 } = film ? (JSON.parse(film.data) as { costPerM2: number }) : { costPerM2: 0 };
    const mm2 = widthMm * lengthMm;
    const worth = (mm2 / 1e6) * costPerM2 * (Math.min(widthMm, lengthMm) < 150 ? 0.4 : 0.7);
    bySheet.set(id, [...(bySheet.get(id) ?? []), { pieceId, mm2, worth }]);
  }
  for (const [id, back] of bySheet)
    await db('sheets')
      .where({ id })
      .update({ leftovers_back: JSON.stringify(back) });
}

/** What was said of a sheet's newest run is said of each of its copies; of a rest that was to be made again, of the copies that it completes, too. */
async function keepVerdicts(db: Knex): Promise<void> {
  const newest = new Map(
    (
      (await db('runs').orderBy('started_at').orderBy('rowid').select('sheet_id', 'outcome', 'started_at')) as {
        sheet_id: string;
        outcome: string | null;
        started_at: string;
      }[]
    ).map((run) => [run.sheet_id, run]),
  );
  const sheets = (await db('sheets').select('id', 'rest_of')) as { id: string; rest_of: string | null }[];
  const parentOf = new Map(sheets.map(({ id, rest_of: of }) => [id, of]));
  const say = (sheetId: string, position: number, verdict: string, at: string) =>
    db('copy_verdicts')
      .insert({ sheet_id: sheetId, position, verdict, who: '', judged_at: at })
      .onConflict(['sheet_id', 'position'])
      .merge();
  // What is spoiled is written last: it holds whatever was said of another piece of the same copy.
  const judged = [...newest.values()].filter(({ outcome }) => outcome !== null);
  for (const { sheet_id: id, outcome, started_at: at } of judged.sort((a, b) => a.outcome!.localeCompare(b.outcome!))) {
    const verdict = outcome === 'remake' ? 'spoiled' : 'good';
    for (const { position } of await groupsOf(db, id)) {
      await say(id, position, verdict, at);
      let [sheetId, place]: [string | null, number | null] = [id, position];
      while (verdict === 'spoiled' && sheetId !== null) {
        const group = (await db('sheet_groups').where({ sheet_id: sheetId, position: place }).first('of_position')) as {
          of_position: number | null;
        };
        [sheetId, place] = [parentOf.get(sheetId) ?? null, group.of_position];
        if (sheetId === null || place === null) break;
        await say(sheetId, place, verdict, at);
      }
    }
  }
}
