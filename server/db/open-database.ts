import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import createKnex, { type Knex } from 'knex';
import { MIGRATIONS } from './migrations/index.js';

/** Opens (and if need be makes) the database in the data folder, with write-ahead log and foreign keys, at the newest version. */
export async function openDatabase(dataFolder: string): Promise<Knex> {
  mkdirSync(dataFolder, { recursive: true });
  const db = createKnex({
    client: 'better-sqlite3',
    connection: { filename: databaseFile(dataFolder) },
    useNullAsDefault: true,
    // Bound values may be a maker's data and have no place in an error message.
    compileSqlOnError: false,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (connection: { pragma(text: string): void }, done: (error: Error | null, connection: unknown) => void) => {
        connection.pragma('journal_mode = WAL');
        connection.pragma('foreign_keys = ON');
        connection.pragma('busy_timeout = 5000');
        done(null, connection);
      },
    },
  });
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS)),
      getMigrationName: (name: string) => name,
      getMigration: (name: string) => Promise.resolve(MIGRATIONS[name]!),
    },
  });
  return db;
}

export function databaseFile(dataFolder: string): string {
  return join(dataFolder, 'lantern.sqlite');
}
