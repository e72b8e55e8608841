import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, describe, expect, it } from 'vitest';
import { emptyRecipe } from '../../core/recipe/index.js';
import { databaseFile, openDatabase } from '../db/open-database.js';
import { storesOn } from '../testing/stores-on.js';

const folderOf = () => mkdtempSync(join(tmpdir(), 'lantern-backup-'));
const run = (name: 'backup' | 'restore', ...args: string[]) =>
  spawnSync(process.execPath, ['scripts/run.mjs', `server/backup/${name}-main`, ...args], { encoding: 'utf8' });
const titles = (file: string) => {
  const db = new Database(file);
  const found = (db.prepare('select title from jobs order by title').all() as { title: string }[]).map(
    (row) => row.title,
  );
  const sound = db.pragma('integrity_check', { simple: true });
  db.close();
  return [sound, ...found];
};
const newestIn = (folder: string, start: string) =>
  join(
    folder,
    readdirSync(folder)
      .filter((name) => name.startsWith(start))
      .sort()
      .at(-1)!,
  );

async function shopWith(
  ...names: string[]
): Promise<{ data: string; add: (title: string) => Promise<unknown>; close: () => Promise<void> }> {
  const data = folderOf();
  const db = await openDatabase(data);
  const { jobs } = storesOn(db);
  for (const name of names) await jobs.create(emptyRecipe(name));
  return { data, add: (title) => jobs.create(emptyRecipe(title)), close: () => db.destroy() };
}

/** A process that makes one job after the other and says each once it is stored, until it is killed. */
const WRITER = `
import { openDatabase } from './server/db/open-database.js';
import { storesOn } from './server/testing/stores-on.js';
import { emptyRecipe } from './core/recipe/index.js';
const db = await openDatabase(process.argv[1]);
const { jobs } = storesOn(db);
for (let i = 0; ; i += 1) { const title = 'written ' + String(i).padStart(6, '0'); await jobs.create(emptyRecipe(title)); process.stdout.write(title + '\\n'); await new Promise((done) => setImmediate(done)); }
`;

let writer: ChildProcess | null = null;
afterEach(() => {
  writer?.kill('SIGKILL');
  writer = null;
});

describe('backup and restore', () => {
  it('bring back what was, and nothing that came after, though the writer was killed with its log beside it', async () => {
    const data = folderOf();
    const backups = folderOf();
    writer = spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', WRITER, data], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    const { stdout } = writer;
    let said = '';
    const reached = (n: number) =>
      new Promise<void>((resolve) => {
        const look = () => {
          if (said.split('\n').length <= n) return;
          stdout!.off('data', look);
          resolve();
        };
        stdout!.on('data', look);
        look();
      });
    stdout!.on('data', (text: Buffer) => (said += text.toString()));
    await reached(30);
    expect(run('backup', '--data', data, '--to', backups).status).toBe(0);
    const backup = newestIn(backups, '');
    const kept = titles(backup);
    await reached(kept.length + 60);
    // While it runs, nothing is restored over it.
    const refused = run('restore', backup, '--data', data, '--backups', backups);
    expect([refused.status, refused.stderr]).toEqual([2, expect.stringContaining('The server is running')]);
    const ended = new Promise((resolve) => writer!.once('exit', resolve));
    writer.kill('SIGKILL');
    await ended;
    expect(existsSync(`${databaseFile(data)}-wal`)).toBe(true);
    const restored = run('restore', backup, '--data', data, '--backups', backups);
    expect([restored.status, restored.stdout]).toEqual([0, expect.stringContaining('is restored from')]);
    expect(titles(databaseFile(data))).toEqual(kept);
    // And what was there before is not lost either: every job that the writer said was stored.
    const before = titles(newestIn(backups, 'before-restore'));
    expect(before).toEqual(expect.arrayContaining(said.split('\n').slice(0, -1)));
    await (await openDatabase(data)).destroy();
  });

  it('find the folder that is named, and say what there is when no backup is named', async () => {
    const shop = await shopWith('A');
    const backups = folderOf();
    const { status, stdout } = run('backup', '--data', shop.data, '--to', backups);
    expect([status, stdout]).toEqual([0, expect.stringContaining('npm run restore -- ')]);
    expect(titles(newestIn(backups, ''))).toEqual(['ok', 'A']);
    const asked = run('restore', '--backups', backups);
    expect([asked.status, asked.stderr]).toEqual([2, expect.stringContaining(newestIn(backups, ''))]);
    await shop.close();
  });

  it.each([
    ['a file that is not there', () => join(folderOf(), 'none.sqlite'), 'There is no file'],
    [
      'a file that is no database',
      () => {
        const file = join(folderOf(), 'text.sqlite');
        writeFileSync(file, 'milk');
        return file;
      },
      'is not a backup',
    ],
    [
      'a database of something else',
      () => {
        const file = join(folderOf(), 'other.sqlite');
        new Database(file).exec('create table t (a)').close();
        return file;
      },
      'is not a backup',
    ],
    [
      'a backup of a newer version',
      () => {
        const file = join(folderOf(), 'newer.sqlite');
        new Database(file)
          .exec("create table knex_migrations (name); insert into knex_migrations values ('999-later')")
          .close();
        return file;
      },
      'newer Wry Lantern',
    ],
  ])('leave all as it is when they are given %s', async (_, make, word) => {
    const shop = await shopWith('A');
    await shop.close();
    const { status, stderr } = run('restore', make(), '--data', shop.data, '--backups', folderOf());
    expect([status, stderr]).toEqual([2, expect.stringContaining(word)]);
    expect(titles(databaseFile(shop.data))).toEqual(['ok', 'A']);
  });

  it('restore over a database that is damaged, and keep that aside', async () => {
    const shop = await shopWith('A');
    const backups = folderOf();
    run('backup', '--data', shop.data, '--to', backups);
    const backup = newestIn(backups, '');
    await shop.close();
    writeFileSync(databaseFile(shop.data), 'not a database any more');
    expect(run('restore', backup, '--data', shop.data, '--backups', backups).status).toBe(0);
    expect([titles(databaseFile(shop.data)), readdirSync(backups).some((name) => name.startsWith('damaged'))]).toEqual([
      ['ok', 'A'],
      true,
    ]);
  });
});
