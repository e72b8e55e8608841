import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type Job, type JobSummary, patchRecipe } from '../core/recipe/index.js';
import type { Run } from '../core/stations/cut/index.js';
import { writeHpgl } from '../core/engines/cutting/index.js';
import { Planner, type PlanReport } from '../core/plan/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { runOffline } from '../cutter/run-offline.js';
import { asAtFirst, cutsOf, emptyCutter, jobWith, openBench, runUntil, startCut, type Bench } from './testing/bench.js';

const DRAWING = `<svg xmlns="http://www.w3.org/2000/svg" width="160mm" height="120mm" viewBox="0 0 160 120"><rect x="5" y="5" width="150" height="110" fill="#16181a"/>${Array.from({ length: 48 }, (_, i) => `<circle cx="${15 + (i % 8) * 18}" cy="${15 + Math.floor(i / 8) * 18}" r="${3 + (i % 4)}" fill="#f7f5ef"/>`).join('')}</svg>`;

let bench: Bench;
let job: Job;
let meant: Float64Array[] | null = null;
beforeAll(async () => {
  bench = await openBench();
});
afterAll(() => bench.close());
beforeEach(async () => {
  await asAtFirst(bench);
  for (const how of [{ do: 'new-sheet' }, { do: 'time-lapse', factor: 60 }])
    await bench.api('POST', '/api/cutter/control', how);
  job = await jobWith(bench, DRAWING, (recipe) => patchRecipe(recipe, { surface: { size: { mode: 'own' } } }));
  await meantCut();
});
afterEach(() => emptyCutter(bench));

const start = (filmId = 'tar', more: Parameters<typeof startCut>[3] = {}) => startCut(bench, job.id, filmId, more);
const act = (id: string, name: 'pause' | 'resume' | 'cancel') => bench.api<Run>('POST', `/api/runs/${id}/${name}`);
const halfway = (run: Run) => run.pairsDone > run.pairsTotal * 0.4;
const finished = (run: Run) => run.state === 'finished';

/** Every point of one tracing lies on the other, run by run and in order: nothing twice, nothing missed. */
function expectSameCut(actual: readonly Float64Array[], meant: readonly Float64Array[]): void {
  const length = (lines: readonly Float64Array[]) =>
    lines.reduce((sum, line) => {
      for (let i = 2; i < line.length; i += 2) sum += Math.hypot(line[i]! - line[i - 2]!, line[i + 1]! - line[i - 1]!);
      return sum;
    }, 0);
  expect(actual).toHaveLength(meant.length);
  expect(Math.abs(length(actual) - length(meant))).toBeLessThan(0.5);
  actual.forEach((line, i) => {
    // The first turns the knife, which stood anyhow before.
    if (i === 0) return;
    expect(Math.hypot(line[0]! - meant[i]![0]!, line[1]! - meant[i]![1]!)).toBeLessThan(0.05);
    expect(Math.hypot(line.at(-2)! - meant[i]!.at(-2)!, line.at(-1)! - meant[i]!.at(-1)!)).toBeLessThan(0.05);
  });
}

/** What the same sheet comes to when nothing goes wrong: asked first before any is sent, since the plan has only what is left to be cut. It is the same for every job of this drawing. */
async function meantCut(): Promise<Float64Array[]> {
  if (meant) return meant;
  const planned = await bench.server.services.sourceOfJob(job.id);
  const { cut, sheets } = await new Planner(resourcesInNode).plan({ ...planned, sources: await planned.loadSources() });
  meant = runOffline(writeHpgl(cut!.programs[sheets!.sheets.findIndex(({ films }) => films[0]!.id === 'tar')]!)).lines;
  return meant;
}

describe('cutting a sheet', () => {
  it('cuts what was meant, takes as long as was estimated, and is recorded', async () => {
    const { body: run } = await start();
    const done = await runUntil(bench, run.id, finished);
    expectSameCut(bench.cutter.device.cutLines(), await meantCut());
    expect(Math.abs(done.actualSeconds! / done.estimateSeconds - 1)).toBeLessThan(0.05);
    const { body: judged } = await bench.api<Run>('PATCH', `/api/runs/${run.id}`, {
      note: 'Weeded well.',
    });
    expect(judged).toMatchObject({
      note: 'Weeded well.',
      state: 'finished',
      whole: { copies: 1, ofCopies: 1 },
    });
    expect((await cutsOf(bench, job.id))[0]).toMatchObject({
      film: { id: 'tar' },
      piece: { id: 'tar-roll' },
      runs: [{ id: run.id }],
    });
  });

  it('does nothing when another film is loaded than the sheet is for', async () => {
    const wrong = await start('tar', { loadedFilmIds: ['chalk'] });
    expect([wrong.status, wrong.body.code]).toEqual([409, 'wrong-film']);
    expect(await cutsOf(bench, job.id)).toEqual([]);
    expect(bench.cutter.device.status().paths).toBe(0);
  });

  it('lets only one sheet into the cutter', async () => {
    // So slow that the first is still in the cutter, however long the second is planned.
    await bench.api('POST', '/api/cutter/control', { do: 'time-lapse', factor: 1 });
    const { body: first } = await start();
    expect((await start('chalk')).body.code).toBe('cutter-busy');
    await bench.api('POST', '/api/cutter/control', { do: 'time-lapse', factor: 200 });
    await bench.api('POST', `/api/runs/${first.id}/cancel`);
  });

  it('gives the same as a file to download', async () => {
    const text = await (
      await fetch(
        `${bench.server.url}/api/batches/${job.id}/sheets/${(await bench.api<PlanReport>('GET', `/api/jobs/${job.id}/plan`)).body.sheets!.find(({ film }) => film === 'tar')!.id}/hpgl`,
      )
    ).text();
    expectSameCut(runOffline(text).lines, await meantCut());
  });

  it('tells a page how it goes, to the end', async () => {
    const { body: run } = await start();
    const text = await (await fetch(`${bench.server.url}/api/runs/${run.id}/events`)).text();
    const progress = [...text.matchAll(/^event: progress\ndata: (.*)$/gm)].map(
      (m) => JSON.parse(m[1]!) as { pairsDone: number; secondsLeft: number },
    );
    expect(text.trim()).toMatch(/event: ended\ndata: \{\}$/);
    for (let i = 1; i < progress.length; i += 1)
      expect(progress[i]!.pairsDone).toBeGreaterThanOrEqual(progress[i - 1]!.pairsDone);
    expect(progress.at(-1)!.secondsLeft).toBeCloseTo(0, 6);
  });

  it('makes the job “cut” once every sheet is', async () => {
    const stateOf = async () =>
      (await bench.api<JobSummary[]>('GET', '/api/jobs')).body.find(({ id }) => id === job.id)!.state;
    const states: string[] = [];
    for (const film of ['tar', 'chalk']) {
      await runUntil(bench, (await start(film)).body.id, finished);
      states.push(await stateOf());
    }
    expect(states).toEqual(['in work', 'cut']);
  });
});

describe('when something comes between', () => {
  it('pauses where it is and goes on from there', async () => {
    const { body: run } = await start();
    await runUntil(bench, run.id, halfway);
    await act(run.id, 'pause');
    const paused = await runUntil(bench, run.id, (r) => r.state === 'paused');
    expect(bench.cutter.device.status().state).toBe('held');
    await act(run.id, 'resume');
    const done = await runUntil(bench, run.id, finished);
    expect(done.pairsDone).toBeGreaterThan(paused.pairsDone);
    expectSameCut(bench.cutter.device.cutLines(), await meantCut());
  });

  it('cancels: the knife is up, the cutter free, and the run says so', async () => {
    const { body: run } = await start();
    await runUntil(bench, run.id, halfway);
    const { body: cancelled } = await act(run.id, 'cancel');
    expect(cancelled.state).toBe('cancelled');
    expect(bench.cutter.device.status()).toMatchObject({ knifeDown: false, state: 'idle' });
    expect((await start('chalk')).status).toBe(200);
  });

  it.each([0.1, 0.35, 0.6, 0.9])(
    'goes on after the cable was out at %d of the way, with nothing cut twice and nothing missed',
    async (share) => {
      const { body: run } = await start();
      await runUntil(bench, run.id, (r) => r.pairsDone > r.pairsTotal * share);
      bench.cutter.pullCable(0.2);
      await runUntil(bench, run.id, (r) => r.state === 'waiting' || finished(r));
      await runUntil(bench, run.id, finished);
      expectSameCut(bench.cutter.device.cutLines(), await meantCut());
    },
  );

  it.each(['out-of-film', 'jammed'] as const)('says that it is %s and goes on once that is mended', async (how) => {
    const { body: run } = await start();
    await runUntil(bench, run.id, halfway);
    bench.cutter.device.fail(how);
    const stuck = await runUntil(bench, run.id, (r) => r.state === 'stuck');
    expect(stuck.message).toMatch(/[Ff]ilm/);
    bench.cutter.device.clearFault();
    await runUntil(bench, run.id, finished);
    expectSameCut(bench.cutter.device.cutLines(), await meantCut());
  });

  it('gives up a sheet whose place was lost in a power cut', async () => {
    const { body: run } = await start();
    await runUntil(bench, run.id, halfway);
    await bench.api('POST', '/api/cutter/control', { do: 'power-cut' });
    const failed = await runUntil(bench, run.id, (r) => r.state === 'failed');
    expect(failed.message).toMatch(/does not know any more where the piece lies/);
    expect((await start()).body.code).toBe('sheet-changed');
    expect((await bench.api('POST', `/api/sheets/${failed.sheetId}/again`, { loadedFilmIds: ['tar'] })).status).toBe(
      200,
    );
  });

  it('waits for its maker after the server was restarted, then goes on where it was', async () => {
    const { body: run } = await start();
    await runUntil(bench, run.id, halfway);
    await bench.restartServer();
    const { body: waiting } = await bench.api<Run>('GET', `/api/runs/${run.id}`);
    expect(waiting.state).toBe('interrupted');
    await act(run.id, 'resume');
    await runUntil(bench, run.id, finished);
    expectSameCut(bench.cutter.device.cutLines(), await meantCut());
  });

  it('is not hurried past a slow buffer', async () => {
    bench.cutter.device.bytesPerSecond = 400;
    const { body: run } = await start();
    await runUntil(bench, run.id, finished);
    expectSameCut(bench.cutter.device.cutLines(), await meantCut());
  });
});
