import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { BENCH_SHOP_FILE } from '../core/testing/bench-shop.js';
import { seeded } from '../core/testing/seeded.js';
import { STOCK_ACTS, type ShopFile, type StockLine } from '../core/shop/index.js';
import { databaseFile } from './db/open-database.js';
import { jobWith, openBench, runUntil, startCut, type Bench } from './testing/bench.js';

type Shop = ShopFile & { revision: number };
interface Refusal {
  code: string;
  title: string;
  revision: number;
  number: number | null;
}

let bench: Bench;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400 });
});
afterAll(() => bench.close());
beforeEach(async () => {
  const { cutters } = (await bench.api<Shop>('GET', '/api/shop')).body;
  await bench.server.services.shop.fill({ ...BENCH_SHOP_FILE, cutters });
});

const shop = async () => (await bench.api<Shop>('GET', '/api/shop')).body;
const leftOf = async (id: string) => (await shop()).stock.find((piece) => piece.id === id)!.left;
const linesOf = async (id: string) => (await bench.api<StockLine[]>('GET', `/api/shop/lines?piece=${id}`)).body;
const book = (id: string, act: string, figure: number | null, revision: number, edit?: string) =>
  bench.api<Refusal>('POST', `/api/shop/pieces/${id}/lines`, {
    act,
    figure,
    note: '',
    revision,
    ...(edit ? { edit } : {}),
  });
const takeBack = (line: number, revision: number) =>
  bench.api<Refusal>('POST', `/api/shop/lines/${line}/take-back`, { revision });
/** What the database itself says is left: an oracle that knows nothing of the application. */
const summed = () => {
  const db = new Database(databaseFile(bench.dataFolder), { readonly: true });
  const rows = db.prepare('select piece_id, round(sum(amount), 3) as s from stock_lines group by piece_id').all() as {
    piece_id: string;
    s: number;
  }[];
  db.close();
  return Object.fromEntries(rows.map((row) => [row.piece_id, row.s + 0]));
};

describe('the stock book', () => {
  it.each(Array.from({ length: 8 }, (_, seed) => seed))(
    'holds what is left, whatever is booked, taken back and restarted, seed %i',
    async (seed) => {
      const random = seeded(seed + 100);
      const pick = <T>(list: readonly T[]) => list[Math.floor(random() * list.length)]!;
      const pieces = [...BENCH_SHOP_FILE.stock].slice(0, 6);
      // The slate: thousandths, by piece, kept by hand.
      const slate = new Map(pieces.map((piece) => [piece.id, Math.round(piece.left * 1000)]));
      const mine: { id: number; piece: string; by: number }[] = [];
      for (let i = 0; i < 40; i += 1) {
        const piece = pick(pieces);
        const { revision } = await shop();
        const now = slate.get(piece.id)!;
        if (random() < 0.2 && mine.length > 0) {
          const line = mine.splice(Math.floor(random() * mine.length), 1)[0]!;
          const { status } = await takeBack(line.id, revision);
          const after = slate.get(line.piece)! - line.by;
          expect(status).toBe(after < 0 ? 422 : 200);
          if (status === 200) slate.set(line.piece, after);
        } else {
          const act = pick(STOCK_ACTS);
          const figure = piece.kind === 'roll' ? Math.round(random() * 6_000_000) / 1000 : Math.floor(random() * 5);
          const by =
            act === 'counted'
              ? Math.round(figure * 1000) - now
              : (act === 'used' || act === 'thrown away' ? -1 : 1) * Math.round(figure * 1000);
          const { status } = await book(piece.id, act, figure, revision);
          const isWrong = (figure === 0 && act !== 'counted' && act !== 'corrected') || now + by < 0;
          expect([act, figure, status]).toEqual([act, figure, isWrong ? 422 : 200]);
          if (status === 200) {
            slate.set(piece.id, now + by);
            mine.push({ id: (await linesOf(piece.id))[0]!.id, piece: piece.id, by });
          }
        }
        if (i === 20) await bench.restartServer();
        for (const { id } of pieces) expect(await leftOf(id)).toBe(slate.get(id)! / 1000);
      }
      const sums = summed();
      for (const { id, left } of (await shop()).stock) expect(sums[id]).toBe(left);
    },
  );

  it('is only added to: the database itself refuses everything else', () => {
    const db = new Database(databaseFile(bench.dataFolder));
    for (const sql of [
      'update stock_lines set amount = 0',
      'delete from stock_lines',
      `update stock_lines set why = 'used' where id = 1`,
    ])
      expect(() => db.prepare(sql).run()).toThrow('only added to');
    db.close();
  });

  it('tells one of two tabs that count one piece, and loses nothing of either', async () => {
    const { revision } = await shop();
    expect((await book('tar-roll', 'used', 1000, revision)).status).toBe(200);
    const late = await book('tar-roll', 'counted', 21_500, revision);
    expect([late.status, late.body.code, await leftOf('tar-roll')]).toEqual([409, 'stock-changed', 21_000]);
    // What only takes something is right whoever was first.
    expect((await book('tar-roll', 'used', 500, revision)).status).toBe(200);
    expect([await leftOf('tar-roll'), (await linesOf('tar-roll')).map(({ amount }) => amount).slice(0, 2)]).toEqual([
      20_500,
      [-500, -1000],
    ]);
  });

  it('has a line once, however often it is sent', async () => {
    const { revision } = await shop();
    for (let i = 0; i < 3; i += 1) expect((await book('tar-roll', 'used', 1000, revision, 'one-use')).status).toBe(200);
    expect(await leftOf('tar-roll')).toBe(21_000);
  });

  it.each([
    ['a use of more than there is', 'used', 99_000_00, 422, 'not-so-much-left'],
    ['a use of nothing', 'used', 0, 422, 'figure-out-of-range'],
    ['a use of less than nothing', 'used', -3000, 422, 'figure-out-of-range'],
    ['a count below nothing', 'counted', -1, 422, 'figure-out-of-range'],
    ['more than any roll', 'received', 20_000_000, 422, 'figure-out-of-range'],
    ['no figure', 'used', null, 422, 'figure-missing'],
    ['an act that is none', 'borrowed', 1, 400, 'body-invalid'],
  ])('refuses %s', async (_, act, figure, status, code) => {
    const refused = await book('tar-roll', act, figure, (await shop()).revision);
    expect([refused.status, refused.body.code, await leftOf('tar-roll')]).toEqual([status, code, 22_000]);
  });

  it('refuses half a sheet, and a piece that is none', async () => {
    const { revision } = await shop();
    expect((await book('lock-gate-sheets', 'used', 0.5, revision)).body.code).toBe('figure-not-whole');
    expect((await book('nowhere', 'used', 1, revision)).status).toBe(404);
  });

  it('takes a line back once, and its answer never', async () => {
    await book('tar-roll', 'used', 1000, (await shop()).revision);
    const [line] = await linesOf('tar-roll');
    expect((await takeBack(line!.id, (await shop()).revision)).status).toBe(200);
    const again = await takeBack(line!.id, (await shop()).revision);
    const [answer] = await linesOf('tar-roll');
    expect([
      again.body.code,
      answer!.why,
      answer!.takesBack,
      (await takeBack(answer!.id, (await shop()).revision)).body.code,
      await leftOf('tar-roll'),
    ]).toEqual(['line-taken-back', 'taken back', line!.id, 'line-is-answer', 22_000]);
  });

  it('gives each offcut a number that was never given, also when two come at once', async () => {
    const put = async (id: string) =>
      bench.api<Refusal>('POST', '/api/shop/pieces', {
        piece: {
          id,
          filmId: 'tar',
          kind: 'offcut',
          widthMm: 200,
          lengthMm: 150,
          edgeMm: 5,
          place: '',
          note: '',
          retired: false,
        },
        amount: 1,
        why: 'returned',
        note: '',
        sheetId: null,
        revision: (await shop()).revision,
      });
    const answers = await Promise.all(['o1', 'o2', 'o3'].map(put));
    const numbers = answers.filter(({ status }) => status === 200).map(({ body }) => body.number!);
    expect(new Set(numbers).size).toBe(numbers.length);
    expect(Math.min(...numbers)).toBeGreaterThan(Math.max(...BENCH_SHOP_FILE.stock.map(({ number }) => number ?? 0)));
  });
});

describe('a cut', () => {
  const DRAWING =
    '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><rect width="60" height="60" fill="#16181a"/></svg>';

  it('takes its film out of the book when it begins, and never twice', async () => {
    const job = await jobWith(bench, DRAWING);
    const plan = (
      await bench.api<{ sheets: { piece: string; usedLengthMm: number }[] }>('GET', `/api/jobs/${job.id}/plan`)
    ).body;
    const { piece, usedLengthMm } = plan.sheets[0]!;
    const before = await leftOf(piece);
    const { body: run } = await startCut(bench, job.id, 'tar');
    await runUntil(bench, run.id, ({ state }) => state === 'finished');
    await bench.restartServer();
    expect(await leftOf(piece)).toBeCloseTo(before - usedLengthMm, 3);
    expect((await linesOf(piece)).filter(({ sheetId }) => sheetId !== null)).toMatchObject([{ why: 'used' }]);
  });

  it('that is cancelled before the knife came down gives its film back', async () => {
    await bench.api('POST', '/api/cutter/control', { do: 'power-cut' });
    const job = await jobWith(bench, DRAWING);
    const { body: run } = await startCut(bench, job.id, 'tar');
    const [used] = await linesOf('tar-roll');
    expect(used).toMatchObject({ why: 'used' });
    await bench.api('POST', `/api/runs/${run.id}/cancel`);
    await bench.api('POST', '/api/cutter/control', { do: 'power-on' });
    await runUntil(bench, run.id, ({ state }) => state === 'cancelled' || state === 'failed');
    const { pairsDone } = (await bench.api<{ pairsDone: number }>('GET', `/api/runs/${run.id}`)).body;
    expect([await leftOf('tar-roll'), (await linesOf('tar-roll'))[0]!.why]).toEqual(
      pairsDone === 0 ? [22_000, 'returned'] : [22_000 + used!.amount, 'used'],
    );
  });
});

describe('a server that is killed', () => {
  const killed = async (child: ChildProcess) => {
    child.kill('SIGKILL');
    await new Promise((done) => child.once('exit', done));
  };
  const serve = async (data: string, port: number): Promise<ChildProcess> => {
    const child = spawn(
      process.execPath,
      ['--import', 'tsx', 'server/main.ts', '--data', data, '--port', String(port)],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    );
    await new Promise<void>((resolve, reject) => {
      child.stdout!.on('data', (text: Buffer) => text.toString().includes('Wry Lantern:') && resolve());
      child.once('exit', () => reject(new Error('The server ended.')));
    });
    return child;
  };

  it('at any moment has every line that it said it had, whole, and what is left is their sum', async () => {
    const data = mkdtempSync(join(tmpdir(), 'lantern-killed-'));
    const random = seeded(7);
    let port = 21_000 + Math.floor(process.pid % 9000);
    let child = await serve(data, port);
    const ask = async <T>(method: string, path: string, body?: unknown) => {
      const response = await fetch(`http://127.0.0.1:${port}${path}`, {
        method,
        ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
      });
      return { status: response.status, body: (await response.json()) as T };
    };
    const film = BENCH_SHOP_FILE.films[0]!;
    await ask('POST', '/api/shop/changes', {
      revision: (await ask<Shop>('GET', '/api/shop')).body.revision,
      changes: [{ kind: 'films', value: film }],
    });
    await ask('POST', '/api/shop/pieces', {
      piece: {
        id: 'roll',
        filmId: film.id,
        kind: 'roll',
        widthMm: 590,
        lengthMm: 1000,
        edgeMm: 5,
        place: '',
        note: '',
        retired: false,
      },
      amount: 1000,
      why: 'received',
      note: '',
      sheetId: null,
      revision: (await ask<Shop>('GET', '/api/shop')).body.revision,
    });
    const said = new Map<string, number>([['first', 1000]]);
    const tried = new Set<string>();
    for (let round = 0; round < 3; round += 1) {
      let isOver = false;
      const book = async (worker: number) => {
        for (let i = 0; !isOver; i += 1) {
          const edit = `${round}-${worker}-${i}`;
          const amount = 1 + Math.floor(random() * 500);
          tried.add(edit);
          const answer = await ask<{ revision: number }>('POST', '/api/shop/pieces/roll/lines', {
            act: 'received',
            figure: amount,
            note: edit,
            revision: 1,
            edit,
          }).catch(() => null);
          if (answer?.status === 200) said.set(edit, amount);
        }
      };
      const workers = [0, 1, 2].map(book);
      const target = said.size + 5 + Math.floor(random() * 25);
      while (said.size < target) await new Promise((next) => setImmediate(next));
      await killed(child);
      isOver = true;
      await Promise.all(workers);
      port += 1;
      child = await serve(data, port);
      const lines: StockLine[] = [];
      for (
        let more: StockLine[] = (await ask<StockLine[]>('GET', '/api/shop/lines?piece=roll')).body;
        more.length > 0;
        more = (await ask<StockLine[]>('GET', `/api/shop/lines?piece=roll&before=${more.at(-1)!.id}`)).body
      )
        lines.push(...more);
      const notes = lines.map(({ note }) => note || 'first');
      // Nothing that was said is missing, nothing is there twice, nothing is there that nobody sent.
      expect(new Set(notes).size).toBe(notes.length);
      for (const [edit, amount] of said)
        expect(lines.find(({ note }) => (note || 'first') === edit)?.amount).toBe(amount);
      for (const edit of notes) expect(edit === 'first' || tried.has(edit)).toBe(true);
      expect((await ask<Shop>('GET', '/api/shop')).body.stock[0]!.left).toBe(
        lines.reduce((sum, { amount }) => sum + amount, 0),
      );
    }
    await killed(child);
    rmSync(data, { recursive: true, force: true });
  });
});
