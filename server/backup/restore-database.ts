import { closeSync, existsSync, fsyncSync, openSync, renameSync, rmSync } from 'node:fs';
import { dirname } from 'node:path';
import Database from 'better-sqlite3';
import { databaseFile } from '../db/open-database.js';
import { MIGRATIONS } from '../db/migrations/index.js';
import { backupName, copyDatabase } from '../db/copy-database.js';

/** Why a restore was refused, in a sentence. Nothing was changed. */
export class RestoreRefused extends Error {}

/**
 * Puts a backup in the place of a data folder's database. What is there is backed up first; gives the name of that copy, or null when there was
 * nothing. The write-ahead log of the old database is folded into it before it is moved away: left beside the restored file, it would bring
 * changes back that were made after the backup. Stopped at any moment, the folder holds either the old database or the restored one, whole.
 *
 * @throws RestoreRefused when the file is no sound backup, or the server runs
 */
export function restoreDatabase(backup: string, dataFolder: string, backups: string): string | null {
  mustBeSound(backup);
  const target = databaseFile(dataFolder);
  const fresh = `${target}.restoring`;
  rmSync(fresh, { force: true });
  copyDatabase(backup, fresh);
  const before = existsSync(target) ? setAside(target, backups) : null;
  for (const end of ['-wal', '-shm']) rmSync(target + end, { force: true });
  renameSync(fresh, target);
  for (const end of ['-wal', '-shm', '-journal']) rmSync(fresh + end, { force: true });
  // The new name itself must be on the disk too.
  const folder = openSync(dirname(target), 'r');
  fsyncSync(folder);
  closeSync(folder);
  return before;
}

function mustBeSound(file: string): void {
  if (!existsSync(file)) throw new RestoreRefused(`There is no file ${file}.`);
  let applied: string[];
  try {
    const db = new Database(file, { readonly: true, fileMustExist: true });
    try {
      const [check] = db.pragma('integrity_check') as { integrity_check: string }[];
      if (check?.integrity_check !== 'ok')
        throw new RestoreRefused(
          `${file} is damaged: ${check?.integrity_check ?? 'it cannot be checked'}. Take another backup.`,
        );
      applied = (db.prepare('select name from knex_migrations').all() as { name: string }[]).map((row) => row.name);
    } finally {
      db.close();
    }
  } catch (error) {
    if (error instanceof RestoreRefused) throw error;
    throw new RestoreRefused(`${file} is not a backup of Wry Lantern.`, { cause: error });
  }
  const unknown = applied.find((name) => !(name in MIGRATIONS));
  if (unknown)
    throw new RestoreRefused(
      `${file} was made by a newer Wry Lantern (it knows “${unknown}”). Update first, then restore.`,
    );
}

/** Backs up what is there and folds its write-ahead log in; a damaged one is kept as it is, beside the backups. */
function setAside(target: string, backups: string): string {
  const name = backupName(backups, 'before-restore');
  try {
    const db = new Database(target, { fileMustExist: true, timeout: 0 });
    try {
      // Only a database that nobody else has open can leave the write-ahead log.
      if (db.pragma('journal_mode = delete', { simple: true }) !== 'delete')
        throw new RestoreRefused('The server is running. Stop it, then restore.');
    } finally {
      db.close();
    }
    copyDatabase(target, name);
    return name;
  } catch (error) {
    const code = (error as { code?: string }).code ?? '';
    if (error instanceof RestoreRefused || code.startsWith('SQLITE_BUSY') || code.startsWith('SQLITE_LOCKED'))
      throw error instanceof RestoreRefused
        ? error
        : new RestoreRefused('The server is running. Stop it, then restore.', { cause: error });
    if (!code.startsWith('SQLITE_')) throw error;
    const damaged = backupName(backups, 'damaged');
    for (const end of ['-wal', '-shm', '']) if (existsSync(target + end)) renameSync(target + end, damaged + end);
    return damaged;
  }
}
