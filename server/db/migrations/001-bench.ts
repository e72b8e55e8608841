import type { Knex } from 'knex';

export const bench: Knex.Migration = {
  async up(db) {
    await db.schema
      .createTable('artworks', (t) => {
        t.text('id').primary();
        t.text('file_name').notNullable();
        t.text('sha256').notNullable();
        t.binary('bytes').notNullable();
        t.text('created_at').notNullable();
      })
      .createTable('jobs', (t) => {
        t.text('id').primary();
        t.text('title').notNullable();
        t.text('customer').notNullable();
        t.text('due');
        t.integer('position').notNullable();
        t.integer('sheets_total');
        t.text('created_at').notNullable();
        t.text('updated_at').notNullable();
        t.text('deleted_at');
      })
      .createTable('recipes', (t) => {
        t.text('job_id').notNullable().references('jobs.id').onDelete('CASCADE');
        t.integer('position').notNullable();
        t.text('recipe').notNullable();
        t.text('created_at').notNullable();
        t.primary(['job_id', 'position']);
      })
      .createTable('films', (t) => {
        t.text('id').primary();
        t.integer('rank').notNullable();
        t.text('data').notNullable();
      })
      .createTable('pieces', (t) => {
        t.text('id').primary();
        t.text('film_id').notNullable().references('films.id').onDelete('CASCADE');
        t.text('data').notNullable();
      })
      .createTable('mats', (t) => {
        t.text('id').primary();
        t.text('data').notNullable();
      })
      .createTable('cutters', (t) => {
        t.text('id').primary();
        t.text('data').notNullable();
      })
      .createTable('runs', (t) => {
        t.text('id').primary();
        t.text('job_id').notNullable().references('jobs.id').onDelete('CASCADE');
        t.integer('sheet').notNullable();
        t.text('film_id').notNullable();
        t.text('state').notNullable();
        t.text('message').notNullable();
        t.text('program').notNullable();
        t.integer('pairs_total').notNullable();
        t.integer('pairs_done').notNullable();
        t.integer('pairs_base');
        t.integer('boot');
        t.integer('meter_ms');
        t.float('estimate_seconds').notNullable();
        t.float('actual_seconds');
        t.float('cut_mm').notNullable();
        t.float('film_mm2').notNullable();
        t.float('film_cost').notNullable();
        t.text('outcome');
        t.text('note').notNullable();
        t.text('started_at').notNullable();
        t.text('finished_at');
        t.index(['job_id', 'sheet']);
      });
  },
  async down() {
    throw new Error('The first version has nothing before it; restore a backup instead.');
  },
};
