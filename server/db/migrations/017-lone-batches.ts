import type { Knex } from 'knex';

/* What is decided of the batch of one that a job is cut in. Its revisions only grow, also where the job was cut with others in between. */

export const loneBatches: Knex.Migration = {
  async up(db) {
    await db.schema.createTable('lone_batches', (t) => {
      t.text('job_id').primary().references('jobs.id').onDelete('CASCADE');
      t.integer('revision').notNullable();
      t.text('wish').notNullable();
    });
  },
  async down(db) {
    await db.schema.dropTable('lone_batches');
  },
};
