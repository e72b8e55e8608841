import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { MIGRATIONS } from './db/migrations/index.js';
import { databaseFile, openDatabase } from './db/open-database.js';
import { JobStore } from './stores/job-store.js';
import { ProgramStore } from './stores/program-store.js';
import { SheetStore } from './stores/sheet-store.js';
import { emptyRecipe } from '../core/job/index.js';

const folder = mkdtempSync(join(tmpdir(), 'lantern-db-'));
let db: Awaited<ReturnType<typeof openDatabase>>;
beforeAll(async () => {
  db = await openDatabase(folder);
});
afterAll(() => db.destroy());

describe('the database', () => {
  it('is at the newest version, with write-ahead log and foreign keys', async () => {
    const applied = (await db('knex_migrations').select<{ name: string }[]>('name')).map((row) => row.name);
    expect(applied).toEqual(Object.keys(MIGRATIONS));
    expect(await db.raw('pragma journal_mode')).toEqual([{ journal_mode: 'wal' }]);
    expect(await db.raw('pragma foreign_keys')).toEqual([{ foreign_keys: 1 }]);
  });

  it('refuses a run of a job that does not exist', async () => {
    await expect(db('recipes').insert({ job_id: 'nobody', position: 0, recipe: '{}', created_at: '' })).rejects.toThrow(/FOREIGN KEY/);
  });

  it('is backed up while it is in use, and the copy holds what was there', async () => {
    await new JobStore(db, new SheetStore(db, new ProgramStore(db))).create(emptyRecipe('To be kept'));
    const to = join(folder, 'copies');
    const { status, stdout } = spawnSync(process.execPath, ['--import', 'tsx', 'server/backup.ts', '--data', folder, '--to', to], { encoding: 'utf8' });
    expect([status, stdout]).toEqual([0, expect.stringContaining(databaseFile(folder))]);
    const copy = new Database(join(to, readdirSync(to)[0]!), { readonly: true });
    expect(copy.prepare('select title from jobs').all()).toEqual([{ title: 'To be kept' }]);
    copy.close();
  });
});
