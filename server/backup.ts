import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import Database from 'better-sqlite3';
import { databaseFile } from './db/open-database.js';

// SQLite's own online backup: safe while the server runs.
const { values } = parseArgs({ options: { data: { type: 'string', default: 'data' }, to: { type: 'string', default: 'backups' } } });
mkdirSync(values.to, { recursive: true });
const target = join(values.to, `lantern-${new Date().toISOString().replace(/[:.]/g, '-')}.sqlite`);
const db = new Database(databaseFile(values.data), { readonly: true, fileMustExist: true });
await db.backup(target);
db.close();
console.log(`Backed up to ${target}. To restore, stop the server and put this file in place of ${databaseFile(values.data)}.`);
