import { createHash } from 'node:crypto';
import type { Knex } from 'knex';

/* The list of jobs shows whole designs: the small picture is the job's, and no longer that of its first file. Pictures can be made again at any time. */

interface OldJob {
  readonly id: string;
  readonly recipe: string;
}

/** As much of a stored recipe, of any version, as decides what its design looks like. */
interface StoredDesign {
  readonly artworks: readonly unknown[];
  readonly repair?: unknown;
  readonly surface?: unknown;
}

export const designPictures: Knex.Migration = {
  async up(db) {
    await db.schema.dropTable('small_pictures');
    await db.schema.createTable('design_pictures', (t) => {
      t.text('job_id').primary().references('jobs.id');
      t.text('design').notNullable();
      // Empty for a design of which none can be made.
      t.binary('png').notNullable();
    });
    // By SQLite itself: the query builder would lay a new table in the place of the old, and what hangs on jobs would go with that.
    await db.raw('alter table jobs drop column artwork_id');
    await db.schema.alterTable('jobs', (t) => t.text('design'));
    const jobs = (await db('jobs')
      .join('recipes', (on) => on.on('recipes.job_id', 'jobs.id').andOn('recipes.position', 'jobs.position'))
      .select('jobs.id', 'recipes.recipe')) as OldJob[];
    for (const { id, recipe } of jobs) {
      const { artworks, repair, surface } = JSON.parse(recipe) as StoredDesign;
      if (artworks.length > 0)
        await db('jobs')
          .where({ id })
          .update({
            design: createHash('sha256')
              .update(JSON.stringify([artworks, repair, surface]))
              .digest('hex'),
          });
    }
  },
  async down() {
    throw new Error('The pictures of single files are gone; restore a backup instead.');
  },
};
