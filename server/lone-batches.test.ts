import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Batch, BatchView } from '../core/batch/index.js';
import type { PlanReport } from '../core/plan/index.js';
import { patchRecipe, type Job, type RecipePatch } from '../core/recipe/index.js';
import { NEW_LONE_WISH } from '../core/stations/sheets/index.js';
import { seeded } from '../core/testing/seeded.js';
import { asAtFirst, cutsOf, emptyCutter, jobWith, openBench, runUntil, type Bench } from './testing/bench.js';

/* A job that waits is in exactly one batch. Alone, it is in its own, which has the job's id and can do what a batch can. */

const TAGS = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path d="M2 2h56v36h-56z" fill="#b3262b"/><circle cx="30" cy="20" r="9" fill="#f7f5ef"/></svg>`;

let bench: Bench;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400 });
});
afterAll(() => bench.close());
beforeEach(async () => {
  await asAtFirst(bench);
  job = await make();
});
afterEach(async () => {
  await emptyCutter(bench);
  for (const batch of await numbered())
    await bench.api('POST', `/api/batches/${batch.id}/end`, { revision: batch.revision });
});

type Refused = { code: string; title: string };
const OWN: RecipePatch = { surface: { size: { mode: 'own' } }, preparation: { labels: false } };
const make = () => jobWith(bench, TAGS, (recipe) => patchRecipe(recipe, { ...OWN, sheets: { copies: 3 } }));
const numbered = async () => (await bench.api<Batch[]>('GET', '/api/batches')).body;
const batchOf = async (id: string) => (await bench.api<Batch & Refused>('GET', `/api/jobs/${id}/batch`)).body;
const viewOf = async (id: string) => (await bench.api<BatchView>('GET', `/api/batches/${id}/plan`)).body;
const reportOf = async (id: string) => (await bench.api<PlanReport>('GET', `/api/jobs/${id}/plan`)).body;
const wish = async (id: string, change: Partial<Batch['wish']>) => {
  const batch = await batchOf(id);
  return bench.api<Batch & Refused>('PATCH', `/api/batches/${batch.id}`, {
    revision: batch.revision,
    wish: { ...batch.wish, ...change },
  });
};
const cut = async (id: string, sheet: BatchView['sheets'][number]) => {
  const { body } = await bench.api<{ id: string } & Refused>('POST', `/api/batches/${id}/sheets/${sheet.id}/cut`, {
    revision: (await batchOf(id)).revision,
    loadedFilmIds: sheet.films.map((film) => film.id),
  });
  return runUntil(bench, body.id, ({ state }) => state === 'finished');
};

describe('a job that nobody has put together with others', () => {
  it('is in a batch of its own, which no list names, and is laid out there as its own plan says', async () => {
    expect(await batchOf(job.id)).toMatchObject({ id: job.id, number: null, revision: 0, wish: NEW_LONE_WISH });
    expect((await batchOf(job.id)).jobs.map(({ id }) => id)).toEqual([job.id]);
    expect(await numbered()).toEqual([]);
    const [view, report] = [await viewOf(job.id), await reportOf(job.id)];
    expect(view.sheets.length).toBeGreaterThan(1);
    expect(report.sheets!.map(({ id }) => id)).toEqual(view.sheets.map(({ id }) => id));
  });

  it('can leave a piece alone, be put in order, and have spares; its own plan says the same', async () => {
    const before = await viewOf(job.id);
    const used = before.sheets[0]!.pieces[0]!.id;
    await wish(job.id, { avoid: [used] });
    const other = await viewOf(job.id);
    expect(other.sheets.flatMap(({ pieces }) => pieces.map(({ id }) => id))).not.toContain(used);
    const keys = other.sheets.map(({ key }) => key).reverse();
    await wish(job.id, { order: 'by hand', sequence: keys });
    const turned = await viewOf(job.id);
    expect(turned.sheets.map(({ key }) => key)).toEqual(keys);
    expect((await reportOf(job.id)).sheets!.map(({ id }) => id)).toEqual(turned.sheets.map(({ id }) => id));
    // The recipe decides how far apart copies lie, so that Undo takes it back: the batch has no say in it.
    await wish(job.id, { spacingMm: 40 });
    expect((await viewOf(job.id)).sheets.map(({ id }) => id)).toEqual(turned.sheets.map(({ id }) => id));
  });

  it('keeps a copy where a hand lays it, and what is cut lies there', async () => {
    const sheet = (await viewOf(job.id)).sheets.find(({ film }) => film.id === 'lock-gate')!;
    const last = sheet.laid.reduce((far, one) => (one.yMm < far.yMm ? one : far));
    const moved = await bench.api<Batch & Refused>('POST', `/api/batches/${job.id}/pins`, {
      revision: 0,
      sheetId: sheet.id,
      group: last.group,
      dxMm: 0,
      dyMm: 37,
      turn: 0,
    });
    expect(moved.status).toBe(200);
    const [pin] = moved.body.wish.pins as [Batch['wish']['pins'][number]];
    expect(pin.jobId).toBe(job.id);
    const laid = (await viewOf(job.id)).sheets.find(({ film }) => film.id === 'lock-gate')!;
    const pinned = laid.laid.find(({ isPinned }) => isPinned)!;
    expect(pinned.yMm - laid.usedLengthMm).toBeCloseTo(last.yMm - sheet.usedLengthMm - 37, 3);
    await cut(job.id, laid);
    const [frozen] = await cutsOf(bench, job.id);
    expect(frozen!.batchId).toBeNull();
    expect(frozen!.groups.map(({ matrix }) => matrix)).toEqual(
      (await bench.api<(typeof frozen)[]>('GET', `/api/batches/${job.id}/cuts`)).body[0]!.groups.map(
        ({ matrix }) => matrix,
      ),
    );
    expect((await viewOf(job.id)).sheets.some(({ film }) => film.id === 'lock-gate')).toBe(false);
  });

  it('takes no other job in: that is done on the cutting list', async () => {
    const other = await make();
    const { status, body } = await bench.api<Refused>('PATCH', `/api/batches/${job.id}`, {
      revision: 0,
      jobIds: [job.id, other.id],
    });
    expect([status, body.code]).toEqual([409, 'batch-of-one']);
    expect((await batchOf(other.id)).number).toBeNull();
    expect((await bench.api<Refused>('GET', '/api/batches/none')).status).toBe(404);
  });
});

it.each([1, 2, 3])(
  'put together, taken apart, deleted and brought back: each job is in exactly one batch, and revisions only grow, seed %i',
  async (seed) => {
    const random = seeded(seed);
    const all = [job, await make(), await make()];
    const [deleted, alone] = [new Set<string>(), new Map(all.map(({ id }) => [id, 0]))];
    const pick = () => all[Math.floor(random() * all.length)]!.id;
    for (let step = 0; step < 14; step += 1) {
      const [id, act, groups] = [pick(), Math.floor(random() * 5), await numbered()];
      if (act === 0) await bench.api('POST', '/api/batches', { jobIds: [...new Set([id, pick()])] });
      if (act === 1 && groups[0])
        await bench.api('POST', `/api/batches/${groups[0].id}/end`, { revision: groups[0].revision });
      if (act === 2) await wish(id, { longFeedMm: 900 + step });
      if (act === 3) await bench.api('DELETE', `/api/jobs/${id}`).then(() => deleted.add(id));
      if (act === 4) await bench.api('POST', `/api/jobs/${id}/restore`).then(() => deleted.delete(id));
      const lists = await numbered();
      for (const { id: jobId } of all) {
        const named = lists.filter(({ jobs }) => jobs.some((one) => one.id === jobId));
        if (deleted.has(jobId)) {
          expect(named).toEqual([]);
          continue;
        }
        const batch = await batchOf(jobId);
        expect(named.map((one) => one.id)).toEqual(batch.number === null ? [] : [batch.id]);
        expect(batch.jobs.filter((one) => one.id === jobId)).toHaveLength(1);
        const byId = await bench.api<Batch & Refused>('GET', `/api/batches/${jobId}`);
        if (batch.number !== null) expect([byId.status, byId.body.code]).toEqual([409, 'job-in-batch']);
        else {
          expect(byId.body.revision).toBeGreaterThanOrEqual(alone.get(jobId)!);
          alone.set(jobId, byId.body.revision);
        }
      }
    }
  },
);
