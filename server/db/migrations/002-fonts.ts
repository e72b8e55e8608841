import type { Knex } from 'knex';

export const fonts: Knex.Migration = {
  async up(db) {
    await db.schema.createTable('fonts', (t) => {
      t.text('id').primary().references('artworks.id');
      t.text('name').notNullable();
    });
  },
  async down(db) {
    await db.schema.dropTable('fonts');
  },
};
