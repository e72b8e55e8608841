import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { EMPTY_SHOP, newFilm } from '../core/shop/index.js';
import { seeded } from '../core/testing/seeded.js';
import { openDatabase } from './db/open-database.js';
import { ShopStore } from './stores/shop-store.js';
import { StockBook } from './stores/stock-book.js';

/* Killed at any moment while a sheet is booked, the book has all of it or nothing. */

const PROGRAM = 'dist/testing/book-until-killed.mjs';
const ROLL_MM = 1_000_000;
const folder = mkdtempSync(join(tmpdir(), 'lantern-killed-'));
beforeAll(async () => {
  await build({
    entryPoints: ['server/testing/book-until-killed.ts'],
    outfile: PROGRAM,
    bundle: true,
    packages: 'external',
    format: 'esm',
    platform: 'node',
    logLevel: 'error',
  });
  const db = await openDatabase(folder);
  const roll = (id: string) => ({
    id,
    filmId: 'tar',
    kind: 'roll' as const,
    number: null,
    widthMm: 500,
    lengthMm: ROLL_MM,
    edgeMm: 5,
    place: '',
    note: '',
    retired: false,
    left: ROLL_MM,
  });
  await new ShopStore(db, new StockBook(db)).fill({
    ...EMPTY_SHOP,
    films: [newFilm('tar', 'cast')],
    stock: [roll('one'), roll('two')],
  });
  await db.destroy();
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** Books until so many steps were told, and on for so many turns of the event loop; then it is killed. */
function bookUntil(round: number, steps: number, turns: number): Promise<void> {
  const child = spawn(process.execPath, [PROGRAM, folder, String(round)], { stdio: ['ignore', 'ignore', 'pipe'] });
  let told = 0;
  let text = '';
  return new Promise((resolve, reject) => {
    child.stderr.on('data', (data: Buffer) => {
      text += data.toString();
      told += data.toString().split('\n').length - 1;
      if (told < steps) return;
      told = -Infinity;
      const turn = (left: number): void => void (left > 0 ? setImmediate(() => turn(left - 1)) : child.kill('SIGKILL'));
      turn(turns);
    });
    child.on('exit', (code, signal) =>
      signal === 'SIGKILL' ? resolve() : reject(new Error(`It ended by itself with ${code}: ${text.slice(-400)}`)),
    );
  });
}

const count = async (query: Knex.QueryBuilder) => ((await query.count({ n: '*' })) as { n: number }[])[0]!.n;

describe('a server that is killed while sheets are booked', () => {
  it('leaves all of a sheet or nothing of it in the book', async () => {
    const random = seeded(17);
    for (let round = 0; round < 10; round += 1) {
      await bookUntil(round, 1 + Math.floor(random() * 12), Math.floor(random() * 4000));
      const db = await openDatabase(folder);
      const runs = await count(db('runs'));
      for (const piece of ['one', 'two']) {
        expect(await count(db('stock_lines').where({ piece_id: piece, why: 'used' }))).toBe(runs);
        expect(await new StockBook(db).leftOf(piece)).toBe(ROLL_MM - runs * 10);
      }
      const sheets = (await db('sheets').select('id', 'leftovers_booked_at')) as {
        id: string;
        leftovers_booked_at: string | null;
      }[];
      let offcuts = 0;
      for (const { id, leftovers_booked_at: said } of sheets) {
        const back = (await db('stock_lines').where({ sheet_id: id, why: 'returned' }).select('piece_id')) as {
          piece_id: string;
        }[];
        expect(back).toHaveLength(said === null ? 0 : 3);
        expect(
          await count(
            db('shop_records')
              .where({ kind: 'pieces' })
              .whereIn(
                'id',
                back.map((line) => line.piece_id),
              ),
          ),
        ).toBe(back.length);
        offcuts += back.length;
      }
      expect(await count(db('shop_records').where({ kind: 'pieces' }))).toBe(2 + offcuts);
      await db.destroy();
    }
  });
});
