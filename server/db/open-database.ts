import { join } from 'node:path';
import createKnex, { type Knex } from 'knex';
import { backupName, copyDatabase } from './copy-database.js';
import { MIGRATIONS } from './migrations/index.js';
import { makePrivateFolder } from './private-folder.js';

/** Opens (and if need be makes) the database in the data folder, which is then its owner's alone, with write-ahead log and foreign keys, at the newest version. */
export async function openDatabase(dataFolder: string): Promise<Knex> {
  makePrivateFolder(dataFolder);
  const db = createKnex({
    client: 'better-sqlite3',
    connection: { filename: databaseFile(dataFolder) },
    useNullAsDefault: true,
    // Bound values may be a maker's data and have no place in an error message.
    compileSqlOnError: false,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (
        connection: { pragma(text: string): void },
        done: (error: Error | null, connection: unknown) => void,
      ) => {
        connection.pragma('journal_mode = WAL');
        connection.pragma('foreign_keys = ON');
        connection.pragma('busy_timeout = 5000');
        done(null, connection);
      },
    },
  });
  await backUpFirst(db, dataFolder);
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS)),
      getMigrationName: (name: string) => name,
      getMigration: (name: string) => Promise.resolve(MIGRATIONS[name]!),
    },
  });
  return db;
}

/** A database of an older version is copied, beside itself, before it is made newer. */
async function backUpFirst(db: Knex, dataFolder: string): Promise<void> {
  if (!(await db.schema.hasTable('knex_migrations'))) return;
  const applied = (await db<{ name: string }>('knex_migrations').select('name')).map((row) => row.name);
  const next = Object.keys(MIGRATIONS).find((name) => !applied.includes(name));
  if (next !== undefined && applied.length > 0)
    copyDatabase(databaseFile(dataFolder), backupName(join(dataFolder, 'backups'), `before-${next}`));
}

export function databaseFile(dataFolder: string): string {
  return join(dataFolder, 'lantern.sqlite');
}
