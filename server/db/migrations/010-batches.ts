import type { Knex } from 'knex';

/*
 * Batches: jobs that are cut together. Sheets tell of which films their copies are, which blanks lay side by side on the mat, and what is left of
 * their pieces. A run may take of several pieces.
 */

export const batches: Knex.Migration = {
  async up(db) {
    await db.schema
      .createTable('batches', (t) => {
        t.text('id').primary();
        t.integer('number').notNullable().unique();
        t.integer('revision').notNullable();
        t.text('wish').notNullable();
        t.text('created_at').notNullable();
        t.text('ended_at');
      })
      .createTable('batch_jobs', (t) => {
        // A job lies in one batch at most.
        t.text('job_id').primary().references('jobs.id').onDelete('CASCADE');
        t.text('batch_id').notNullable().references('batches.id').index();
        t.integer('position').notNullable();
      })
      .alterTable('sheets', (t) => {
        t.text('batch_id').index();
        t.text('zones');
        t.text('leftovers').notNullable().defaultTo('[]');
        t.text('leftovers_booked_at');
      })
      .alterTable('sheet_groups', (t) => {
        t.text('film_id').notNullable().defaultTo('');
        t.float('kept_mm2').notNullable().defaultTo(0);
      });
    await db.raw(`update sheet_groups set
      film_id = (select json_extract(film, '$.id') from sheets where sheets.id = sheet_groups.sheet_id),
      kept_mm2 = (select kept_mm2 from sheets where sheets.id = sheet_groups.sheet_id) / (select count(*) from sheet_groups g where g.sheet_id = sheet_groups.sheet_id)`);
    await db.schema.alterTable('stock_lines', (t) => {
      t.dropUnique(['run_id', 'why']);
      t.unique(['run_id', 'why', 'piece_id']);
    });
  },
  async down() {
    throw new Error('Sheets of several films cannot be unkept; restore a backup instead.');
  },
};
