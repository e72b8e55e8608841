import type { Knex } from 'knex';

/* Sheets say which foil is laid on them, and whether it was cut up: what is left of it was booked then. Those that were cut before carry none: their foil was cut like a film. */

export const foil: Knex.Migration = {
  async up(db) {
    await db.schema.alterTable('sheets', (t) => {
      t.text('foils').notNullable().defaultTo('[]');
      t.boolean('foil_cut_up').notNullable().defaultTo(false);
    });
  },
  async down() {
    throw new Error('Versions before this one do not know foil that is laid on a sheet; restore a backup instead.');
  },
};
