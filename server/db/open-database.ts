import { join } from 'node:path';
import createKnex, { type Knex } from 'knex';
import { backupName, copyDatabase } from './copy-database.js';
import { MIGRATIONS } from './migrations/index.js';
import { diskFailureOf, type DiskFailure } from './disk-failure.js';
import { SqliteClient } from './sqlite-client.js';
import { makePrivateFolder } from './private-folder.js';

/** Opens (and if need be makes) the database in the data folder, which is then its owner's alone, with write-ahead log and foreign keys, at the newest version. */
export async function openDatabase(dataFolder: string): Promise<Knex> {
  try {
    return await opened(dataFolder);
  } catch (error) {
    if (error instanceof CannotOpen) throw error;
    const disk = diskFailureOf(error);
    if (!disk) throw error;
    throw new CannotOpen(sayWhy(disk, dataFolder), { cause: error });
  }
}

/** The data cannot be opened; the message says in one sentence or two why, and what to do. */
export class CannotOpen extends Error {}

function sayWhy(disk: DiskFailure, dataFolder: string): string {
  const file = databaseFile(dataFolder);
  switch (disk) {
    case 'full':
      return `The disk with the data folder ${dataFolder} is full, so Wry Lantern cannot start. Free some space on it, then start again.`;
    case 'unwritable':
      return `The data folder ${dataFolder} cannot be read or written. Check the disk and the rights to the folder, then start again.`;
    case 'damaged':
      return `The database ${file} is damaged, or is no database of Wry Lantern. Restore a backup: npm run restore -- FILE (copies are in ${join(dataFolder, 'backups')} and in backups).`;
  }
}

async function opened(dataFolder: string): Promise<Knex> {
  makePrivateFolder(dataFolder);
  const db = createKnex({
    client: SqliteClient,
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
  try {
    await mustBeSound(db, dataFolder);
    await backUpFirst(db, dataFolder);
    await migrate(db);
  } catch (error) {
    await db.destroy();
    throw error;
  }
  return db;
}

/** @throws CannotOpen when a newer version has written it; a SQLite error when it is damaged */
async function mustBeSound(db: Knex, dataFolder: string): Promise<void> {
  const [{ quick_check: found }] = (await db.raw('pragma quick_check(1)')) as [{ quick_check: string }];
  if (found !== 'ok') throw Object.assign(new Error(found), { code: 'SQLITE_CORRUPT' });
  if (!(await db.schema.hasTable('knex_migrations'))) return;
  const applied = await db<{ name: string }>('knex_migrations').select('name');
  if (applied.some(({ name }) => !Object.hasOwn(MIGRATIONS, name)))
    throw new CannotOpen(
      `The data in ${dataFolder} was written by a newer version of Wry Lantern. Update the app, or restore a backup of this version: npm run restore -- FILE. Nothing was changed.`,
    );
}

async function migrate(db: Knex): Promise<void> {
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS)),
      getMigrationName: (name: string) => name,
      getMigration: (name: string) => Promise.resolve(MIGRATIONS[name]!),
    },
  });
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
