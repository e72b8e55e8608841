import type { Knex } from 'knex';

/* Other devices at the bench: which were let in, where the shop is shared, and who knocked with a wrong code. */

export const devices: Knex.Migration = {
  async up(db) {
    await db.schema
      .createTable('devices', (t) => {
        t.text('id').primary();
        t.text('name').notNullable();
        // What the device holds is not kept, only what it is known by.
        t.text('token_hash').notNullable().unique();
        t.text('let_in_at').notNullable();
        t.text('seen_at').notNullable();
        t.text('sent_away_at');
      })
      .createTable('sharing', (t) => {
        t.integer('id').primary();
        t.text('address').notNullable();
        t.integer('port').notNullable();
        t.text('certificate');
        t.text('private_key');
      })
      .createTable('door_log', (t) => {
        t.increments('id');
        t.text('at').notNullable();
        t.text('from').notNullable();
        t.text('what').notNullable();
      });
  },
  async down(db) {
    for (const table of ['door_log', 'sharing', 'devices']) await db.schema.dropTable(table);
  },
};
