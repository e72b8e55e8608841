import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { BENCH_SHOP_FILE } from '../core/testing/bench-shop.js';
import { newFilm, newMaker, type Film, type RecordChange, type ShopFile } from '../core/shop/index.js';
import { openDatabase } from './db/open-database.js';
import { ShopStore } from './stores/shop-store.js';
import { StockBook } from './stores/stock-book.js';
import { jobWith, openBench, runUntil, startCut, type Bench } from './testing/bench.js';

type Shop = ShopFile & { revision: number; canUndo: boolean; canRedo: boolean };
interface Refusal {
  code: string;
  title: string;
  path?: string;
  lines?: { line: number; message: string }[];
  revision: number;
}

let bench: Bench;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400 });
});
afterAll(() => bench.close());

const shop = async () => (await bench.api<Shop>('GET', '/api/shop')).body;
const change = (changes: readonly { kind: RecordChange['kind']; value: unknown }[], revision: number, edit?: string) =>
  bench.api<Refusal>('POST', '/api/shop/changes', { changes, revision, ...(edit ? { edit } : {}) });
const step = async (name: 'undo' | 'redo') =>
  bench.api<Refusal>('POST', `/api/shop/${name}`, { revision: (await shop()).revision });
const records = async () => {
  const { revision: _r, canUndo: _u, canRedo: _d, ...file } = await shop();
  return file;
};

beforeEach(async () => {
  const { cutters } = await shop();
  await bench.server.services.shop.fill({
    ...BENCH_SHOP_FILE,
    cutters: cutters.map((cutter) => ({ ...cutter, bladeId: null })),
  });
});

describe('records of the shop', () => {
  it('are added, changed, undone and made again, as one step each, also after a restart', async () => {
    const states = [await records()];
    const film = { ...newFilm('sea', 'cast'), name: 'Sea' };
    const write = async (changes: Parameters<typeof change>[0]) => {
      expect((await change(changes, (await shop()).revision)).status).toBe(200);
      states.push(await records());
    };
    await write([
      { kind: 'films', value: film },
      { kind: 'makers', value: newMaker('ilse') },
    ]);
    await write([{ kind: 'films', value: { ...film, costPerM2: 3 } }]);
    await write([{ kind: 'films', value: { ...film, costPerM2: 3, retired: true } }]);
    await bench.restartServer();
    for (let i = 2; i >= 0; i -= 1) {
      expect((await step('undo')).status).toBe(200);
      expect(await records()).toEqual(states[i]);
    }
    for (let i = 1; i <= 3; i += 1) {
      expect((await step('redo')).status).toBe(200);
      expect(await records()).toEqual(states[i]);
    }
    expect([(await step('redo')).body.code, (await shop()).canRedo]).toEqual(['no-step', false]);
  });

  it('are not written over by a page that is behind, and others are', async () => {
    const { films, revision } = await shop();
    const [tar, chalk] = ['tar', 'chalk'].map((id) => films.find((film) => film.id === id)!);
    expect((await change([{ kind: 'films', value: { ...tar, costPerM2: 1 } }], revision)).status).toBe(200);
    const late = await change(
      [
        { kind: 'films', value: { ...chalk, costPerM2: 5 } },
        { kind: 'films', value: { ...tar, costPerM2: 2 } },
      ],
      revision,
    );
    expect([late.status, late.body.code]).toEqual([409, 'shop-changed']);
    // Nothing of a refused step is half done.
    expect((await shop()).films.find((film) => film.id === 'chalk')!.costPerM2).toBe(8.9);
    expect((await change([{ kind: 'films', value: { ...chalk, costPerM2: 5 } }], revision)).status).toBe(200);
  });

  it('are written once, however often the same write is sent', async () => {
    const { revision } = await shop();
    const write = () =>
      change([{ kind: 'films', value: { ...newFilm('once', 'cast'), name: 'Once' } }], revision, 'edit-1');
    const [first, second] = [await write(), await write()];
    expect([first.status, second.status, second.body.revision]).toEqual([200, 200, first.body.revision]);
    await step('undo');
    expect((await shop()).films.some((film) => film.id === 'once')).toBe(false);
  });

  it('are known as they are kept, also when a slow reading of them is overtaken by a write', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'lantern-overtaken-'));
    const db = await openDatabase(folder);
    let go = () => {};
    const slow = new Promise<void>((resolve) => (go = resolve));
    /** A stock book whose sums take their time, once. */
    const book = new (class extends StockBook {
      #isFirst = true;
      override async left() {
        const wait = this.#isFirst;
        this.#isFirst = false;
        if (wait) await slow;
        return super.left();
      }
    })(db);
    const store = new ShopStore(db, book);
    // One reads all of it and is held up; another waits for that, to say what is left of one piece; a third writes meanwhile.
    const read = store.get();
    const told = store.changed('tar-roll');
    await store.change([{ kind: 'makers', id: 'ilse', value: newMaker('ilse') }], { revision: 1_000, who: '' });
    go();
    await Promise.all([read, told]);
    expect(await store.get()).toEqual(await new ShopStore(db, new StockBook(db)).get());
    await db.destroy();
    rmSync(folder, { recursive: true });
  });

  it('of a film that anything hangs on do not go when its adding is undone', async () => {
    await change([{ kind: 'films', value: { ...newFilm('worn', 'cast'), name: 'Worn' } }], (await shop()).revision);
    const piece = {
      id: 'worn-roll',
      filmId: 'worn',
      kind: 'roll',
      widthMm: 590,
      lengthMm: 5000,
      edgeMm: 5,
      place: '',
      note: '',
      retired: false,
    };
    expect(
      (
        await bench.api<Refusal>('POST', '/api/shop/pieces', {
          piece,
          amount: 5000,
          why: 'received',
          note: '',
          sheetId: null,
          revision: (await shop()).revision,
        })
      ).status,
    ).toBe(200);
    const undone = await step('undo');
    expect([undone.status, undone.body.code]).toEqual([409, 'in-use']);
    expect((await shop()).films.some((film) => film.id === 'worn')).toBe(true);
  });

  it('that name what is not there are refused: nothing is half written', async () => {
    const before = await records();
    const { revision, cutters, settings } = await shop();
    for (const [changes, path] of [
      [[{ kind: 'settings', value: { ...settings, cutterId: 'none' } }], 'cutterId'],
      [[{ kind: 'cutters', value: { ...cutters[0], retired: true } }], 'cutterId'],
      [[{ kind: 'cutters', value: { ...cutters[0], bladeId: 'none' } }], 'bladeId'],
      [[{ kind: 'pieces', value: { ...BENCH_SHOP_FILE.stock[0], left: undefined, filmId: 'none' } }], 'filmId'],
    ] as const) {
      const refused = await change([{ kind: 'makers', value: newMaker('half') }, ...changes], revision);
      expect([refused.status, refused.body.path]).toEqual([422, path]);
    }
    expect(await records()).toEqual(before);
  });

  it.each([
    ['a cost that is none', 'films', { ...newFilm('a', 'cast'), costPerM2: 'x' }],
    [
      'a field too many',
      'mats',
      { id: 'm', name: 'm', widthMm: 300, lengthMm: 300, edgeMm: 5, usesBefore: 0, retired: false, shiny: 1 },
    ],
    ['a kind that is none', 'films2', newFilm('a', 'cast')],
    ['an id that is a path', 'films', newFilm('../a', 'cast')],
    [
      'a mat of nothing',
      'mats',
      { id: 'm', name: 'm', widthMm: 0, lengthMm: 300, edgeMm: 5, usesBefore: 0, retired: false },
    ],
    [
      'a day that is none',
      'blanks',
      {
        id: 'b',
        name: 'b',
        kind: 'flat',
        matter: 'wood',
        colour: '#ffffff',
        photo: null,
        readings: [{ what: 'width', mm: 3, on: 'May', by: '', with: 'tape' }],
        trials: [],
        note: '',
        retired: false,
      },
    ],
  ])('with %s are refused', async (_, kind, value) => {
    const refused = await change([{ kind: kind as 'films', value }], (await shop()).revision);
    expect([refused.status, refused.body.code]).toEqual([400, 'body-invalid']);
  });

  it('are read by plans: a film that is retired is not proposed, and cut where it was chosen', async () => {
    const job = await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><rect width="60" height="60" fill="#b3262b"/></svg>',
    );
    const film = async () =>
      (
        await bench.api<{ colours: { film: string }[]; findings: { code: string }[] }>(
          'GET',
          `/api/jobs/${job.id}/plan`,
        )
      ).body;
    expect((await film()).colours[0]!.film).toBe('lock-gate');
    const { films, revision } = await shop();
    await change(
      [{ kind: 'films', value: { ...films.find(({ id }) => id === 'lock-gate'), retired: true } }],
      revision,
    );
    expect((await film()).colours[0]!.film).not.toBe('lock-gate');
    await bench.api('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: { ...job.recipe, films: { ...job.recipe.films, byColour: { '#b3262b': 'lock-gate' } } },
      revision: job.revision,
    });
    const chosen = await film();
    expect([chosen.colours[0]!.film, chosen.findings.map(({ code }) => code).includes('film-retired')]).toEqual([
      'lock-gate',
      true,
    ]);
    expect(
      (await bench.api<{ jobs: { id: string }[] }>('GET', '/api/shop/films/lock-gate/jobs')).body.jobs.map(
        ({ id }) => id,
      ),
    ).toContain(job.id);
  });
});

describe('films as a table', () => {
  const take = async (text: string | Uint8Array) =>
    bench.api<Refusal & { added: number; changed: number }>(
      'POST',
      `/api/shop/films.csv?revision=${(await shop()).revision}`,
      typeof text === 'string' ? new TextEncoder().encode(text) : text,
    );

  it('go out and come back as they were', async () => {
    const before = await records();
    const text = await (await fetch(`${bench.server.url}/api/shop/films.csv`)).text();
    expect((await take(text)).body).toMatchObject({ added: 0, changed: before.films.length });
    expect(await records()).toEqual(before);
  });

  it('come in as one step that can be undone', async () => {
    const before = await records();
    expect((await take('name,family\nSea,cast\nHay,flock\n')).body).toMatchObject({ added: 2, changed: 0 });
    expect((await shop()).films.map(({ name }) => name)).toEqual(expect.arrayContaining(['Sea', 'Hay']));
    await step('undo');
    expect(await records()).toEqual(before);
  });

  it('with a wrong line are told by line, and nothing of them is taken', async () => {
    const before = await records();
    const refused = await take(
      'name,family,cost per m²,thickness µm\nSea,cast,3,55\nHay,flock,-4,55\nOak,velvet,3,55\nFig,cast,3,9999999\n',
    );
    expect([refused.status, refused.body.lines]).toEqual([
      422,
      [{ line: 4, message: expect.stringMatching(/^family: It must be one of these: /) }],
    ]);
    const ranges = await take(
      'name,family,cost per m²,thickness µm\nSea,cast,3,55\nHay,flock,-4,55\nFig,cast,3,9999999\n',
    );
    expect(ranges.body.lines).toEqual([
      { line: 3, message: 'cost per m²: It must be from 0 to 10000.' },
      { line: 4, message: 'thickness µm: It must be from 10 to 2000.' },
    ]);
    expect(await records()).toEqual(before);
  });

  it('that are no text, or another table, get a sentence', async () => {
    expect((await take(new Uint8Array([0xff, 0xfe, 0x00, 0xd8]))).body.title).toContain('UTF-8');
    expect((await take('price;what\n3;film\n')).body.lines![0]).toMatchObject({ line: 1 });
  });
});

describe('pictures', () => {
  const hand = (bytes: Uint8Array, fileName: string) =>
    bench.api<Refusal & { picture: { id: string }; ratio: number }>(
      'POST',
      `/api/shop/pictures?fileName=${encodeURIComponent(fileName)}`,
      bytes,
    );
  const svg = new TextEncoder().encode(
    '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><script>alert(1)</script></svg>',
  );

  it('are given back as what they are, where they can do nothing', async () => {
    const { body } = await hand(svg, 'tiles.svg');
    expect(body.ratio).toBe(0.5);
    const answer = await fetch(`${bench.server.url}/api/shop/pictures/${body.picture.id}`);
    expect([
      answer.headers.get('content-type'),
      answer.headers.get('content-security-policy'),
      Buffer.from(await answer.arrayBuffer()).equals(Buffer.from(svg)),
    ]).toEqual(['image/svg+xml', expect.stringMatching(/default-src 'none'.*sandbox/), true]);
  });

  it('that are none, or too large, get a sentence', async () => {
    const none = await hand(new TextEncoder().encode('name,family'), 'films.csv');
    expect([none.status, none.body.code]).toEqual([422, 'no-picture']);
    const large = await hand(new Uint8Array(40_000_000), 'photo.jpg');
    expect([large.status, large.body.title]).toEqual([413, 'It is too large: at most 20 MB are taken.']);
  });
});

describe('tools', () => {
  it('are worn by what is cut: a mat by its uses, a blade by its metres; and who cut it stands in the book', async () => {
    const { cutters, revision } = await shop();
    await change(
      [
        {
          kind: 'blades',
          value: {
            id: 'keen',
            name: 'keen',
            angleDeg: '45',
            offsetMm: 0.25,
            metresBefore: 0,
            note: '',
            retired: false,
          },
        },
        { kind: 'cutters', value: { ...cutters[0], bladeId: 'keen' } },
        { kind: 'makers', value: { ...newMaker('ilse'), name: 'Ilse' } },
      ],
      revision,
    );
    const job = await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><rect width="60" height="60" fill="#b3262b"/></svg>',
    );
    const plan = (
      await bench.api<{ sheets: { id: string; mat: string | null; cutMm: number }[] }>(
        'GET',
        `/api/jobs/${job.id}/plan`,
      )
    ).body;
    const sheet = plan.sheets[0]!;
    const answer = await fetch(`${bench.server.url}/api/batches/${job.id}/sheets/${sheet.id}/cut`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Lantern-Maker': 'ilse' },
      body: JSON.stringify({ loadedFilmIds: ['lock-gate'], revision: 0 }),
    });
    const { id } = (await answer.json()) as { id: string };
    await runUntil(bench, id, (run) => run.state === 'finished');
    const wear = (
      await bench.api<{ mats: Record<string, number>; blades: Record<string, number> }>('GET', '/api/shop/wear')
    ).body;
    expect(wear.mats).toEqual(sheet.mat === null ? {} : { [sheet.mat]: 1 });
    expect(wear.blades['keen']).toBeCloseTo(sheet.cutMm / 1000, 6);
    const [line] = (await bench.api<{ who: string; why: string; sheetId: string | null }[]>('GET', '/api/shop/lines'))
      .body;
    expect(line).toMatchObject({ who: 'Ilse', why: 'used', sheetId: expect.any(String) as string });
  });

  it('that are given files are not sent anything', async () => {
    const { cutters, revision } = await shop();
    await change([{ kind: 'cutters', value: { ...cutters[0], host: null } }], revision);
    const job = await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><rect width="60" height="60" fill="#b3262b"/></svg>',
    );
    const refused = await startCut(bench, job.id, 'lock-gate');
    expect([refused.status, refused.body.code]).toEqual([409, 'cutter-takes-files']);
    await change([{ kind: 'cutters', value: cutters[0] }], (await shop()).revision);
  });
});

it('a shop that was never written has a cutter that is given files, and no film', async () => {
  const empty = await openBench({ isEmpty: true });
  try {
    const { body } = await empty.api<Shop>('GET', '/api/shop');
    expect([body.films, body.cutters.map(({ host }) => host), body.settings.name]).toEqual([[], [null], 'Our shop']);
    // Its first write is a whole one.
    const film: Film = { ...newFilm('a', 'cast'), name: 'A' };
    expect(
      (
        await empty.api('POST', '/api/shop/changes', {
          revision: body.revision,
          changes: [
            { kind: 'films', value: film },
            { kind: 'cutters', value: body.cutters[0] },
            { kind: 'settings', value: { ...body.settings, name: 'Quay Signs' } },
          ],
        })
      ).status,
    ).toBe(200);
    expect((await empty.api<Shop>('GET', '/api/shop')).body.settings.name).toBe('Quay Signs');
  } finally {
    await empty.close();
  }
});
