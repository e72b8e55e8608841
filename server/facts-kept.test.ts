import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import type { PlanReport } from '../core/plan/index.js';
import type { Film, ShopFile } from '../core/shop/index.js';
import { copiesOnFilm, type CopyVerdict, type FrozenSheet, type Run } from '../core/stations/cut/index.js';
import { jobSums } from '../core/stations/record/index.js';
import {
  asAtFirst,
  cutsOf,
  cutUntil,
  emptyCutter,
  jobWith,
  openBench,
  runUntil,
  startCut,
  type Bench,
} from './testing/bench.js';

/* What was cut stays, whatever is tried, cancelled, judged and taken back afterwards. */

const RINGS = `<svg xmlns="http://www.w3.org/2000/svg" width="90mm" height="30mm" viewBox="0 0 90 30">
  ${[15, 45, 75].map((x) => `<path fill="#20252b" fill-rule="evenodd" d="M${x - 12} 3h24v24h-24z M${x - 5} 10h10v10h-10z"/>`).join('')}
</svg>`;

interface Refused {
  readonly code: string;
}

let bench: Bench;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400 });
});
afterAll(() => bench.close());
beforeEach(async () => {
  await asAtFirst(bench);
  job = await newJob();
});
afterEach(() => emptyCutter(bench));

const newJob = (copies = 4) =>
  jobWith(bench, RINGS, (recipe) =>
    patchRecipe(recipe, {
      surface: { size: { mode: 'own' } },
      preparation: { labels: false },
      films: { byColour: { '#20252b': 'tar' } },
      sheets: { copies },
    }),
  );
const plan = async (of = job) => (await bench.api<PlanReport>('GET', `/api/jobs/${of.id}/plan`)).body;
const toCut = async (of = job) => (await plan(of)).toCut!.map(({ taken, copies }) => [taken, copies]);
const sheetOf = async (id: string) => (await bench.api<FrozenSheet>('GET', `/api/sheets/${id}`)).body;
const post = <T = Run>(path: string, body: object = {}) => bench.api<T & Refused>('POST', path, body);
const LOADED = { loadedFilmIds: ['tar'] };
const judge = (id: string, positions: readonly number[], verdict: CopyVerdict | null) =>
  bench.api<FrozenSheet & Refused>('PUT', `/api/sheets/${id}/verdicts`, { positions, verdict });

async function brokenOff(share: number, of = job): Promise<FrozenSheet> {
  const run = await cutUntil(bench, of.id, 'tar', share);
  await post(`/api/runs/${run.id}/cancel`);
  await bench.api('POST', '/api/cutter/control', { do: 'clear' });
  return sheetOf(run.sheetId);
}

async function cutAll(of = job): Promise<FrozenSheet> {
  const { body } = await startCut(bench, of.id, 'tar');
  await runUntil(bench, body.id, ({ state }) => state === 'finished');
  return sheetOf(body.sheetId);
}

describe('cutting again', () => {
  it('that was cancelled before the knife came down leaves what was cut, and the question', async () => {
    const sheet = await brokenOff(0.7);
    const { whole } = sheet.runs[0]!;
    await bench.api('POST', '/api/cutter/control', { do: 'fail', how: 'jammed' });
    const { body: again } = await post(`/api/sheets/${sheet.id}/again`, LOADED);
    await post(`/api/runs/${again.id}/cancel`);
    await bench.api('POST', '/api/cutter/control', { do: 'clear' });
    expect(await toCut()).toEqual([[4, 4]]);
    const { body: rest } = await post(`/api/sheets/${sheet.id}/rest`, LOADED);
    await runUntil(bench, rest.id, ({ state }) => state === 'finished');
    expect((await sheetOf(rest.sheetId)).runs[0]!.whole!.parts).toBe(whole!.ofParts - whole!.parts);
  });

  it('is refused for a sheet that was thrown away, and that cannot be taken back once others are cut', async () => {
    const sheet = await brokenOff(0.5);
    await post(`/api/sheets/${sheet.id}/decide`, { decided: 'thrown-away' });
    await post(`/api/sheets/${sheet.id}/decide`, { decided: null });
    await post(`/api/sheets/${sheet.id}/decide`, { decided: 'thrown-away' });
    await cutAll();
    expect((await post(`/api/sheets/${sheet.id}/decide`, { decided: null })).body.code).toBe('copies-cut-again');
    expect((await post(`/api/sheets/${sheet.id}/again`, LOADED)).body.code).toBe('sheet-decided');
    expect(await toCut()).toEqual([[4, 4]]);
  });

  it('of two that ask at one moment whether copies count, one is refused', async () => {
    const sheet = await brokenOff(0.5);
    await post(`/api/sheets/${sheet.id}/decide`, { decided: 'thrown-away' });
    await bench.api('POST', '/api/cutter/control', { do: 'time-lapse', factor: 1 });
    const answers = await Promise.all([
      startCut(bench, job.id, 'tar'),
      ...Array.from({ length: 20 }, () => post(`/api/sheets/${sheet.id}/decide`, { decided: null })),
    ]);
    const cut = answers[0]!.status === 200;
    const back = answers.slice(1).some(({ status }) => status === 200);
    expect(cut !== back).toBe(true);
  });
});

describe('a judgement', () => {
  it('is about copies of one job: those of others on the same sheet stay', async () => {
    const other = await newJob(2);
    const { body: batch } = await post<{ id: string; revision: number }>('/api/batches', {
      jobIds: [job.id, other.id],
    });
    const { sheets } = (
      await bench.api<{ sheets: { id: string; films: { id: string }[] }[] }>('GET', `/api/batches/${batch.id}/plan`)
    ).body;
    const { body: run } = await post(`/api/batches/${batch.id}/sheets/${sheets[0]!.id}/cut`, {
      revision: batch.revision,
      ...LOADED,
    });
    await runUntil(bench, run.id, ({ state }) => state === 'finished');
    const sheet = await sheetOf(run.sheetId);
    const own = sheet.groups.flatMap(({ jobId }, i) => (jobId === job.id ? [i] : []));
    expect([own.length, sheet.groups.length]).toEqual([4, 6]);
    await judge(sheet.id, own, 'spoiled');
    expect([await toCut(), await toCut(other)]).toEqual([[[0, 4]], [[2, 2]]]);
    await judge(sheet.id, own, 'good');
    expect([await toCut(), await toCut(other)]).toEqual([[[4, 4]], [[2, 2]]]);
  });

  it('of one copy puts that one back, and counts again only until another is cut for it', async () => {
    const sheet = await cutAll();
    await judge(sheet.id, [2], 'spoiled');
    expect(await toCut()).toEqual([[3, 4]]);
    expect((await judge(sheet.id, [2], null)).status).toBe(200);
    expect(await toCut()).toEqual([[4, 4]]);
    await judge(sheet.id, [2], 'spoiled');
    const one = await cutAll();
    expect([one.groups.length, await toCut()]).toEqual([1, [[4, 4]]]);
    expect((await judge(sheet.id, [2], null)).body.code).toBe('copies-cut-again');
    expect((await judge(sheet.id, [2], 'good')).body.code).toBe('copies-cut-again');
    // A copy that was not spoiled can be called good.
    expect((await judge(sheet.id, [1], 'good')).status).toBe(200);
  });

  it('of a copy of a broken-off sheet leaves the rest of it to be cut, without that copy', async () => {
    const sheet = await brokenOff(0.4);
    const broken = sheet.runs[0]!.whole!.byCopy!.findIndex(({ open }) => open.length > 0);
    await judge(sheet.id, [broken], 'spoiled');
    expect(await toCut()).toEqual([[3, 4]]);
    expect((await post(`/api/sheets/${sheet.id}/again`, LOADED)).body.code).toBe('copies-spoiled');
    const { body: rest } = await post(`/api/sheets/${sheet.id}/rest`, LOADED);
    await runUntil(bench, rest.id, ({ state }) => state === 'finished');
    expect((await sheetOf(rest.sheetId)).groups.map(({ of }) => of)).not.toContain(broken);
    // Judged on the rest, a copy is judged as a whole.
    const [first] = (await sheetOf(rest.sheetId)).groups;
    await judge(rest.sheetId, [0], 'spoiled');
    expect((await sheetOf(sheet.id)).groups[first!.of!]!.verdict).toBe('spoiled');
    expect(await toCut()).toEqual([[2, 4]]);
  });

  it('is refused for what is not cut', async () => {
    const sheet = await brokenOff(0.5);
    await post(`/api/sheets/${sheet.id}/decide`, { decided: 'thrown-away' });
    expect((await judge(sheet.id, [0], 'spoiled')).body.code).toBe('copy-not-cut');
    expect((await judge(sheet.id, [99], 'spoiled')).body.code).toBe('copy-unknown');
  });
});

describe('only what is whole exists', () => {
  it('each copy and counter once, also once the rest has carried on; no tick elsewhere', async () => {
    const sheet = await brokenOff(0.6);
    const there = copiesOnFilm(await cutsOf(bench, job.id), job.id);
    const whole = sheet.runs[0]!.whole!;
    expect(there.filter(({ isWhole }) => isWhole)).toHaveLength(whole.copies);
    // Each part of this drawing has one counter.
    expect(there.flatMap(({ places }) => places)).toHaveLength(whole.parts);
    const open = sheet.groups.findLastIndex(({ weedPlaces }) => weedPlaces.length > 0);
    const tick = await bench.api<Refused>('PUT', `/api/sheets/${sheet.id}/ticks`, {
      places: [{ position: open, ...sheet.groups[open]!.weedPlaces[2]! }],
      ticked: true,
    });
    expect(tick.body.code).toBe('place-unknown');
    const { body: rest } = await post(`/api/sheets/${sheet.id}/rest`, LOADED);
    await runUntil(bench, rest.id, ({ state }) => state === 'finished');
    const then = copiesOnFilm(await cutsOf(bench, job.id), job.id);
    expect(then.filter(({ isWhole }) => isWhole)).toHaveLength(4);
    expect(then.flatMap(({ places }) => places)).toHaveLength(12);
  });
});

describe('record and stock book', () => {
  /** What the book says went for sheets, mm²: read from its lines, with an eye of its own. */
  const booked = async (): Promise<number> => {
    const lines = (
      await bench.api<{ pieceId: string; amount: number; sheetId: string | null }[]>('GET', '/api/shop/lines')
    ).body;
    const { stock } = (
      await bench.api<{ stock: { id: string; kind: string; widthMm: number; lengthMm: number }[] }>('GET', '/api/shop')
    ).body;
    const own = new Set((await cutsOf(bench, job.id)).map(({ id }) => id));
    return lines.reduce((sum, { pieceId, amount, sheetId }) => {
      if (sheetId === null || !own.has(sheetId)) return sum;
      const piece = stock.find(({ id }) => id === pieceId)!;
      return sum - amount * piece.widthMm * (piece.kind === 'roll' ? 1 : piece.lengthMm);
    }, 0);
  };

  it('agree: runs that were cancelled or cut again take film, and what goes back is taken off', async () => {
    const sheet = await brokenOff(0.3);
    expect(jobSums(await cutsOf(bench, job.id), job.id).takenMm2).toBeCloseTo(await booked(), 3);
    const { body: again } = await post(`/api/sheets/${sheet.id}/again`, LOADED);
    await runUntil(bench, again.id, ({ state }) => state === 'finished');
    const before = jobSums(await cutsOf(bench, job.id), job.id);
    expect(before.takenMm2).toBeCloseTo(await booked(), 3);
    expect([before.takenMm2 > 0, before.unbookedMm2]).toEqual([true, 0]);
    // The blade has cut the broken-off run, too.
    const { blades } = (await bench.api<{ blades: Record<string, number> }>('GET', '/api/shop/wear')).body;
    if (Object.keys(blades).length > 0) expect(before.bladeMm / 1000).toBeCloseTo(Object.values(blades)[0]!, 6);
    const left = (await sheetOf(sheet.id)).leftovers;
    const at = left.findIndex(({ keep }) => keep);
    if (at >= 0) {
      const { widthMm, lengthMm } = left[at]!;
      const book = (size: { widthMm: number; lengthMm: number }, edit: string) =>
        bench.api<{ numbers: number[] } & Refused>('POST', `/api/sheets/${sheet.id}/leftovers`, {
          revision: 0,
          edit,
          back: [{ leftover: at, ...size, place: '' }],
        });
      expect((await book({ widthMm: widthMm + 1, lengthMm }, 'a')).body.code).toBe('leftover-larger');
      const first = await book({ widthMm: lengthMm, lengthMm: widthMm }, 'b');
      expect((await book({ widthMm: lengthMm, lengthMm: widthMm }, 'b')).body.numbers).toEqual(first.body.numbers);
      const after = jobSums(await cutsOf(bench, job.id), job.id);
      expect(after.takenMm2).toBeCloseTo(before.takenMm2 - widthMm * lengthMm, 3);
      expect(after.takenMm2).toBeCloseTo(await booked(), 3);
    }
  });

  it('a run that was cancelled before the knife came down takes nothing', async () => {
    await bench.api('POST', '/api/cutter/control', { do: 'fail', how: 'jammed' });
    const { body } = await startCut(bench, job.id, 'tar');
    await runUntil(bench, body.id, ({ state }) => state === 'stuck');
    await post(`/api/runs/${body.id}/cancel`);
    expect(jobSums(await cutsOf(bench, job.id), job.id)).toMatchObject({ takenMm2: 0, cost: 0, unbookedMm2: 0 });
    expect(await booked()).toBeCloseTo(0, 6);
  });
});

describe('a change in the shop', () => {
  const TWO = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40">
    <rect width="60" height="40" fill="#b02a30"/><circle cx="30" cy="20" r="12" fill="#f7f5ef"/></svg>`;
  let two: Job;
  beforeEach(async () => {
    two = await jobWith(bench, TWO, (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }));
    const { body } = await startCut(bench, two.id, 'lock-gate');
    await runUntil(bench, body.id, ({ state }) => state === 'finished');
  });
  const cutOf = async () =>
    (await plan(two)).toCut!.map(({ film, taken, copies }) => `${film} ${taken}/${copies}`).sort();
  const layersOf = async () => JSON.stringify((await plan(two)).layers);
  const add = async (film: Partial<Film>) => {
    const shop = (await bench.api<ShopFile & { revision: number }>('GET', '/api/shop')).body;
    const value = { ...shop.films.find(({ id }) => id === 'lock-gate')!, ...film };
    return bench.api('POST', '/api/shop/changes', { revision: shop.revision, changes: [{ kind: 'films', value }] });
  };

  it.each([
    [
      'a nearer film comes',
      () => add({ id: 'exact', name: 'Exact red', colour: '#b02a30' }),
      'Exact red is now closer',
    ],
    ['the film is retired', () => add({ retired: true }), 'is retired'],
    [
      'its figures are others',
      () => add({ takesOnTop: false, shrinkPct: 0.9, drawBackIndoorsMm: 1, family: 'heatTransfer', mirrored: true }),
      'has changed (family, draw-back indoors, shrink, what sticks on top and side it is cut from)',
    ],
  ] as const)('voids nothing that was cut, is said, and taken only by the maker: %s', async (_, happens, said) => {
    const [cut, layers] = [await cutOf(), await layersOf()];
    expect(cut).toEqual(['chalk 0/1', 'lock-gate 1/1']);
    expect((await happens()).status).toBe(200);
    expect([await cutOf(), await layersOf()]).toEqual([cut, layers]);
    const finding = (await plan(two)).findings.find(({ code }) => code === 'shop-differs')!;
    expect([finding.severity, finding.message]).toEqual(['note', expect.stringContaining(said)]);
    // Not a job that nothing is cut of, and not once all of it was thrown away.
    const free = await jobWith(bench, TWO, (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }));
    expect((await plan(free)).findings.map(({ code }) => code)).not.toContain('shop-differs');
    await bench.restartServer();
    expect([await cutOf(), await layersOf()]).toEqual([cut, layers]);
    // The rest is cut from what was looked at.
    const { body } = await startCut(bench, two.id, 'chalk');
    await runUntil(bench, body.id, ({ state }) => state === 'finished');
    expect(await cutOf()).toEqual(['chalk 1/1', 'lock-gate 1/1']);
    // The remedy remedies, and undo brings back what fits.
    const { body: now } = await bench.api<Job>('GET', `/api/jobs/${two.id}`);
    await bench.api('PUT', `/api/jobs/${two.id}/recipe`, {
      recipe: patchRecipe(now.recipe, { films: { renewals: 1 } }),
      revision: now.revision,
    });
    expect((await plan(two)).findings.map(({ code }) => code)).not.toContain('shop-differs');
    expect(JSON.stringify([await cutOf(), await layersOf()])).not.toBe(
      JSON.stringify([['chalk 1/1', 'lock-gate 1/1'], layers]),
    );
    await post(`/api/jobs/${two.id}/undo`, { revision: now.revision + 1 });
    expect([await cutOf(), await layersOf()]).toEqual([['chalk 1/1', 'lock-gate 1/1'], layers]);
  });

  it('holds in a batch, too', async () => {
    const { body: batch } = await post<{ id: string; revision: number }>('/api/batches', { jobIds: [two.id, job.id] });
    await add({ id: 'exact', name: 'Exact red', colour: '#b02a30' });
    const { sheets } = (
      await bench.api<{ sheets: { films: { id: string }[] }[] }>('GET', `/api/batches/${batch.id}/plan`)
    ).body;
    expect(sheets.flatMap(({ films }) => films.map(({ id }) => id)).sort()).toEqual(['chalk', 'tar']);
  });
});

describe('a job that was changed after a part of it was cut', () => {
  it('says at which stations, and is made again as it was, with what does not decide the cut as it is now', async () => {
    const sheet = await cutAll();
    const { body: changed } = await bench.api<Job>('PUT', `/api/jobs/${job.id}/recipe`, {
      recipe: patchRecipe(job.recipe, {
        title: 'Renamed',
        surface: { size: { mode: 'width', mm: 60 } },
        build: { school: 'inlay' },
        sheets: { copies: 6 },
      }),
      revision: job.revision,
    });
    expect(await toCut()).toEqual([[0, 6]]);
    const since = await bench.api('GET', `/api/sheets/${sheet.id}/jobs/${job.id}/changes`);
    expect(since.body).toEqual({ title: 'Renamed', revision: changed.revision, stations: ['surface', 'build'] });
    const asCut = () =>
      post<Job>(`/api/sheets/${sheet.id}/jobs/${job.id}/as-cut`, { revision: changed.revision, edit: 'as cut' });
    const { body: back } = await asCut();
    expect([back.recipe.title, back.recipe.sheets.copies]).toEqual(['Renamed', 6]);
    expect(await toCut()).toEqual([[4, 6]]);
    expect((await asCut()).body.revision).toBe(back.revision);
    await post(`/api/jobs/${job.id}/undo`, { revision: back.revision });
    expect(await toCut()).toEqual([[0, 6]]);
  });
});

describe('an act over several jobs', () => {
  const CLOSE = { border: 'groups', borderGapMm: 3 };
  const revisions = (...jobs: readonly Job[]) => jobs.map(({ id, revision }) => ({ id, revision }));
  const borderOf = async ({ id }: Job) =>
    (await bench.api<Job>('GET', `/api/jobs/${id}`)).body.recipe.preparation.border;
  const rename = async ({ id, revision, recipe }: Job) =>
    (
      await bench.api<Job>('PUT', `/api/jobs/${id}/recipe`, {
        recipe: patchRecipe(recipe, { title: 'Theirs' }),
        revision,
      })
    ).body;

  it('changes all of them or, when one was changed meanwhile, none', async () => {
    const jobs = [job, await newJob(), await newJob()] as const;
    await rename(jobs[1]);
    const { body } = await post('/api/jobs/changes', { jobs: revisions(...jobs), preparation: CLOSE });
    expect(body.code).toBe('job-changed');
    for (const one of jobs) expect(await borderOf(one)).toBe(job.recipe.preparation.border);
  });

  it('is taken back where it can be, and names what cannot, and why', async () => {
    const jobs = [job, await newJob(), await newJob()] as const;
    const { body: written } = await post<{ id: string; revision: number }[]>('/api/jobs/changes', {
      jobs: revisions(...jobs),
      preparation: CLOSE,
    });
    await rename((await bench.api<Job>('GET', `/api/jobs/${jobs[1].id}`)).body);
    await bench.api('DELETE', `/api/jobs/${jobs[2].id}`);
    const { body: undone } = await post<{ undone: { id: string }[]; stayed: object[] }>('/api/jobs/undo', {
      jobs: written,
    });
    expect(undone.undone.map(({ id }) => id)).toEqual([jobs[0].id]);
    expect(undone.stayed).toEqual([
      { id: jobs[1].id, title: 'Theirs', why: expect.stringContaining('changed since') },
      { id: jobs[2].id, title: 'Test', why: expect.stringContaining('deleted') },
    ]);
    expect([await borderOf(jobs[0]), await borderOf(jobs[1])]).toEqual([job.recipe.preparation.border, 'groups']);
    await bench.api('POST', `/api/jobs/${jobs[2].id}/restore`);
    // What is so already is not written again.
    expect(
      (await post('/api/jobs/changes', { jobs: [{ id: jobs[2].id, revision: 999 }], preparation: CLOSE })).body,
    ).toEqual([]);
  });
});

describe('an edit that is sent twice', () => {
  it('gets the same answer, also if it changed nothing, and whatever came in between', async () => {
    const undo = (edit: string) => post<Job>(`/api/jobs/${job.id}/redo`, { revision: job.revision, edit });
    expect((await undo('nothing to redo')).status).toBe(200);
    const title = patchRecipe(job.recipe, { title: 'Other' });
    expect(
      (await bench.api('PUT', `/api/jobs/${job.id}/recipe`, { recipe: title, revision: job.revision, edit: 'x' }))
        .status,
    ).toBe(200);
    expect([(await undo('nothing to redo')).status, (await undo('another')).status]).toEqual([200, 409]);
  });
});
