import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync, openSync, writeSync, closeSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import type { Knex } from 'knex';
import { afterEach, describe, expect, it } from 'vitest';
import type { Job } from '../core/recipe/index.js';
import { openDatabase } from './db/open-database.js';
import { openBench } from './testing/bench.js';

/* A disk that is full, and data that cannot be opened, are said in a sentence, by the real server. */

let folders: string[] = [];
afterEach(() => {
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
  folders = [];
});
const newFolder = () => {
  const folder = mkdtempSync(join(tmpdir(), 'lantern-disk-'));
  folders.push(folder);
  return folder;
};

/** Starts the server as `npm start` does; it must end by itself. */
function start(data: string, before = ''): { status: number | null; said: string[] } {
  const run = `${before} exec ${process.execPath} scripts/run.mjs server/main --data '${data}' --port 0`;
  const [command, args] = before === '' ? ['sh', ['-c', run]] : ['unshare', ['-Urm', 'sh', '-c', run]];
  const { status, stderr } = spawnSync(command as string, args as string[], { encoding: 'utf8', timeout: 120_000 });
  return { status, said: stderr.split('\n').filter((line) => line.trim() !== '') };
}

describe('the server says in one line why it cannot start', () => {
  it.runIf(process.platform === 'linux')('on a full disk', () => {
    const data = newFolder();
    const { status, said } = start(data, `mount -t tmpfs -o size=64k tmpfs '${data}' &&`);
    expect([status, said]).toEqual([
      1,
      [expect.stringMatching(/^The disk with the data folder .* is full.*Free some space/)],
    ]);
  });

  it('on a file that is no database, and on one that is damaged', async () => {
    const data = newFolder();
    writeFileSync(join(data, 'lantern.sqlite'), 'this is no database, it is a shopping list'.repeat(100));
    const no = start(data);
    expect([no.status, no.said]).toEqual([1, [expect.stringMatching(/^The database .* is damaged.*npm run restore/)]]);
    const other = newFolder();
    await (await openDatabase(other)).destroy();
    const file = join(other, 'lantern.sqlite');
    const handle = openSync(file, 'r+');
    // From the second page to the end nothing makes sense.
    writeSync(handle, Buffer.alloc(statSync(file).size - 4096, 0x5a), 0, statSync(file).size - 4096, 4096);
    closeSync(handle);
    const damaged = start(other);
    expect([damaged.status, damaged.said]).toEqual([1, [expect.stringMatching(/is damaged.*npm run restore/)]]);
  });

  it('on a database of a newer version, which it leaves as it is', async () => {
    const data = newFolder();
    await (await openDatabase(data)).destroy();
    const file = join(data, 'lantern.sqlite');
    const db = new Database(file);
    db.prepare(`insert into knex_migrations (name, batch, migration_time) values ('999-from-tomorrow', 9, 0)`).run();
    db.close();
    const { status, said } = start(data);
    expect([status, said]).toEqual([
      1,
      [expect.stringMatching(/newer version of Wry Lantern.*Update the app.*Nothing was changed/)],
    ]);
    const after = new Database(file, { readonly: true });
    expect(after.prepare('select count(*) as n from knex_migrations where name like ?').get('999%')).toEqual({ n: 1 });
    after.close();
  });

  it('on a data folder that cannot be made', () => {
    const data = newFolder();
    writeFileSync(join(data, 'file'), '');
    mkdirSync(join(data, 'rest'));
    const { status, said } = start(join(data, 'file', 'data'));
    expect([status, said]).toEqual([1, [expect.stringMatching(/^The data folder .* cannot be read or written/)]]);
  });
});

describe('a disk that fills up', () => {
  it('every write that it refuses names it, and nothing is half written', async () => {
    const bench = await openBench();
    try {
      const { body: job } = await bench.api<Job>('POST', '/api/jobs', { title: 'Before' });
      // SQLite’s own limit refuses as a full disk does.
      const { db } = bench.server.services.jobs as unknown as { db: Knex };
      const limit = async (pages: number) => void (await db.raw(`pragma max_page_count = ${pages}`));
      const [{ page_count: pages }] = (await db.raw('pragma page_count')) as [{ page_count: number }];
      await limit(pages);
      const title = 'x'.repeat(200);
      const write = (n: number) =>
        bench.api<Job & { code: string; title: string }>('POST', '/api/jobs', { title: `${n} ${title}`.slice(0, 200) });
      let refused = await write(0);
      for (let n = 1; n < 500 && refused.status === 200; n += 1) refused = await write(n);
      expect([refused.status, refused.body.code]).toEqual([507, 'disk-full']);
      expect(refused.body.title).toMatch(/The disk of the bench computer is full.*Nothing was changed/);
      const drawing = new TextEncoder().encode(
        `<svg xmlns="http://www.w3.org/2000/svg" width="9mm" height="9mm"><rect width="9" height="9"/><!--${'x'.repeat(50_000)}--></svg>`,
      );
      const upload = () =>
        bench.api<Job & { code: string }>('POST', `/api/jobs/${job.id}/artwork?fileName=a.svg`, drawing);
      expect((await upload()).body.code).toBe('disk-full');
      expect((await bench.api<Job>('GET', `/api/jobs/${job.id}`)).body).toEqual(job);
      await limit(1_000_000);
      expect((await upload()).status).toBe(200);
    } finally {
      await bench.close();
    }
  });
});
