import { writeHpgl } from '../../core/engines/cutting/index.js';
import { batchView, freezeSheet, placeByHand } from '../../core/batch/index.js';
import { InputError } from '../../core/words/index.js';
import { exportBuild, Planner, planReport, printJob } from '../../core/plan/index.js';
import { restToFreeze } from '../../core/stations/cut/index.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { loadKernelInNode } from '../../platform/load-kernel.js';
import { designPicture } from '../../platform/design-picture.js';
import { BatchPlanner } from './planned-batch.js';
import { endingWithKernel, FLAG } from './kernel-guard.js';
import type { Answer, BatchTask, SentTask } from './tasks.js';

const ready = loadKernelInNode();
const planner = new Planner(resourcesInNode);
const batches = new BatchPlanner(planner);

/** Runs one task in this worker thread, which ends when the polygon kernel fails. */
export const work = endingWithKernel(answer, () => process.exit(1));

/** Runs one task. @throws when it was told to stop, which it sees whenever a plan takes breath */
async function answer(task: SentTask): Promise<Answer> {
  await ready;
  let heldMs = 0;
  /** While others have their turn, the thread sleeps here. */
  const waitForTurn = () => {
    const from = performance.now();
    while (Atomics.load(task.stopFlag, 0) === FLAG.hold) Atomics.wait(task.stopFlag, 0, FLAG.hold);
    heldMs += performance.now() - from;
  };
  const breathe = async () => {
    waitForTurn();
    if (Atomics.load(task.stopFlag, 0) !== FLAG.go) throw new Error('It was stopped.');
  };
  const sheetOf = async ({ batch, sheet }: { readonly batch: BatchTask; readonly sheet: string }) => {
    const { out, ...planned } = await batches.plan(batch, { breathe });
    return freezeSheet(out, sheet, { ...planned, cutter: batch.shop.cutter, isAlone: batch.isAlone });
  };
  try {
    switch (task.do) {
      case 'add':
        return {
          ok: 'changed',
          change: { patch: await planner.adding(task.job, task.part), notes: [], otherSize: null },
        };
      case 'replace':
        return { ok: 'changed', change: await planner.replacing(task.job, task.partId, task.part) };
      case 'picture':
        return {
          ok: 'file',
          bytes: designPicture(
            await planner.look(task.job, { breathe }),
            task.job.recipe.surface.ground?.colour ?? null,
          ),
        };
      case 'font':
        return { ok: 'font', name: await planner.fontName(task.bytes, task.fileName) };
      case 'plan': {
        const plan = await planner.plan(task.job, {
          breathe,
          onProgress: (_, done) => task.progress?.postMessage(done),
        });
        return { ok: 'plan', report: planReport(plan, task.job.recorded) };
      }
      case 'export':
        return {
          ok: 'file',
          bytes: await exportBuild(await planner.plan(task.job, { breathe }), task.filmId, task.format),
        };
      case 'print':
        return {
          ok: 'file',
          bytes: await printJob(await planner.plan(task.job, { breathe }), task.what, task.on, task.filmId),
        };
      case 'rest':
        return { ok: 'rest', sheet: restToFreeze(task.part) };
      case 'batch': {
        const { out, jobs, stopped } = await batches.plan(task.batch, {
          breathe,
          onProgress: (done) => task.progress?.postMessage(done),
        });
        return { ok: 'batch', view: batchView(out, { jobs, stopped, cutter: task.batch.shop.cutter }) };
      }
      case 'sheet':
        return { ok: 'sheet', ...(await sheetOf(task)) };
      case 'move': {
        const { out } = await batches.plan(task.batch, { breathe });
        return { ok: 'pin', pin: placeByHand(out, task.batch, task.move) };
      }
      case 'search':
        return {
          ok: 'searched',
          ...(await batches.search(
            task.batch,
            {
              seconds: task.seconds,
              isEnough: () => {
                waitForTurn();
                return Atomics.load(task.enough, 0) !== 0 || Atomics.load(task.stopFlag, 0) === FLAG.stop;
              },
              heldMs: () => heldMs,
              onBetter: (found) => task.better.postMessage(found),
            },
            { breathe },
          )),
        };
      case 'hpgl': {
        const { program } = (await sheetOf(task)).sheet;
        return { ok: 'file', bytes: new TextEncoder().encode(writeHpgl({ settings: program, runs: program.runs })) };
      }
    }
  } catch (error) {
    if (error instanceof InputError)
      return { ok: false, code: error.code, message: error.message, ...(error.path ? { path: error.path } : {}) };
    throw error;
  }
}
