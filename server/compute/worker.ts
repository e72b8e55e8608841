import { writeHpgl } from '../../core/engines/cutting/index.js';
import { batchSheetToFreeze, batchView, placeByHand } from '../../core/batch/index.js';
import { InputError } from '../../core/words/index.js';
import { builtWithOf, exportBuild, Planner, planReport, printJob } from '../../core/plan/index.js';
import { toCutOf } from '../../core/stations/sheets/index.js';
import { restToFreeze, sheetToFreeze } from '../../core/stations/cut/index.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { loadKernelInNode } from '../../platform/load-kernel.js';
import { designPicture } from '../../platform/design-picture.js';
import { BatchPlanner } from './planned-batch.js';
import { endingWithKernel, FLAG } from './kernel-guard.js';
import type { Answer, SentTask } from './tasks.js';

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
      case 'sheet': {
        const plan = await planner.plan(task.job, { breathe });
        const blocked = plan.findings.find((finding) => finding.severity === 'blocker');
        if (blocked)
          return {
            ok: false,
            code: 'blocked',
            message: `Nothing was cut, because something stops this job: ${blocked.message}`,
          };
        return {
          ok: 'sheet',
          sheet: sheetToFreeze(plan, task.sheet),
          builtWith: builtWithOf(plan, task.job),
          toCut: plan.sheets!.toCut.map(({ fingerprint, copies }) => ({ fingerprint, copies })),
        };
      }
      case 'hpgl': {
        const { program } = sheetToFreeze(await planner.plan(task.job, { breathe }), task.sheet);
        return { ok: 'file', bytes: new TextEncoder().encode(writeHpgl({ settings: program, runs: program.runs })) };
      }
      case 'rest':
        return { ok: 'rest', sheet: restToFreeze(task.part) };
      case 'batch': {
        const { out, jobs, stopped } = await batches.plan(task.batch, {
          breathe,
          onProgress: (done) => task.progress?.postMessage(done),
        });
        return { ok: 'batch', view: batchView(out, { jobs, stopped, cutter: task.batch.shop.cutter }) };
      }
      case 'batch-sheet': {
        const { out, jobs } = await batches.plan(task.batch, { breathe });
        const sheet = batchSheetToFreeze(out, jobs, task.sheet, task.batch.shop.cutter);
        const carried = new Set(sheet.groups.map(({ job }) => job));
        return {
          ok: 'batch-sheet',
          sheet: { ...sheet, groups: sheet.groups.map(({ job, ...group }) => ({ ...group, jobId: jobs[job]!.id })) },
          toCut: [...carried].map((job) => ({
            jobId: jobs[job]!.id,
            layers: toCutOf(jobs[job]!),
            builtWith: jobs[job]!.builtWithNow,
          })),
        };
      }
      case 'batch-move': {
        const { out, jobs } = await batches.plan(task.batch, { breathe });
        const { shop, wish } = task.batch;
        return { ok: 'pin', pin: placeByHand(jobs, shop, { wish, out }, task.move) };
      }
      case 'batch-search':
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
      case 'batch-hpgl': {
        const { out, jobs } = await batches.plan(task.batch, { breathe });
        const { program } = batchSheetToFreeze(out, jobs, task.sheet, task.batch.shop.cutter);
        return { ok: 'file', bytes: new TextEncoder().encode(writeHpgl({ settings: program, runs: program.runs })) };
      }
    }
  } catch (error) {
    if (error instanceof InputError)
      return { ok: false, code: error.code, message: error.message, ...(error.path ? { path: error.path } : {}) };
    throw error;
  }
}
