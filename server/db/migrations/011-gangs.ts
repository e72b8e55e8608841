import type { Knex } from 'knex';

/*
 * Strips of a gang hold several copies of a design. Films, and makers if they like, say how bulky waste may be; sheets that were cut show their
 * films as well, so theirs are completed.
 */

interface Row {
  readonly kind: string;
  readonly id: string;
  readonly data: string;
}

interface Step {
  readonly kind: string;
  readonly before: object | null;
  readonly after: object | null;
}

/** As it stood for all films when this version shipped, mm. */
const STRIP_BULK_MM = 80;
const ADDED: Readonly<Record<string, object>> = {
  films: { stripBulkMm: STRIP_BULK_MM },
  makers: { stripBulkMm: null },
};

const completed = (kind: string, record: object) => ({ ...ADDED[kind], ...record });
const completedFilm = (json: string) => JSON.stringify(completed('films', JSON.parse(json) as object));

export const gangs: Knex.Migration = {
  async up(db) {
    await db.schema.alterTable('sheet_groups', (t) => {
      t.integer('per_strip').notNullable().defaultTo(1);
    });
    for (const { kind, id, data } of await db<Row>('shop_records').whereIn('kind', Object.keys(ADDED)))
      await db('shop_records')
        .where({ kind, id })
        .update({ data: JSON.stringify(completed(kind, JSON.parse(data) as object)) });
    // What is undone or done again comes back complete.
    for (const { position, changes } of await db<{ position: number; changes: string }>('shop_history').select(
      'position',
      'changes',
    )) {
      const steps = (JSON.parse(changes) as Step[]).map((step) => ({
        ...step,
        before: step.before && completed(step.kind, step.before),
        after: step.after && completed(step.kind, step.after),
      }));
      await db('shop_history')
        .where({ position })
        .update({ changes: JSON.stringify(steps) });
    }
    for (const { id, film, zones } of await db<{ id: string; film: string; zones: string | null }>('sheets').select(
      'id',
      'film',
      'zones',
    )) {
      const laid =
        zones === null
          ? null
          : JSON.stringify(
              (JSON.parse(zones) as { readonly film: object }[]).map((zone) => ({
                ...zone,
                film: completed('films', zone.film),
              })),
            );
      await db('sheets')
        .where({ id })
        .update({ film: completedFilm(film), zones: laid });
    }
  },
  async down() {
    throw new Error('Strips of a gang cannot be told from copies any more; restore a backup instead.');
  },
};
