import type { Knex } from 'knex';

/*
 * What the list of jobs shows stands with the job, so that a thousand jobs are listed without reading a thousand recipes; small pictures are made
 * once and kept.
 */

interface OldJob {
  readonly id: string;
  readonly title: string;
  readonly customer: string;
  readonly recipe: string;
}

/** As much of a stored recipe, of any version, as a list shows. Recipes before version 3 had files for parts. */
interface StoredParts {
  readonly artworks: readonly {
    readonly id: string;
    readonly kind?: string;
    readonly source?: { readonly id: string };
    readonly lettering?: { readonly text: string };
  }[];
}

export const jobList: Knex.Migration = {
  async up(db) {
    await db.schema.alterTable('jobs', (t) => {
      t.integer('parts').notNullable().defaultTo(0);
      t.text('artwork_id');
      t.text('words');
      t.text('search_text').notNullable().defaultTo('');
    });
    await db.schema.createTable('small_pictures', (t) => {
      t.text('artwork_id').primary().references('artworks.id');
      // Empty for a file of which none can be made.
      t.binary('png').notNullable();
    });
    const jobs = (await db('jobs')
      .join('recipes', (on) => on.on('recipes.job_id', 'jobs.id').andOn('recipes.position', 'jobs.position'))
      .select('jobs.id', 'jobs.title', 'jobs.customer', 'recipes.recipe')) as OldJob[];
    for (const { id, title, customer, recipe } of jobs) {
      const { artworks } = JSON.parse(recipe) as StoredParts;
      const file = artworks.find((part) => part.source !== undefined || part.kind === undefined);
      await db('jobs')
        .where({ id })
        .update({
          parts: artworks.length,
          artwork_id: file ? (file.source?.id ?? file.id) : null,
          words: artworks[0]?.lettering?.text ?? null,
          search_text: `${title} ${customer}`.toLowerCase(),
        });
    }
  },
  async down(db) {
    await db.schema.dropTable('small_pictures');
    await db.schema.alterTable('jobs', (t) => t.dropColumns('parts', 'artwork_id', 'words', 'search_text'));
  },
};
