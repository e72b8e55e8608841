import type { Knex } from 'knex';

/* How long weeding took: when the clock ran for which sheet, and what there was to weed on it. */

export const weeding: Knex.Migration = {
  async up(db) {
    await db.schema
      .createTable('weed_times', (t) => {
        t.text('id').primary();
        t.text('sheet_id').notNullable().references('id').inTable('sheets').onDelete('CASCADE').index();
        t.text('started_at').notNullable();
        t.text('stopped_at');
        t.text('who').notNullable();
      })
      // What is not known of sheets from before stays unknown: they teach nothing.
      .alterTable('sheets', (t) => {
        t.text('weed_work');
      });
  },
  async down(db) {
    await db.schema.alterTable('sheets', (t) => {
      t.dropColumn('weed_work');
    });
    await db.schema.dropTable('weed_times');
  },
};
