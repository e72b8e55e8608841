import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Batch } from '../core/batch/index.js';
import { learnSpares, SPARES, type SparesOfKinds } from '../core/engines/learning/index.js';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import type { SpoiledOfJob } from '../core/stations/cut/index.js';
import { jobWith, openBench, runUntil, startCut, type Bench } from './testing/bench.js';

/* What is said to be spoiled of a job teaches how many spares new batches cut. */

const SINGLE =
  '<svg xmlns="http://www.w3.org/2000/svg" width="30mm" height="20mm" viewBox="0 0 30 20"><path fill="#16181a" d="M2 2h26v16H2z"/></svg>';
const LAYERED = SINGLE.replace('</svg>', '<path fill="#b3262b" d="M8 6h10v8H8z"/></svg>');

let bench: Bench;
let [single, layered]: Job[] = [];
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400 });
  const of = (svg: string) =>
    jobWith(bench, svg, (recipe) =>
      patchRecipe(recipe, { surface: { size: { mode: 'own' } }, sheets: { copies: 12 } }),
    );
  [single, layered] = [await of(SINGLE), await of(LAYERED)];
});
afterAll(() => bench.close());

const cut = async (job: Job, film: string) => {
  const { body: run } = await startCut(bench, job.id, film);
  await runUntil(bench, run.id, ({ state }) => state === 'finished');
};
const say = (job: Pick<Job, 'id'>, spoiled: unknown) =>
  bench.api<SpoiledOfJob & { code: string; title: string }>('PUT', `/api/jobs/${job.id}/spoiled`, { spoiled });
const said = async (job: Job) => (await bench.api<SpoiledOfJob>('GET', `/api/jobs/${job.id}/spoiled`)).body;
const learned = async () => (await bench.api<SparesOfKinds>('GET', '/api/spares')).body;
/** What a new batch begins with. */
const sparesOfNew = async () => {
  const { body: batch } = await bench.api<Batch>('POST', '/api/batches', { jobIds: [single!.id] });
  return batch.wish.spares;
};

describe('what was spoiled', () => {
  it('is no more than what is cut, in all its films', async () => {
    expect([await said(single!), await learned(), await sparesOfNew()]).toEqual([
      { spoiled: null, cut: 0 },
      learnSpares([]),
      SPARES,
    ]);
    expect(await say(single!, 1)).toMatchObject({ status: 422, body: { code: 'more-spoiled-than-cut' } });
    const [batch] = (await bench.api<Batch[]>('GET', '/api/batches')).body;
    await bench.api('POST', `/api/batches/${batch!.id}/end`, { revision: batch!.revision });
    await cut(single!, 'tar');
    await cut(layered!, 'tar');
    // A copy of two films is cut when both are.
    expect([await said(single!), await said(layered!)]).toEqual([
      { spoiled: null, cut: 12 },
      { spoiled: null, cut: 0 },
    ]);
    await cut(layered!, 'lock-gate');
    expect(await said(layered!)).toEqual({ spoiled: null, cut: 12 });
    expect((await say(single!, 13)).body.title).toContain('12 copies of this job are cut');
    for (const wrong of [-1, 0.5, 'two']) expect([wrong, (await say(single!, wrong)).status]).toEqual([wrong, 400]);
    expect((await say({ id: 'nobody' }, 0)).status).toBe(404);
    expect([await said(single!), await learned()]).toEqual([{ spoiled: null, cut: 12 }, learnSpares([])]);
  });

  it('teaches the spares of its kind in new batches, each job once, and is kept through a restart', async () => {
    expect((await say(layered!, 1)).body).toEqual({ spoiled: 1, cut: 12 });
    expect((await say(layered!, 5)).body).toEqual({ spoiled: 5, cut: 12 });
    const taught = learnSpares([{ cut: 12, spoiled: 5, isLayered: true }]);
    await bench.restartServer();
    expect([await said(layered!), await learned()]).toEqual([{ spoiled: 5, cut: 12 }, taught]);
    expect(taught.layered.share).toBeGreaterThan(SPARES.layered);
    expect(await sparesOfNew()).toEqual({ single: SPARES.single, layered: taught.layered.share });
    // That none was spoiled teaches, too.
    await say(single!, 0);
    const { single: none } = await learned();
    expect([none, none.share < SPARES.single]).toEqual([
      learnSpares([{ cut: 12, spoiled: 0, isLayered: false }]).single,
      true,
    ]);
  });

  it('can be forgotten; then a new batch begins as the last', async () => {
    const before = await sparesOfNew();
    for (const job of [single!, layered!]) expect((await say(job, null)).body).toEqual({ spoiled: null, cut: 12 });
    expect([await learned(), await sparesOfNew()]).toEqual([learnSpares([]), before]);
  });
});
