import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PlanReport } from '../core/plan/index.js';
import { patchRecipe, type Job } from '../core/recipe/index.js';
import type { FrozenSheet } from '../core/stations/cut/index.js';
import { databaseFile } from './db/open-database.js';
import { cutsOf, jobWith, openBench, runUntil, startCut, type Bench } from './testing/bench.js';

/* How long weeding takes: the clock is the server's, and what it says to the end of a sheet teaches the shop's own figures. */

const DRAWING =
  '<svg xmlns="http://www.w3.org/2000/svg" width="100mm" height="60mm" viewBox="0 0 100 60"><path fill="#b3262b" fill-rule="evenodd" d="M2 2h96v56H2z M10 10h10v10H10z M30 10h10v10H30z M50 10h10v10H50z"/></svg>';

let bench: Bench;
let job: Job;
beforeAll(async () => {
  bench = await openBench({ timeLapse: 400 });
  job = await jobWith(bench, DRAWING, (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }));
});
afterAll(() => bench.close());

const plan = async () => (await bench.api<PlanReport>('GET', `/api/jobs/${job.id}/plan`)).body;
/** All clocks were started an hour ago. */
const setBack = () => {
  const db = new Database(databaseFile(bench.dataFolder));
  db.prepare('update weed_times set started_at = ?').run(new Date(Date.now() - 3_600_000).toISOString());
  db.close();
};

describe('the clock of weeding', () => {
  const turn = (sheet: FrozenSheet, clock: string) =>
    bench.api<FrozenSheet & { code: string }>('POST', `/api/sheets/${sheet.id}/weeding`, { clock });
  const learned = async () =>
    (await bench.api<{ learned: { logs: number; figures: { counterS: number } } | null }>('GET', '/api/weeding')).body
      .learned;
  const minutes = async () => (await plan()).weeding!.reduce((sum, one) => sum + one.minutes, 0);

  it('runs on when the server is started anew, runs once however often it is started, and what was timed to its end teaches', async () => {
    const { body: run } = await startCut(bench, job.id, 'lock-gate');
    await runUntil(bench, run.id, ({ state }) => state === 'finished');
    const [sheet] = await cutsOf(bench, job.id);
    expect([sheet!.weedWork!.counters > 0, sheet!.weedTimes, await learned()]).toEqual([true, [], null]);
    const before = await minutes();
    for (let i = 0; i < 3; i += 1) await turn(sheet!, 'start');
    await bench.restartServer();
    const [running] = await cutsOf(bench, job.id);
    expect(running!.weedTimes).toEqual([{ startedAt: expect.any(String) as string, stoppedAt: null }]);
    // It began an hour ago: a long time for a small layer.
    setBack();
    const { body: stopped } = await turn(sheet!, 'stop');
    await turn(sheet!, 'stop');
    expect(stopped.weedTimes).toHaveLength(1);
    // What is not all out teaches nothing.
    expect(await learned()).toBeNull();
    await bench.api('PUT', `/api/sheets/${sheet!.id}/ticks`, {
      places: sheet!.groups[0]!.weedPlaces.map((place) => ({ position: 0, ...place })),
      ticked: true,
    });
    expect(await learned()).toMatchObject({ logs: 1 });
    expect(await minutes()).toBeGreaterThan(before * 1.1);
    expect((await plan()).rulings.find(({ id }) => id === 'prepare.minutes')!.because.join(' ')).toContain(
      'By 1 time that you timed it',
    );
    // A clock that runs again is no end; one that is forgotten is as if it had never run.
    await turn(sheet!, 'start');
    expect(await learned()).toBeNull();
    expect((await turn(sheet!, 'drop')).body.weedTimes).toEqual([]);
    expect(await learned()).toBeNull();
    expect(await minutes()).toBeCloseTo(before, 9);
  });

  it('is refused for a sheet that is not there', async () => {
    expect((await bench.api('POST', '/api/sheets/none/weeding', { clock: 'start' })).status).toBe(404);
    expect((await bench.api<{ code: string }>('POST', '/api/sheets/none/weeding', { clock: 'wind' })).body.code).toBe(
      'body-invalid',
    );
  });
});
