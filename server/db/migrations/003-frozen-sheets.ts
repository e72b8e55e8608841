import { createHash, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { packLists } from '../../../core/stations/cut/index.js';

/*
 * Sheets that were sent to the cutter are kept as they were; runs refer to them, and their programs lie apart. Revisions only grow. Older runs
 * become sheets of what was known of them: film, program, figures. What of the job they were is not known, so they never fit today's plan.
 */

interface OldRun {
  readonly id: string;
  readonly job_id: string;
  readonly sheet: number;
  readonly film_id: string;
  readonly state: string;
  readonly message: string;
  readonly program: string;
  readonly pairs_total: number;
  readonly pairs_done: number;
  readonly pairs_base: number | null;
  readonly boot: number | null;
  readonly meter_ms: number | null;
  readonly estimate_seconds: number;
  readonly actual_seconds: number | null;
  readonly cut_mm: number;
  readonly film_mm2: number;
  readonly film_cost: number;
  readonly outcome: string | null;
  readonly note: string;
  readonly started_at: string;
  readonly finished_at: string | null;
}

/** Safe edge of pieces and mats that have none yet, mm. */
const EDGE_MM = 5;

export const frozenSheets: Knex.Migration = {
  async up(db) {
    await db.schema
      .createTable('sheets', (t) => {
        t.text('id').primary();
        t.text('created_at').notNullable();
        t.text('film').notNullable();
        t.text('piece');
        t.text('mat');
        t.float('used_length_mm').notNullable();
        t.float('kept_mm2').notNullable();
        t.float('film_mm2').notNullable();
        t.float('film_cost').notNullable();
        t.float('cut_mm').notNullable();
        t.float('estimate_seconds').notNullable();
        t.integer('pairs_total').notNullable();
        t.text('rest_of').references('sheets.id');
        t.text('decided');
        t.text('decided_at');
      })
      .createTable('sheet_groups', (t) => {
        t.text('sheet_id').notNullable().references('sheets.id');
        t.integer('position').notNullable();
        t.text('job_id').notNullable().references('jobs.id').onDelete('CASCADE');
        t.integer('revision');
        t.integer('copy').notNullable();
        t.text('fingerprint').notNullable();
        t.text('matrix').notNullable();
        t.integer('contours').notNullable();
        t.integer('marks').notNullable();
        t.integer('borders').notNullable();
        t.text('weed_places').notNullable();
        t.primary(['sheet_id', 'position']);
        t.index(['job_id']);
      })
      .createTable('programs', (t) => {
        t.text('sheet_id').primary().references('sheets.id');
        t.float('force_g').notNullable();
        t.float('speed_mm_s').notNullable();
        t.float('blade_offset_mm');
        t.float('overcut_mm');
        t.binary('runs').notNullable();
        t.binary('whole_at').notNullable();
        t.binary('part_of').notNullable();
        t.binary('outlines').notNullable();
      })
      .createTable('weed_ticks', (t) => {
        t.text('sheet_id').notNullable();
        t.integer('position').notNullable();
        t.text('kind').notNullable();
        t.float('x_mm').notNullable();
        t.float('y_mm').notNullable();
        t.text('ticked_at').notNullable();
        t.primary(['sheet_id', 'position', 'kind', 'x_mm', 'y_mm']);
        t.foreign(['sheet_id', 'position'])
          .references(['sheet_id', 'position'])
          .inTable('sheet_groups')
          .onDelete('CASCADE');
      })
      .createTable('shop_state', (t) => {
        t.integer('id').primary();
        t.integer('revision').notNullable();
      });
    await db('shop_state').insert({ id: 1, revision: 1 });
    await db.schema.alterTable('jobs', (t) => {
      t.integer('revision').notNullable().defaultTo(0);
      t.text('last_edit');
      t.text('cut_key');
      t.text('to_cut');
    });
    await db.raw(
      'update jobs set revision = max(position, coalesce((select max(position) from recipes where job_id = jobs.id), 0))',
    );
    await keepOldRuns(db);
    await keepOldJobsCut(db);
    for (const table of ['pieces', 'mats']) {
      for (const { id, data } of await db<{ id: string; data: string }>(table))
        await db(table)
          .where({ id })
          .update({ data: JSON.stringify({ edgeMm: EDGE_MM, ...(JSON.parse(data) as object) }) });
    }
  },
  async down() {
    throw new Error('Sheets that were cut cannot be unkept; restore a backup instead.');
  },
};

async function keepOldRuns(db: Knex): Promise<void> {
  await db.schema.renameTable('runs', 'old_runs');
  await db.schema.createTable('runs', (t) => {
    t.text('id').primary();
    t.text('sheet_id').notNullable().references('sheets.id');
    t.text('state').notNullable();
    t.text('message').notNullable();
    t.integer('pairs_done').notNullable();
    t.float('share').notNullable();
    t.integer('pairs_base');
    t.integer('boot');
    t.integer('meter_ms');
    t.float('actual_seconds');
    t.text('whole');
    t.text('outcome');
    t.text('note').notNullable();
    t.text('started_at').notNullable();
    t.text('finished_at');
    t.index(['sheet_id']);
  });
  const films = new Map((await db<{ id: string; data: string }>('films')).map((film) => [film.id, film.data]));
  for (const { id } of await db<OldRun>('old_runs').select('id').orderBy('started_at')) {
    const run = (await db<OldRun>('old_runs').where({ id }).first())!;
    const sheet = randomUUID();
    const { runs, forceG, speedMmS } = JSON.parse(run.program) as {
      runs: number[][];
      forceG: number;
      speedMmS: number;
    };
    await db('sheets').insert({
      id: sheet,
      created_at: run.started_at,
      film: films.get(run.film_id) ?? JSON.stringify(goneFilm(run.film_id)),
      used_length_mm:
        Math.max(
          0,
          ...runs.map((points) => points.reduce((most, v, i) => (i % 2 === 1 ? Math.max(most, v) : most), 0)),
        ) / 40,
      kept_mm2: 0,
      film_mm2: run.film_mm2,
      film_cost: run.film_cost,
      cut_mm: run.cut_mm,
      estimate_seconds: run.estimate_seconds,
      pairs_total: run.pairs_total,
      // Nobody was asked what should become of these, and by now it is decided.
      ...(run.state === 'cancelled' || run.state === 'failed'
        ? { decided: 'thrown-away', decided_at: run.finished_at }
        : {}),
    });
    await db('programs').insert({
      sheet_id: sheet,
      force_g: forceG,
      speed_mm_s: speedMmS,
      runs: Buffer.from(packLists(runs)),
      whole_at: Buffer.from(packLists([[]])),
      part_of: Buffer.from(packLists([[]])),
      outlines: Buffer.from(packLists([])),
    });
    await db('sheet_groups').insert({
      sheet_id: sheet,
      position: 0,
      job_id: run.job_id,
      copy: 0,
      fingerprint: oldName(run.job_id, run.sheet),
      matrix: JSON.stringify([1, 0, 0, 1, 0, 0]),
      contours: 0,
      marks: 0,
      borders: 0,
      weed_places: '[]',
    });
    const {
      state,
      message,
      pairs_done,
      pairs_base,
      boot,
      meter_ms,
      actual_seconds,
      outcome,
      note,
      started_at,
      finished_at,
    } = run;
    await db('runs').insert({
      id,
      sheet_id: sheet,
      state,
      message,
      pairs_done,
      share: pairs_done / run.pairs_total,
      pairs_base,
      boot,
      meter_ms,
      actual_seconds,
      outcome,
      note,
      started_at,
      finished_at,
    });
  }
  await db.schema.dropTable('old_runs');
}

/** What a sheet of before is known by: never what a plan of today names a layer. */
function oldName(jobId: string, sheet: number): string {
  return `before:${jobId}:${sheet}`;
}

/** A film that was taken out of the shop since. */
function goneFilm(id: string): object {
  return {
    id,
    name: id,
    family: 'calendered',
    colour: '#888888',
    finish: 'gloss',
    directional: false,
    thicknessUm: 75,
    thinnestMm: 1,
    shrinkPct: 0,
    takesOnTop: true,
    mirrored: false,
    costPerM2: 0,
    forceG: 0,
    speedMmS: 0,
  };
}

/** A job that was cut stays cut, as long as nothing that is cut of it is changed. */
async function keepOldJobsCut(db: Knex): Promise<void> {
  for (const { id, position, sheets_total: total } of await db<{
    id: string;
    position: number;
    sheets_total: number | null;
  }>('jobs')) {
    const stored = (await db('recipes').where({ job_id: id, position }).first()) as { recipe: string } | undefined;
    if (!stored) continue;
    const {
      title: _t,
      customer: _c,
      due: _d,
      assembly: _a,
      ...cut
    } = JSON.parse(stored.recipe) as Record<string, unknown>;
    const toCut = total
      ? JSON.stringify(Array.from({ length: total }, (_, i) => ({ fingerprint: oldName(id, i + 1), copies: 1 })))
      : null;
    const key = createHash('sha256').update(JSON.stringify(cut)).digest('hex');
    await db('jobs')
      .where({ id })
      .update({ cut_key: key, to_cut: toCut && JSON.stringify({ cutKey: key, layers: JSON.parse(toCut) as unknown }) });
  }
  // Not through the schema builder, which would make the table anew and with that delete what refers to it.
  await db.raw('alter table jobs drop column sheets_total');
}
