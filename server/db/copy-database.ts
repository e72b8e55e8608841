import { chmodSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';

/**
 * Copies a database file as it is at one moment, also while it is in use. Read in one transaction: SQLite's page-by-page backup begins anew
 * whenever somebody writes, and never ends beside one who writes all the time. `to` must not exist; only its owner may read it. @throws when there is none, or it is damaged
 */
export function copyDatabase(from: string, to: string): void {
  const db = new Database(from, { readonly: true, fileMustExist: true });
  try {
    db.prepare('vacuum into ?').run(to);
  } finally {
    db.close();
  }
  // One file and nothing beside it, also when it is only looked into.
  const copy = new Database(to);
  copy.pragma('journal_mode = delete');
  copy.close();
  chmodSync(to, 0o600);
}

/** A new name in a folder of backups, which is made if need be: what it is of, and now. */
export function backupName(folder: string, what: string): string {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  return join(folder, `${what}-${new Date().toISOString().replace(/[:.]/g, '-')}.sqlite`);
}
