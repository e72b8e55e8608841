import { chmodSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gunzipSync } from 'node:zlib';
import Database from 'better-sqlite3';
import createKnex, { type Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { MIGRATIONS } from './db/migrations/index.js';
import { backupName, copyDatabase } from './db/copy-database.js';
import { databaseFile, openDatabase } from './db/open-database.js';
import { emptyRecipe } from '../core/recipe/index.js';
import { RECIPE_VERSION } from '../core/recipe/recipe.js';
import { letteringPart, newLettering } from '../core/stations/artwork/index.js';
import { packLists, standings, unpackLists } from '../core/stations/cut/index.js';
import { storesOn } from './testing/stores-on.js';
import { newCutter, newFilm, newMaker, parseShop, type Film, type Maker } from '../core/shop/index.js';

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

  it('is its owner’s alone, and so is a copy of it', async () => {
    const [old, backups] = [mkdtempSync(join(tmpdir(), 'lantern-open-')), mkdtempSync(join(tmpdir(), 'lantern-copy-'))];
    chmodSync(old, 0o755);
    await (await openDatabase(old)).destroy();
    const made = join(old, 'a', 'b');
    await (await openDatabase(made)).destroy();
    const copy = backupName(join(backups, 'new'), 'shop');
    copyDatabase(databaseFile(old), copy);
    expect([old, made, join(backups, 'new'), copy].map((path) => statSync(path).mode & 0o077)).toEqual([0, 0, 0, 0]);
  });

  it('refuses a run of a job that does not exist', async () => {
    await expect(db('recipes').insert({ job_id: 'nobody', position: 0, recipe: '{}', created_at: '' })).rejects.toThrow(
      /FOREIGN KEY/,
    );
  });

  it('stores what it is given as lists and gives it back', () => {
    const lists = [[1, -2, 3], [], [2 ** 31 - 1]];
    expect(unpackLists(packLists(lists)).map((list) => [...list])).toEqual(lists);
  });
});

/** A film as versions before drawing back, hiding and glue kept it. */
const OLD_TAR = {
  id: 'tar',
  name: 'Tar black',
  family: 'calendered',
  colour: '#16181a',
  finish: 'gloss',
  directional: false,
  thicknessUm: 75,
  thinnestMm: 1,
  shrinkPct: 0.3,
  takesOnTop: true,
  mirrored: false,
  costPerM2: 6,
  forceG: 95,
  speedMmS: 200,
};

const bare = (folder: string) =>
  createKnex({ client: 'better-sqlite3', connection: { filename: databaseFile(folder) }, useNullAsDefault: true });

/** A database as it was when a version was the newest. */
async function migrateTo(db: Knex, newest: string): Promise<void> {
  const names = Object.keys(MIGRATIONS).slice(0, Object.keys(MIGRATIONS).indexOf(newest) + 1);
  await db.migrate.latest({
    migrationSource: {
      getMigrations: () => Promise.resolve(names),
      getMigrationName: (name: string) => name,
      getMigration: (name: string) => Promise.resolve(MIGRATIONS[name]!),
    },
  });
}

describe('a database from before films said how bulky waste may be', () => {
  it('has that of every film, of makers, of what can be undone, and of sheets with pieces side by side', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'lantern-010-'));
    const old = bare(folder);
    await migrateTo(old, '010-batches');
    const without = ({ stripBulkMm: _, ...record }: Film | Maker) => record;
    const [tar, cast, ilse] = [
      without(newFilm('tar', 'polymeric')),
      without(newFilm('cast', 'cast')),
      without(newMaker('ilse')),
    ];
    for (const [kind, record] of [
      ['films', tar],
      ['films', cast],
      ['makers', ilse],
    ] as const)
      await old('shop_records').insert({ kind, id: record.id, rank: 0, data: JSON.stringify(record), revision: 1 });
    await old('shop_history').insert({
      position: 1,
      changes: JSON.stringify([
        { kind: 'films', id: 'tar', before: { ...tar, name: 'Before' }, after: tar },
        { kind: 'makers', id: 'ilse', before: null, after: ilse },
      ]),
      at: '2026-01-01',
      who: '',
    });
    const sheet = {
      created_at: '2026-01-01',
      film: JSON.stringify(tar),
      piece: null,
      mat: null,
      used_length_mm: 90,
      kept_mm2: 400,
      film_mm2: 900,
      film_cost: 1,
      cut_mm: 80,
      estimate_seconds: 9,
      pairs_total: 0,
      leftovers: '[]',
    };
    const zone = (film: object) => ({ xMm: 0, yMm: 0, widthMm: 90, lengthMm: 90, film, piece: { id: 'p' } });
    await old('sheets').insert([
      { ...sheet, id: 'alone', zones: null },
      { ...sheet, id: 'zoned', zones: JSON.stringify([zone(tar), zone({ ...cast, stripBulkMm: 60 })]) },
    ]);
    await old('jobs').insert({ id: 'job', title: 'job', customer: '', position: 0, created_at: '', updated_at: '' });
    for (const id of ['alone', 'zoned'])
      await old('sheet_groups').insert({
        sheet_id: id,
        position: 0,
        job_id: 'job',
        copy: 0,
        film_id: 'tar',
        kept_mm2: 1,
        fingerprint: 'f',
        matrix: '[1,0,0,1,0,0]',
        contours: 1,
        marks: 0,
        borders: 0,
        weed_places: '[]',
      });
    await old.destroy();

    const db = await openDatabase(folder);
    const read = async (table: string, column: string) =>
      (await db<Record<string, string>>(table).select(column).whereNotNull(column)).map(
        (row) => JSON.parse(row[column]!) as Record<string, never>,
      );
    expect((await read('shop_records', 'data')).map(({ id, stripBulkMm }) => [id, stripBulkMm]).sort()).toEqual([
      ['cast', 80],
      ['ilse', null],
      ['tar', 80],
    ]);
    expect(await read('shop_history', 'changes')).toMatchObject([
      [
        { before: { name: 'Before', stripBulkMm: 80 }, after: { stripBulkMm: 80 } },
        { before: null, after: { stripBulkMm: null } },
      ],
    ]);
    expect((await read('sheets', 'film')).map(({ stripBulkMm }) => stripBulkMm)).toEqual([80, 80]);
    // What one of them says itself stays.
    expect(await read('sheets', 'zones')).toMatchObject([
      [{ film: { stripBulkMm: 80 } }, { film: { stripBulkMm: 60 } }],
    ]);
    expect(await db('sheet_groups').select('per_strip')).toEqual([{ per_strip: 1 }, { per_strip: 1 }]);
    await db.destroy();
  });
});

describe('a database from before cutters said how they hold a roll', () => {
  it('has that of every cutter, and of what can be undone; what was said otherwise stays', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'lantern-011-'));
    const old = bare(folder);
    await migrateTo(old, '011-gangs');
    const { leaderMm: _, tailMm: __, ...cutter } = newCutter('bench');
    await old('shop_records').insert({
      kind: 'cutters',
      id: 'bench',
      rank: 0,
      data: JSON.stringify(cutter),
      revision: 1,
    });
    await old('shop_records').insert({
      kind: 'makers',
      id: 'ilse',
      rank: 0,
      data: JSON.stringify(newMaker('ilse')),
      revision: 1,
    });
    await old('shop_history').insert({
      position: 1,
      changes: JSON.stringify([
        { kind: 'cutters', id: 'bench', before: null, after: cutter },
        { kind: 'makers', id: 'ilse', before: null, after: newMaker('ilse') },
      ]),
      at: '2026-01-01',
      who: '',
    });
    await old.destroy();

    const db = await openDatabase(folder);
    const records = await db<{ id: string; data: string }>('shop_records').orderBy('id');
    expect(records.map(({ data }) => JSON.parse(data) as unknown)).toEqual([newCutter('bench'), newMaker('ilse')]);
    const [{ changes }] = (await db<{ changes: string }>('shop_history').select('changes')) as [{ changes: string }];
    expect(JSON.parse(changes)).toEqual([
      { kind: 'cutters', id: 'bench', before: null, after: newCutter('bench') },
      { kind: 'makers', id: 'ilse', before: null, after: newMaker('ilse') },
    ]);
    await db.destroy();
  });
});

describe('a database from before copies were judged', () => {
  it('says of copies what was said of runs, and knows what rests complete, what is open, and which edits were done', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'lantern-013-'));
    const old = bare(folder);
    await migrateTo(old, '013-spoils');
    await old('jobs').insert({
      id: 'j',
      title: 'J',
      customer: '',
      position: 1,
      revision: 4,
      parts: 0,
      search_text: 'j',
      last_edit: 'e',
      created_at: '',
      updated_at: '2026-01-01',
    });
    const sheet = async (
      id: string,
      restOf: string | null,
      groups: readonly (readonly [copy: number, parts: number])[],
    ) => {
      const parts = groups.flatMap(([, many]) => Array.from({ length: many }, (_, part) => part));
      await old('sheets').insert({
        id,
        created_at: id,
        film: JSON.stringify(OLD_TAR),
        used_length_mm: 1,
        kept_mm2: 1,
        film_mm2: 1,
        film_cost: 1,
        cut_mm: 1,
        estimate_seconds: 1,
        pairs_total: 99,
        rest_of: restOf,
        leftovers: '[]',
      });
      for (const [position, [copy, contours]] of groups.entries())
        await old('sheet_groups').insert({
          sheet_id: id,
          position,
          job_id: 'j',
          copy,
          film_id: 'tar',
          kept_mm2: 1,
          fingerprint: 'f',
          matrix: '[1,0,0,1,0,0]',
          contours,
          marks: 0,
          borders: 0,
          weed_places: '[]',
        });
      await old('programs').insert({
        sheet_id: id,
        force_g: 1,
        speed_mm_s: 1,
        runs: Buffer.from(packLists([])),
        whole_at: Buffer.from(packLists([parts.map((_, i) => (i + 1) * 10)])),
        part_of: Buffer.from(packLists([parts])),
        outlines: Buffer.from(packLists([])),
      });
    };
    const run = (id: string, sheetId: string, state: string, pairs: number, outcome: string | null) =>
      old('runs').insert({
        id,
        sheet_id: sheetId,
        state,
        message: '',
        pairs_done: pairs,
        share: 0,
        note: '',
        started_at: id,
        outcome,
        whole: JSON.stringify({ parts: 3, ofParts: 4, copies: 1, ofCopies: 2 }),
        finished_at: id,
      });
    await sheet('s', null, [
      [0, 2],
      [1, 2],
    ]);
    await sheet('t-rest', 's', [[1, 1]]);
    await sheet('u', null, [[2, 1]]);
    await run('r1', 's', 'cancelled', 35, null);
    await run('r2', 't-rest', 'finished', 99, 'remake');
    await run('r3', 'u', 'finished', 99, 'good');
    await old.destroy();

    const db = await openDatabase(folder);
    const { sheets } = storesOn(db);
    const [first, rest, other] = await sheets.ofJob('j');
    expect(first!.groups.map(({ verdict, of, asked }) => [verdict, of, asked])).toEqual([
      [null, null, null],
      ['spoiled', null, null],
    ]);
    expect(rest!.groups.map(({ verdict, of }) => [verdict, of])).toEqual([['spoiled', 1]]);
    expect([other!.groups[0]!.verdict, other!.runs[0]!.bookedMm2, other!.backMm2]).toEqual(['good', null, 0]);
    expect(first!.runs[0]!.whole!.byCopy).toEqual([
      { parts: 2, open: [] },
      { parts: 2, open: [1] },
    ]);
    expect(await db('edits').select('of', 'name')).toEqual([{ of: 'j', name: 'e' }]);
    expect(await db.raw('pragma foreign_key_check')).toEqual([]);
    await db.destroy();
  });
});

describe('a database of an older version', () => {
  /** As it was before sheets were kept: a job that was cut, one half cut, and one in the middle of it. */
  async function older(folder: string): Promise<void> {
    const db = bare(folder);
    await migrateTo(db, '002-fonts');
    const lettering = letteringPart('l', newLettering('Quay'));
    const recipe = (title: string) =>
      JSON.stringify({ ...emptyRecipe(title), artworks: title.startsWith('open') ? [lettering] : [] });
    for (const [id, sheets] of [
      ['cut', 1],
      ['half', 2],
      ['open', 1],
    ] as const) {
      await db('jobs').insert({
        id,
        title: id,
        customer: '',
        position: 3,
        sheets_total: sheets,
        created_at: '2026-01-01',
        updated_at: '2026-01-01',
      });
      for (const position of [2, 3, 4])
        await db('recipes').insert({
          job_id: id,
          position,
          recipe: recipe(`${id} ${position}`),
          created_at: '2026-01-01',
        });
    }
    await db('films').insert({ id: 'tar', rank: 0, data: JSON.stringify(OLD_TAR) });
    await db('films').insert({
      id: 'apron',
      rank: 1,
      data: JSON.stringify({ ...OLD_TAR, id: 'apron', family: 'heatTransfer', shrinkPct: 0.6, thinnestMm: 0.8 }),
    });
    await db('films').insert({
      id: 'cast',
      rank: 2,
      data: JSON.stringify({ ...OLD_TAR, id: 'cast', family: 'cast', thinnestMm: 0.8 }),
    });
    await db('pieces').insert({
      id: 'p',
      film_id: 'tar',
      data: JSON.stringify({ id: 'p', filmId: 'tar', kind: 'roll', widthMm: 590, lengthMm: 1000, quantity: 1 }),
    });
    await db('mats').insert({ id: 'm', data: JSON.stringify({ id: 'm', name: 'mat', widthMm: 300, lengthMm: 300 }) });
    const run = (id: string, job: string, sheet: number, state: string, more: object = {}) =>
      db('runs').insert({
        id,
        job_id: job,
        sheet,
        film_id: 'tar',
        state,
        message: `was ${state}`,
        program: JSON.stringify({
          runs: [
            [0, 0, 400, 0],
            [40, 40, 40, 400, 80, 80],
          ],
          forceG: 90,
          speedMmS: 200,
        }),
        pairs_total: 6,
        pairs_done: 6,
        estimate_seconds: 12,
        actual_seconds: 11,
        cut_mm: 19,
        film_mm2: 5000,
        film_cost: 0.2,
        note: 'a note',
        started_at: `2026-01-0${sheet}`,
        finished_at: state === 'interrupted' ? null : '2026-01-03',
        ...more,
      });
    await run('r1', 'cut', 1, 'finished', { outcome: 'good' });
    await run('r2', 'half', 1, 'finished');
    await run('r3', 'half', 2, 'cancelled', { pairs_done: 2, film_id: 'gone' });
    await run('r4', 'open', 1, 'interrupted', { pairs_done: 3, pairs_base: 10, boot: 77, meter_ms: 5 });
    await db.destroy();
  }

  it('opens, after it was backed up, with its runs kept as what they were', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'lantern-old-'));
    await older(folder);
    const db = await openDatabase(folder);
    const { shop, sheets, runs, jobs } = storesOn(db);
    const kept = await sheets.ofJobs(['cut', 'half', 'open']);
    for (const { film, groups, keptMm2, leftovers, zones } of kept) {
      expect([groups.every(({ filmId }) => filmId === film.id), leftovers, zones]).toEqual([true, [], null]);
      expect(groups.reduce((sum, group) => sum + group.keptMm2, 0)).toBeCloseTo(keptMm2, 6);
    }
    expect(
      kept
        .map((sheet) => [
          sheet.groups[0]!.jobId,
          sheet.film.name,
          sheet.cutMm,
          sheet.filmMm2,
          sheet.runs[0]!.id,
          sheet.runs[0]!.state,
          sheet.runs[0]!.note,
          sheet.runs[0]!.actualSeconds,
          sheet.groups[0]!.verdict,
        ])
        .sort(),
    ).toEqual([
      ['cut', 'Tar black', 19, 5000, 'r1', 'finished', 'a note', 11, 'good'],
      ['half', 'Tar black', 19, 5000, 'r2', 'finished', 'a note', 11, null],
      ['half', 'gone', 19, 5000, 'r3', 'cancelled', 'a note', 11, null],
      ['open', 'Tar black', 19, 5000, 'r4', 'interrupted', 'a note', 11, null],
    ]);
    // A cut under way can go on from where it was.
    expect((await runs.open()).map((run) => run.id)).toEqual(['r4']);
    const { stored, program } = await runs.cutOf('r4');
    expect([stored.bearings, stored.pairsDone, program.runs.map((list) => [...list])]).toEqual([
      { pairsBase: 10, boot: 77, meterMs: 5 },
      3,
      [
        [0, 0, 400, 0],
        [40, 40, 40, 400, 80, 80],
      ],
    ]);
    expect(
      Object.fromEntries(
        (await jobs.list({ search: '', state: null, from: 0, most: 10 })).jobs.map((job) => [job.id, job.state]),
      ),
    ).toEqual({ cut: 'cut', half: 'new', open: 'cutting' });
    // What has something to show of is named, so that its picture can be made.
    expect(
      Object.fromEntries(
        (await jobs.list({ search: '', state: null, from: 0, most: 10 })).jobs.map((job) => [job.id, job.design]),
      ),
    ).toEqual({ cut: null, half: null, open: expect.stringMatching(/^[0-9a-f]{64}$/) });
    // What was cut then is never taken for what is wanted now, and nobody is asked about what is long decided.
    expect([...standings(kept).values()].sort()).toEqual(['good', 'good', 'in-cutter', 'thrown-away']);
    // Stuck down, a film does not shrink as a whole; its edges draw back. Pressed ones keep what they were told.
    const { films } = await shop.get();
    expect(films[0]).toEqual({
      ...newFilm('tar', 'calendered'),
      ...OLD_TAR,
      shrinkPct: 0,
      drawBackIndoorsMm: 0.12,
      drawBackSunMm: 0.3,
      opacityPct: 95,
      adhesive: 'permanent',
      adhesiveColour: 'clear',
    });
    expect(films[1]).toMatchObject({
      shrinkPct: 0.6,
      drawBackSunMm: 0,
      adhesive: null,
      adhesiveColour: null,
      thinnestMm: 0.8,
    });
    expect([films[2]!.drawBackIndoorsMm, films[2]!.thinnestMm]).toEqual([0.04, 1]);
    expect(kept.every((sheet) => sheet.film.drawBackIndoorsMm === 0.12)).toBe(true);
    // How bulky waste may be was not known then; every copy was by itself.
    expect([...films, ...kept.map((sheet) => sheet.film)].every(({ stripBulkMm }) => stripBulkMm === 80)).toBe(true);
    expect(kept.flatMap(({ groups }) => groups).every(({ perStrip }) => perStrip === 1)).toBe(true);
    // Revisions go on above every number that was given.
    expect((await jobs.get('cut')).revision).toBe(4);
    expect([(await shop.get()).stock[0]!.edgeMm, await db.raw('pragma foreign_key_check')]).toEqual([5, []]);
    await db.destroy();
    const copies = readdirSync(join(folder, 'backups'));
    expect(copies).toEqual([expect.stringMatching(/^before-003-frozen-sheets-.*\.sqlite$/)]);
    const copy = new Database(join(folder, 'backups', copies[0]!), { readonly: true });
    expect(copy.prepare('select count(*) as n from runs').get()).toEqual({ n: 4 });
    copy.close();
    // Opened again, it is not backed up again.
    await (await openDatabase(folder)).destroy();
    expect(readdirSync(join(folder, 'backups'))).toHaveLength(1);
  });
});

describe('a database of the last version', () => {
  const unpacked = () => {
    const at = mkdtempSync(join(tmpdir(), 'lantern-006-'));
    writeFileSync(
      databaseFile(at),
      gunzipSync(readFileSync(new URL('testing/database-006.sqlite.gz', import.meta.url))),
    );
    return at;
  };

  it('opens with all it held: jobs, sheets, runs, films, pieces, mats and the cutter', async () => {
    const at = unpacked();
    const before = new Database(databaseFile(at), { readonly: true });
    const read = (sql: string) => before.prepare(sql).all() as Record<string, string>[];
    const json = (table: string) =>
      read(`select data from ${table} order by ${table === 'films' ? 'rank' : 'id'}`).map(
        ({ data }) => JSON.parse(data!) as Record<string, unknown>,
      );
    const old = {
      films: json('films'),
      pieces: json('pieces') as { id: string; kind: string; lengthMm: number; quantity: number; widthMm: number }[],
      mats: json('mats'),
      cutters: json('cutters'),
      jobs: read('select id, title, customer, due from jobs'),
      sheets: read('select id, film from sheets'),
      runs: read('select id, state, note from runs'),
    };
    before.close();
    expect([old.films.length, old.pieces.length, old.jobs.length, old.runs.length].every((n) => n > 0)).toBe(true);
    const db = await openDatabase(at);
    const { book, shop, sheets, jobs } = storesOn(db);
    const now = await shop.whole();
    expect(now.films).toMatchObject(old.films);
    expect(now.mats).toMatchObject(old.mats);
    expect(now.cutter).toMatchObject(old.cutters[0]!);
    for (const { id, kind, lengthMm, quantity, widthMm } of old.pieces) {
      const piece = now.stock.find((one) => one.id === id)!;
      expect([piece.left, piece.widthMm, piece.number !== null]).toEqual([
        kind === 'roll' ? lengthMm : quantity,
        widthMm,
        kind === 'offcut',
      ]);
      // And it says why so much is left.
      expect(await book.lines({ pieceId: id, most: 9 })).toMatchObject([{ why: 'received', amount: piece.left }]);
    }
    for (const { id, title, customer, due } of old.jobs)
      expect(await jobs.get(id!)).toMatchObject({ title, customer, due, recipe: { version: RECIPE_VERSION } });
    const kept = await sheets.ofJobs(old.jobs.map(({ id }) => id!));
    expect(kept.map(({ id }) => id).sort()).toEqual(old.sheets.map(({ id }) => id!).sort());
    for (const { id, film } of old.sheets)
      expect(kept.find((sheet) => sheet.id === id)!.film).toMatchObject(JSON.parse(film!) as object);
    const runs = kept.flatMap((sheet) => sheet.runs);
    for (const run of old.runs)
      expect(runs.find(({ id }) => id === run['id'])).toMatchObject({ state: run['state'], note: run['note'] });
    // What it holds is right by the schemas of today.
    const { revision: _r, canUndo: _u, canRedo: _d, pieces: _p, cutter: _c, ...file } = now;
    expect(parseShop(file)).toEqual(file);
    expect(await db.raw('pragma foreign_key_check')).toEqual([]);
    expect(readdirSync(join(at, 'backups'))).toEqual([expect.stringMatching(/^before-007-shop-/)]);
    await db.destroy();
  });
});
