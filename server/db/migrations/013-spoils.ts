import type { Knex } from 'knex';

/* How many copies of a job were spoiled while they were weeded and laid, of how many that were cut by then. */

export const spoils: Knex.Migration = {
  async up(db) {
    await db.schema.createTable('spoils', (t) => {
      t.text('job_id').primary().references('id').inTable('jobs').onDelete('CASCADE');
      t.integer('spoiled').notNullable();
      t.integer('cut').notNullable();
      t.boolean('is_layered').notNullable();
      t.text('recorded_at').notNullable();
    });
  },
  async down(db) {
    await db.schema.dropTable('spoils');
  },
};
