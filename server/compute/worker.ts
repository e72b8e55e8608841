import { writeHpgl } from '../../core/cutting/index.js';
import { InputError } from '../../core/job/index.js';
import { exportBuild, Planner, planReport } from '../../core/job/plan/index.js';
import { resourcesInNode } from '../../platform/artwork-resources.js';
import { filmUse } from '../../core/records/index.js';
import { loadKernelInNode } from '../../platform/load-kernel.js';
import type { Answer, CutSheet, PlanJob, Task } from './tasks.js';

const ready = loadKernelInNode();
const planner = new Planner(resourcesInNode);

/** Runs one task in this worker thread. */
export async function work(task: Task): Promise<Answer> {
  await ready;
  try {
    switch (task.do) {
      case 'add':
        return { ok: 'changed', change: { patch: await planner.adding(task.job, task.part), notes: [] } };
      case 'replace':
        return { ok: 'changed', change: await planner.replacing(task.job, task.partId, task.part) };
      case 'font':
        return { ok: 'font', name: await planner.fontName(task.bytes, task.fileName) };
      case 'plan': {
        const plan = await planner.plan(task.job, { onProgress: (_, done) => task.progress?.postMessage(done) });
        return { ok: 'plan', report: planReport(plan) };
      }
      case 'export':
        return { ok: 'file', bytes: await exportBuild(await planner.plan(task.job), task.filmId, task.format) };
      case 'sheet':
        return await sheetOf(task.job, task.sheet);
    }
  } catch (error) {
    if (error instanceof InputError) return { ok: false, code: error.code, message: error.message, ...(error.path ? { path: error.path } : {}) };
    throw error;
  }
}

async function sheetOf(job: PlanJob, number: number): Promise<Answer> {
  const { sheets, cut } = await planner.plan(job);
  const sheet = sheets?.sheets[number - 1];
  const program = cut?.programs[number - 1];
  if (!sheet || !program) return { ok: false, code: 'sheet-unknown', message: `This job has no sheet ${number}.` };
  const use = filmUse(sheet.film, { widthMm: sheet.piece.widthMm, usedLengthMm: sheet.usedLengthMm, keptMm2: sheet.keptMm2 });
  const ready: CutSheet = {
    filmId: sheet.film.id,
    filmName: sheet.film.name,
    mirrored: sheet.film.mirrored,
    program: { runs: program.runs.map((run) => [...run]), forceG: program.settings.forceG, speedMmS: program.settings.speedMmS },
    hpgl: writeHpgl(program),
    estimateSeconds: program.seconds,
    cutMm: program.cutMm,
    filmMm2: use.takenMm2,
    filmCost: use.cost,
  };
  return { ok: 'sheet', sheet: ready, sheets: sheets.sheets.length };
}
