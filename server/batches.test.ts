import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Batch, BatchView, BetterView } from '../core/batch/index.js';
import type { PlanReport } from '../core/plan/index.js';
import { patchRecipe, type Job, type JobSummary, type RecipePatch } from '../core/recipe/index.js';
import type { ShopFile } from '../core/shop/index.js';
import { standings, type FrozenSheet, type Run } from '../core/stations/cut/index.js';
import { BENCH_SHOP_FILE } from '../core/testing/bench-shop.js';
import { seeded } from '../core/testing/seeded.js';
import { nameOfBatch } from './compute/compute.js';
import {
  asAtFirst,
  cutsOf,
  emptyCutter,
  jamAt,
  jobWith,
  openBench,
  runUntil,
  startCut,
  type Bench,
} from './testing/bench.js';

/* Jobs that are cut together: what is cut of one is cut once, whichever batch it lies in, and the stock balances. */

const BADGE = `<svg xmlns="http://www.w3.org/2000/svg" width="70mm" height="50mm" viewBox="0 0 70 50">
  <rect x="2" y="2" width="66" height="46" fill="#b3262b"/><circle cx="20" cy="25" r="9" fill="#f7f5ef"/><path d="M36 22h26v6h-26z" fill="#f7f5ef"/>
</svg>`;
const NAME = `<svg xmlns="http://www.w3.org/2000/svg" width="120mm" height="30mm" viewBox="0 0 120 30"><path d="M4 4h50v22h-50z M66 4h50v22h-50z" fill="#b3262b"/></svg>`;

let bench: Bench;
let jobs: readonly Job[];
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400 });
});
afterAll(() => bench.close());
beforeEach(async () => {
  await asAtFirst(bench);
  const own: RecipePatch = { surface: { size: { mode: 'own' } }, preparation: { labels: false } };
  jobs = [
    await jobWith(bench, BADGE, (recipe) => patchRecipe(recipe, own)),
    await jobWith(bench, NAME, (recipe) => patchRecipe(recipe, { ...own, sheets: { copies: 2 } })),
  ];
});
afterEach(async () => {
  await emptyCutter(bench);
  for (const batch of (await bench.api<Batch[]>('GET', '/api/batches')).body)
    await bench.api('POST', `/api/batches/${batch.id}/end`, { revision: batch.revision });
});

type Refused = { code: string; title: string };
const put = async (some: readonly Job[]) =>
  (await bench.api<Batch>('POST', '/api/batches', { jobIds: some.map(({ id }) => id) })).body;
const now = async (batch: Batch) => (await bench.api<Batch>('GET', `/api/batches/${batch.id}`)).body;
const planOf = async (batch: Batch) => (await bench.api<BatchView>('GET', `/api/batches/${batch.id}/plan`)).body;
const filmsOf = (sheet: BatchView['sheets'][number]) =>
  sheet.zones ? sheet.zones.map(({ film }) => film.id) : [sheet.film.id];
const send = async (batch: Batch, sheet: BatchView['sheets'][number], more: object = {}) =>
  bench.api<Run & Refused>('POST', `/api/batches/${batch.id}/sheets/${sheet.id}/cut`, {
    revision: (await now(batch)).revision,
    loadedFilmIds: filmsOf(sheet),
    ...more,
  });
const finished = (run: Run) => run.state === 'finished';
const cut = async (batch: Batch, sheet: BatchView['sheets'][number]) =>
  runUntil(bench, (await send(batch, sheet)).body.id, finished);
/** Cuts a sheet until so much of it is done, then cancels it. */
const cutInPart = async (batch: Batch, sheet: BatchView['sheets'][number], share: number) => {
  const run = await jamAt(bench, share, async () => (await send(batch, sheet)).body);
  await bench.api('POST', `/api/runs/${run.id}/cancel`);
  const ended = await runUntil(bench, run.id, ({ state }) => state === 'cancelled');
  await bench.api('POST', '/api/cutter/control', { do: 'clear' });
  return ended;
};
const change = async (job: Job, patch: RecipePatch) => {
  const { body } = await bench.api<Job>('GET', `/api/jobs/${job.id}`);
  return (
    await bench.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: patchRecipe(body.recipe, patch),
      revision: body.revision,
    })
  ).body;
};
const stateOf = async (job: Job) =>
  (await bench.api<JobSummary[]>('GET', '/api/jobs')).body.find(({ id }) => id === job.id)!.state;
const shop = async () => (await bench.api<ShopFile & { revision: number }>('GET', '/api/shop')).body;
const sheetOf = async (id: string) => (await bench.api<FrozenSheet>('GET', `/api/sheets/${id}`)).body;

describe('jobs that are put together', () => {
  it('lie on the same sheets, which carry copies of both, and are cut there and nowhere else', async () => {
    const batch = await put(jobs);
    const plan = await planOf(batch);
    expect(plan).toMatchObject({ short: [], stopped: [] });
    const carried = plan.sheets.flatMap((sheet) =>
      sheet.carries.map(({ jobId, filmId, copies }) => [jobs.findIndex(({ id }) => id === jobId), filmId, copies]),
    );
    expect(carried.sort()).toEqual([
      [0, 'chalk', 1],
      [0, 'lock-gate', 1],
      [1, 'lock-gate', 2],
    ]);
    const red = plan.sheets.find((sheet) => filmsOf(sheet).includes('lock-gate'))!;
    expect(new Set(red.carries.map(({ jobId }) => jobId)).size).toBe(2);
    expect((await startCut(bench, jobs[0]!.id, 'lock-gate')).body).toMatchObject({ code: 'job-in-batch' });
    for (const sheet of plan.sheets) {
      const run = await cut(batch, sheet);
      // What is weeded meanwhile makes it no other batch: nothing that is looked at is refused for it.
      const before = nameOfBatch(await bench.server.services.sourceOfBatch(batch.id));
      const [{ weedPlaces }] = (await sheetOf(run.sheetId)).groups as [FrozenSheet['groups'][number]];
      await bench.api('PUT', `/api/sheets/${run.sheetId}/ticks`, {
        ticked: true,
        places: weedPlaces.map((place) => ({ position: 0, ...place })),
      });
      expect(nameOfBatch(await bench.server.services.sourceOfBatch(batch.id))).toBe(before);
    }
    expect((await planOf(batch)).sheets).toEqual([]);
    expect([await stateOf(jobs[0]!), await stateOf(jobs[1]!)]).toEqual(['cut', 'cut']);
    // Apart again, nothing of them is left to be cut.
    await bench.api('POST', `/api/batches/${batch.id}/end`, { revision: (await now(batch)).revision });
    for (const { id } of jobs)
      expect((await bench.api<{ sheets: unknown[] }>('GET', `/api/jobs/${id}/plan`)).body.sheets).toEqual([]);
  });

  it('a sheet is refused when anything that it hangs on is another by now, and other films are', async () => {
    const batch = await put(jobs);
    const plan = await planOf(batch);
    const sheet = plan.sheets[0]!;
    expect((await send(batch, sheet, { loadedFilmIds: ['tar'] })).body.code).toBe('wrong-film');
    expect((await send(batch, sheet, { revision: 0 })).body.code).toBe('sheet-changed');
    await change(jobs[1]!, { sheets: { copies: 3 } });
    const red = plan.sheets.find((one) => filmsOf(one).includes('lock-gate'))!;
    expect((await send(batch, red)).body.code).toBe('sheet-changed');
    expect(await bench.server.services.runs.open()).toEqual([]);
    const wish = (await now(batch)).wish;
    const kept = await bench.api<Batch & Refused>('PATCH', `/api/batches/${batch.id}`, {
      revision: batch.revision,
      wish: { ...wish, spacingMm: 9 },
    });
    expect(kept.body.wish.spacingMm).toBe(9);
    expect(
      (await bench.api<Refused>('PATCH', `/api/batches/${batch.id}`, { revision: batch.revision, wish })).body.code,
    ).toBe('batch-changed');
  });

  it('a job lies in one batch: put into another it leaves the first, which ends when it was its last', async () => {
    const first = await put(jobs);
    const decided = { ...first.wish, spacingMm: 7, sharesBorders: true, oneDirection: false, avoid: ['chalk-offcut'] };
    await bench.api('PATCH', `/api/batches/${first.id}`, { revision: first.revision, wish: decided });
    const second = await put([jobs[0]!]);
    // Decided as the last, but for what hung on its own pieces.
    expect(second.wish).toEqual({ ...decided, avoid: [] });
    expect((await now(first)).jobs.map(({ id }) => id)).toEqual([jobs[1]!.id]);
    await put([jobs[1]!]);
    expect((await bench.api<Refused>('GET', `/api/batches/${first.id}`)).body.code).toBe('batch-unknown');
    expect((await bench.api<Batch[]>('GET', '/api/batches')).body.map(({ id }) => id)).toContain(second.id);
    expect((await bench.api<Refused>('POST', '/api/batches', { jobIds: ['nobody'] })).body.code).toBe('job-unknown');
  });

  it('one that is stopped is named, and the others are cut', async () => {
    await bench.api('PUT', `/api/jobs/${jobs[0]!.id}/recipe`, {
      recipe: { ...jobs[0]!.recipe, artworks: [] },
      revision: (await bench.api<Job>('GET', `/api/jobs/${jobs[0]!.id}`)).body.revision,
    });
    const { stopped, sheets } = await planOf(await put(jobs));
    expect(stopped).toMatchObject([{ jobId: jobs[0]!.id }]);
    expect(sheets.flatMap(({ carries }) => carries.map(({ jobId }) => jobId))).toEqual([jobs[1]!.id]);
  });

  it('pieces that are to be left alone are', async () => {
    const batch = await put(jobs);
    const used = (await planOf(batch)).sheets.flatMap(({ pieces }) => pieces.map(({ id }) => id));
    await bench.api('PATCH', `/api/batches/${batch.id}`, {
      revision: batch.revision,
      wish: { ...batch.wish, avoid: used },
    });
    const other = (await planOf(batch)).sheets.flatMap(({ pieces }) => pieces.map(({ id }) => id));
    expect(other.filter((id) => used.includes(id))).toEqual([]);
  });

  it('what is short is told with what helps, and it helps', async () => {
    const file = {
      ...BENCH_SHOP_FILE,
      cutters: (await shop()).cutters,
      stock: BENCH_SHOP_FILE.stock.filter(({ filmId }) => filmId !== 'lock-gate'),
    };
    await bench.server.services.shop.fill({
      ...file,
      stock: [
        ...file.stock,
        { ...BENCH_SHOP_FILE.stock.find(({ id }) => id === 'lock-gate-sheets')!, id: 'last', left: 1 },
      ],
    });
    await change(jobs[1]!, { sheets: { copies: 40 } });
    const batch = await put(jobs);
    const plan = await planOf(batch);
    expect(plan.short).toHaveLength(1);
    const [, widthMm, metres] = /A roll that is ([\d.,]+) mm wide must be at least ([\d.]+) m long/.exec(
      plan.short[0]!.message,
    )!;
    const before = await shop();
    await bench.api('POST', '/api/shop/pieces', {
      revision: before.revision,
      amount: Number(metres) * 1000,
      why: 'received',
      note: '',
      sheetId: null,
      piece: {
        id: 'new-roll',
        filmId: 'lock-gate',
        kind: 'roll',
        widthMm: Number(widthMm!.replace(',', '')),
        lengthMm: Number(metres) * 1000,
        edgeMm: 5,
        place: '',
        note: '',
        retired: false,
      },
    });
    expect((await planOf(batch)).short).toEqual([]);
  });
});

describe('a sheet of two jobs that fails half-way', () => {
  it('is made whole by a rest of one of them, and stands so for both', async () => {
    const like = await Promise.all(
      [0, 1].map(() =>
        jobWith(bench, NAME, (recipe) =>
          patchRecipe(recipe, { surface: { size: { mode: 'own' } }, preparation: { labels: false } }),
        ),
      ),
    );
    const batch = await put(like);
    const [sheet] = (await planOf(batch)).sheets;
    expect(new Set(sheet!.carries.map(({ jobId }) => jobId)).size).toBe(2);
    const run = await cutInPart(batch, sheet!, 0.7);
    const { body: rest } = await bench.api<Run>('POST', `/api/sheets/${run.sheetId}/rest`, {
      loadedFilmIds: ['lock-gate'],
    });
    const carried = new Set((await sheetOf(rest.sheetId)).groups.map(({ jobId }) => jobId));
    expect(carried.size).toBe(1);
    await runUntil(bench, rest.id, finished);
    for (const job of like) {
      expect((await cutsOf(bench, job.id)).map(({ id }) => id)).toEqual([run.sheetId, rest.sheetId]);
      expect(await stateOf(job)).toBe('cut');
    }
    // The record of the job that the rest does not carry knows one run only.
    const other = like.find(({ id }) => !carried.has(id))!;
    expect(
      (
        await bench.api<{ stations: { station: string; figure: string }[] }>('GET', `/api/jobs/${other.id}/plan`)
      ).body.stations.find(({ station }) => station === 'cut'),
    ).toMatchObject({ state: 'settled' });
    expect((await planOf(batch)).sheets).toEqual([]);
  });
});

describe('a search for less film', () => {
  it('takes no more than before, comes out the same again, ends when it is enough, and is refused for another revision', async () => {
    const batch = await put(jobs);
    const before = await planOf(batch);
    const ask = (seconds: number, revision: number) =>
      bench.api<{ batch: Batch; takenMm2: number; beforeMm2: number } & Refused>(
        'POST',
        `/api/batches/${batch.id}/search`,
        { revision, seconds },
      );
    expect((await ask(1, 77)).body.code).toBe('sheet-changed');
    const first = (await ask(1, batch.revision)).body;
    expect(first.takenMm2).toBeLessThanOrEqual(first.beforeMm2);
    expect(first.beforeMm2).toBeCloseTo(before.takenMm2, 6);
    const after = await planOf(batch);
    expect(after.takenMm2).toBeCloseTo(first.takenMm2, 6);
    await bench.restartServer();
    expect(await planOf(batch)).toEqual(after);
    // It would go on for minutes.
    const long = ask(300, first.batch.revision);
    let isOver = false;
    void long.then(() => (isOver = true));
    while (!isOver) await bench.api('POST', `/api/batches/${batch.id}/search/enough`);
    const { takenMm2 } = (await long).body;
    expect(takenMm2).toBeLessThanOrEqual(first.takenMm2 + 1e-6);
    expect((await planOf(batch)).takenMm2).toBeCloseTo(takenMm2, 6);
  });
});

describe('what a search finds', () => {
  it('is told to all who watch, as it is found, ready to be drawn; whoever leaves hears no more', async () => {
    const wedge = await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="70mm" viewBox="0 0 90 70"><path fill="#1d4e89" d="M0 0h90L40 70z"/></svg>',
      (recipe) =>
        patchRecipe(recipe, {
          surface: { size: { mode: 'own' } },
          sheets: { copies: 14 },
          preparation: { border: 'contour', labels: false },
        }),
    );
    const batch = await put([wedge]);
    const before = await planOf(batch);
    const watch = async () => {
      const leave = new AbortController();
      const answer = await fetch(`${bench.server.url}/api/batches/${batch.id}/search/events`, { signal: leave.signal });
      const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
      let text = '';
      return {
        leave: () => leave.abort(),
        next: async () => {
          for (;;) {
            const found = /event: better\ndata: (.*)\n\n/.exec(text);
            if (found) {
              text = text.slice(found.index + found[0].length);
              return JSON.parse(found[1]!) as BetterView;
            }
            text += (await reader.read()).value ?? '';
          }
        },
      };
    };
    const [one, other] = [await watch(), await watch()];
    const search = bench.api<{ takenMm2: number; beforeMm2: number }>('POST', `/api/batches/${batch.id}/search`, {
      revision: batch.revision,
      seconds: 60,
    });
    const found = await one.next();
    expect(await other.next()).toEqual(found);
    other.leave();
    expect(found.filmId).toBe('narrow-blue');
    expect(found.beforeMm2).toBeGreaterThan(0);
    expect(found.sheets.reduce((sum, sheet) => sum + sheet.laid.length, 0)).toBe(
      before.sheets.reduce((sum, sheet) => sum + sheet.laid.length, 0),
    );
    expect(found.sheets.every(({ shapes, usedLengthMm }) => shapes.length > 0 && usedLengthMm > 0)).toBe(true);
    const isOver = search.then(() => true);
    while (
      !(await Promise.race([isOver, bench.api('POST', `/api/batches/${batch.id}/search/enough`).then(() => false)]))
    );
    expect((await search).body.takenMm2).toBeLessThanOrEqual((await search).body.beforeMm2);
    one.leave();
  });
});

describe('a mat with several pieces', () => {
  it('is one pass, takes of each piece, and what is left of all goes back in one write', async () => {
    await change(jobs[0]!, { films: { byColour: { '#b3262b': 'chalk', '#f7f5ef': 'tar' } } });
    const batch = await put([jobs[0]!]);
    const [sheet] = (await planOf(batch)).sheets;
    expect(sheet!.zones!.map(({ film }) => film.id).sort()).toEqual(['chalk', 'tar']);
    const before = await shop();
    expect((await send(batch, sheet!, { loadedFilmIds: [...filmsOf(sheet!)].reverse() })).body.code).toBe('wrong-film');
    const run = await cut(batch, sheet!);
    const after = await shop();
    const left = (of: ShopFile, id: string) => of.stock.find((piece) => piece.id === id)!.left;
    for (const { piece, lengthMm } of sheet!.zones!)
      expect(left(before, piece.id) - left(after, piece.id)).toBeCloseTo(piece.kind === 'roll' ? lengthMm : 1, 3);

    const frozen = await sheetOf(run.sheetId);
    const kept = frozen.leftovers.flatMap(({ keep, widthMm, lengthMm }, leftover) =>
      keep ? [{ leftover, widthMm, lengthMm, place: 'rack' }] : [],
    );
    expect(kept.length).toBeGreaterThan(0);
    const book = (edit: string, back: object) =>
      bench.api<{ numbers: number[] } & Refused>('POST', `/api/sheets/${frozen.id}/leftovers`, {
        revision: after.revision,
        edit,
        back,
      });
    expect((await book('x', [{ ...kept[0]!, leftover: 99 }])).body.code).toBe('leftover-unknown');
    const { body } = await book('e1', kept);
    expect(body.numbers).toHaveLength(kept.length);
    // The same write again is answered and not done twice; another is refused.
    expect((await book('e1', kept)).body.numbers).toEqual(body.numbers);
    expect((await book('e2', kept)).body.code).toBe('leftovers-booked');
    const offcuts = (await shop()).stock.filter(({ number }) => body.numbers.includes(number!));
    expect(offcuts.map(({ kind, left: there }) => [kind, there])).toEqual(kept.map(() => ['offcut', 1]));
  });

  it('of a job by itself is one pass, too: it wants every piece in its place, takes of each piece, and what fails of it is made whole', async () => {
    const job = await change(jobs[0]!, {
      films: { byColour: { '#b3262b': 'chalk', '#f7f5ef': 'tar' } },
      sheets: { zones: true },
    });
    const { sheets } = (await bench.api<PlanReport>('GET', `/api/jobs/${job.id}/plan`)).body;
    expect(sheets).toHaveLength(1);
    const [{ id, films, zones }] = sheets as [NonNullable<typeof sheets>[number]];
    const ask = (loadedFilmIds: readonly string[]) =>
      bench.api<Run & Refused>('POST', `/api/batches/${job.id}/sheets/${id}/cut`, {
        revision: 0,
        loadedFilmIds,
      });
    const left = async () => new Map((await shop()).stock.map((piece) => [piece.id, piece.left]));
    const before = await left();
    for (const loaded of [[films[0]!], [...films].reverse()]) expect((await ask(loaded)).body.code).toBe('wrong-film');
    expect(await left()).toEqual(before);
    const run = await jamAt(bench, 0.5, async () => (await ask(films)).body);
    const after = await left();
    for (const { piece, length } of zones!)
      expect(before.get(piece)! - after.get(piece)!).toBeCloseTo(piece.endsWith('roll') ? length : 1, 3);
    await bench.api('POST', `/api/runs/${run.id}/cancel`);
    await runUntil(bench, run.id, ({ state }) => state === 'cancelled');
    await bench.api('POST', '/api/cutter/control', { do: 'clear' });
    const again = await bench.api<Run & Refused>('POST', `/api/sheets/${run.sheetId}/again`, { loadedFilmIds: films });
    await runUntil(bench, again.body.id, finished);
    expect(await stateOf(job)).toBe('cut');
  });

  it('one that failed is cut on where its pieces lay, of the films that are open', async () => {
    await change(jobs[0]!, { films: { byColour: { '#b3262b': 'chalk', '#f7f5ef': 'tar' } } });
    const batch = await put([jobs[0]!]);
    const [sheet] = (await planOf(batch)).sheets;
    const run = await cutInPart(batch, sheet!, 0.5);
    const failed = await sheetOf(run.sheetId);
    const open = failed.zones!.map(({ film }) => film.id);
    const answers = [];
    for (const films of [open, ...open.map((film) => [film])])
      answers.push(await bench.api<Run & Refused>('POST', `/api/sheets/${failed.id}/rest`, { loadedFilmIds: films }));
    const begun = answers.filter(({ status }) => status === 200);
    expect(begun).toHaveLength(1);
    const rest = await sheetOf(begun[0]!.body.sheetId);
    for (const group of rest.groups) {
      const of = failed.groups.find(({ fingerprint }) => fingerprint === group.fingerprint)!;
      expect(group.matrix).toEqual(of.matrix);
    }
    await runUntil(bench, begun[0]!.body.id, finished);
    expect(await stateOf(jobs[0]!)).toBe('cut');
  });
});

describe('whatever is put together, taken apart, changed and cut', () => {
  it.each([1, 2, 3])(
    'seed %i: every copy is cut as often as it is wanted, and the stock is what the book says',
    async (seed) => {
      const random = seeded(seed);
      const pick = <T>(some: readonly T[]) => some[Math.floor(random() * some.length)]!;
      const third = await jobWith(bench, BADGE, (recipe) =>
        patchRecipe(recipe, { surface: { size: { mode: 'own' } }, preparation: { labels: false } }),
      );
      const all = [...jobs, third];
      const linesNow = async () =>
        (
          await bench.api<{ id: number; pieceId: string; amount: number; sheetId: string | null }[]>(
            'GET',
            '/api/shop/lines',
          )
        ).body;
      const [began, [newest]] = [await shop(), await linesNow()];
      let batch: Batch | null = null;
      for (let turn = 0; turn < 14; turn += 1) {
        const act = pick(['together', 'apart', 'cut', 'cut', 'cut', 'more', 'restart'] as const);
        if (act === 'together')
          batch = await put(
            all
              .filter(() => random() < 0.7)
              .concat(pick(all))
              .filter((one, i, list) => list.indexOf(one) === i),
          );
        else if (act === 'apart' && batch) {
          await bench.api('POST', `/api/batches/${batch.id}/end`, { revision: (await now(batch)).revision });
          batch = null;
        } else if (act === 'cut' && batch) {
          const { sheets } = await planOf(batch);
          if (sheets.length > 0) await cut(batch, pick(sheets));
        } else if (act === 'more') await change(pick(all), { sheets: { copies: 1 + Math.floor(random() * 3) } });
        else if (act === 'restart') await bench.restartServer();
      }
      batch = await put(all);
      for (let { sheets } = await planOf(batch); sheets.length > 0; { sheets } = await planOf(batch))
        await cut(batch, sheets[0]!);
      // An oracle of its own: copies are counted on the frozen sheets, by job and film.
      for (const job of all) {
        const { body } = await bench.api<Job>('GET', `/api/jobs/${job.id}`);
        const cuts = await cutsOf(bench, job.id);
        const how = standings(cuts);
        const byFilm = new Map<string, number>();
        for (const sheet of cuts)
          if (how.get(sheet.id) === 'good')
            for (const group of sheet.groups)
              if (group.jobId === job.id) byFilm.set(group.filmId, (byFilm.get(group.filmId) ?? 0) + 1);
        for (const copies of byFilm.values()) expect(copies).toBeGreaterThanOrEqual(body.recipe.sheets.copies);
        expect([...byFilm.keys()].sort()).toEqual(job === jobs[1] ? ['lock-gate'] : ['chalk', 'lock-gate']);
        // Never more of a copy than one of each number.
        const numbered = cuts.flatMap((sheet) =>
          sheet.groups.filter(({ jobId }) => jobId === job.id).map(({ filmId, copy }) => `${filmId} ${copy}`),
        );
        expect(new Set(numbered).size).toBe(numbered.length);
      }
      const [ended, lines] = [await shop(), (await linesNow()).filter(({ id }) => id > (newest?.id ?? 0))];
      for (const piece of began.stock) {
        const used = lines
          .filter((line) => line.pieceId === piece.id && line.sheetId !== null)
          .reduce((sum, { amount }) => sum + amount, 0);
        const since = ended.stock.find(({ id }) => id === piece.id)!.left - piece.left;
        expect(since).toBeCloseTo(used, 3);
      }
    },
  );
});
