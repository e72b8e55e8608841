import type { Knex } from 'knex';

/* The numbers of offcuts are shown until somebody says that they are written on them. Of those that were booked before, nobody is asked. */

export const offcutNumbers: Knex.Migration = {
  async up(db) {
    await db.schema.alterTable('sheets', (t) => {
      t.text('numbers_written_at');
    });
    await db('sheets')
      .whereNotNull('leftovers_booked_at')
      .update({ numbers_written_at: db.ref('leftovers_booked_at') });
  },
  async down(db) {
    await db.schema.alterTable('sheets', (t) => {
      t.dropColumn('numbers_written_at');
    });
  },
};
