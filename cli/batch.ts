import { writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { parseArgs } from 'node:util';
import { prepareJobs, type PreparedJob } from '../core/batch/index.js';
import {
  SHEET_ORDERS,
  NEW_LAY_WISH,
  type SheetGroup,
  type LayJobsHooks,
  type SheetOrder,
  layJobs,
} from '../core/laying/index.js';
import { writeHpgl } from '../core/engines/cutting/index.js';
import { foilsReport, Planner, sheetSvg } from '../core/plan/index.js';
import { programOf } from '../core/stations/cut/index.js';
import { figure, whole, yes } from '../core/words/schema.js';
import { InputError } from '../core/words/index.js';
import type { Shop } from '../core/shop/index.js';
import { resourcesInNode } from '../platform/artwork-resources.js';
import { makeFolder, numberOption, onlyFile, readJsonOf, required } from './input.js';
import { readRecipe, readShop } from './read-recipe.js';
import { stepBudget } from './step-budget.js';

interface BatchFile {
  readonly jobs: readonly { readonly recipe: string; readonly copies?: number }[];
  readonly spacing?: number;
  readonly zones?: boolean;
  readonly order?: SheetOrder;
  /** As an earlier `batch.json` has it: so many steps of the search for each film. */
  readonly steps?: readonly { readonly film: string; readonly steps: number }[];
}

const BATCH_SCHEMA = {
  type: 'object',
  required: ['jobs'],
  additionalProperties: false,
  properties: {
    jobs: {
      type: 'array',
      minItems: 1,
      maxItems: 200,
      items: {
        type: 'object',
        required: ['recipe'],
        additionalProperties: false,
        properties: { recipe: { type: 'string', minLength: 1, maxLength: 500 }, copies: whole(1, 500) },
      },
    },
    spacing: figure(0, 100),
    zones: yes,
    order: { enum: SHEET_ORDERS.filter((order) => order !== 'by hand') },
    steps: {
      type: 'array',
      maxItems: 1000,
      items: {
        type: 'object',
        required: ['film', 'steps'],
        additionalProperties: false,
        properties: { film: { type: 'string' }, steps: whole(0, 1e9) },
      },
    },
  },
};

/** Lays the layers of several jobs on the shop's film together, and writes `batch.json` with a drawing and a program of each sheet. */
export async function batchCommand(args: string[]): Promise<void> {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: {
      out: { type: 'string' },
      shop: { type: 'string' },
      seconds: { type: 'string' },
      steps: { type: 'string' },
    },
  });
  const file = onlyFile(positionals, 'batch', 'the batch');
  const out = required(values.out, 'batch', 'out');
  const seconds = numberOption(values.seconds, 'seconds', 0, 'batch');
  const most = numberOption(values.steps, 'steps', 0, 'batch');
  const given = await readJsonOf<BatchFile>(file, { schema: BATCH_SCHEMA, code: 'not-a-batch', what: 'a batch' });
  const shop = await readShop(values.shop);
  const jobs = await jobsOf(file, given.jobs, shop);
  const { sheets, unplaced, missingFoil, steps } = await layJobs(
    jobs,
    shop,
    {
      ...NEW_LAY_WISH,
      spares: { single: 0, layered: 0 },
      ...(given.spacing === undefined ? {} : { spacingMm: given.spacing }),
      ...(given.zones === undefined ? {} : { zones: given.zones }),
      ...(given.order ? { order: given.order } : {}),
    },
    budgetOf(seconds, most, given.steps),
  );
  await makeFolder(out);
  for (const [i, sheet] of sheets.entries()) {
    await writeFile(join(out, `sheet-${i + 1}.svg`), sheetSvg(sheet));
    await writeFile(join(out, `sheet-${i + 1}.plt`), writeHpgl(programOf(sheet, shop.cutter)));
  }
  const report = {
    sheets: sheets.map((sheet) => ({
      id: sheet.id,
      pieceIds: sheet.pieces.map(({ id }) => id),
      ...(sheet.mat ? { mat: sheet.mat.id } : {}),
      ...(sheet.zones
        ? {
            zones: sheet.zones.map(({ film, piece, xMm, yMm, widthMm, lengthMm }) => ({
              film: film.id,
              x: xMm,
              y: yMm,
              width: widthMm,
              length: lengthMm,
              piece: piece.id,
            })),
          }
        : {}),
      ...(sheet.section ? { section: sheet.section } : {}),
      settings: { forceG: sheet.forceG, speedMmS: sheet.speedMmS },
      ...(sheet.zones ? {} : { film: sheet.films[0]!.id }),
      groups: sheet.groups.map((group) => ({
        job: group.job,
        layer: group.filmId,
        copy: group.copy,
        ...placeOf(group, jobs[group.job]!.frameHeightMm),
      })),
      ...(sheet.foils.length > 0 ? { foils: foilsReport(sheet) } : {}),
      usedMm2: sheet.usedMm2,
      leftover: sheet.leftovers.map(({ piece, xMm, yMm, widthMm, lengthMm, keep }) => ({
        piece: piece.id,
        x: xMm,
        y: yMm,
        width: widthMm,
        length: lengthMm,
        keep,
      })),
    })),
    passes: sheets.length,
    filmValue: sheets.reduce((sum, { value }) => sum + value, 0),
    keptMm2: sheets.reduce((sum, { groups }) => sum + groups.reduce((own, { keptMm2 }) => own + keptMm2, 0), 0),
    takenMm2: sheets.reduce((sum, { usedMm2 }) => sum + usedMm2, 0),
    missingFoil: missingFoil.map(({ film, widthMm, lengthMm, quantity }) => ({
      film: film.id,
      width: widthMm,
      length: lengthMm,
      quantity,
    })),
    unplaced: unplaced.map(({ job, film, quantity, reason }) => ({ job, layer: film.id, quantity, reason })),
    steps: steps.map(({ film, steps: made }) => ({ film: film.id, steps: made })),
  };
  await writeFile(join(out, 'batch.json'), JSON.stringify(report, null, 2) + '\n');
}

/** The jobs that a batch names, prepared. @throws InputError `job-blocked` at the first that something stops */
async function jobsOf(file: string, named: BatchFile['jobs'], shop: Shop): Promise<PreparedJob[]> {
  const planner = new Planner(resourcesInNode);
  const jobs: PreparedJob[] = [];
  for (const { recipe: name, copies } of named) {
    const { recipe, sources } = await readRecipe(join(dirname(file), name));
    const { ready, stopped } = await prepareJobs(planner, [{ id: String(jobs.length), recipe, shop, sources }]);
    for (const { why } of stopped)
      throw new InputError('job-blocked', `Something stops this job: ${why}`, { source: basename(name) });
    jobs.push(...ready.map((job) => ({ ...job, copies: copies ?? job.copies })));
  }
  return jobs;
}

/** So many steps for each film, those that are written of it first; of the time each film has its share. */
function budgetOf(seconds: number | null, most: number | null, written: BatchFile['steps']): LayJobsHooks {
  if (seconds === null && most === null && !written) return {};
  const begun = performance.now();
  return {
    budget: (film, part, of) => {
      const mayMake = written?.find((one) => one.film === film.id)?.steps ?? most ?? (seconds === null ? 0 : Infinity);
      return stepBudget(mayMake, seconds === null ? null : begun + (seconds * 1000 * (part + 1)) / of);
    },
  };
}

/** How a layer in the frame of its file (lower left corner at 0, 0, y up) comes to where it lies: mirrored first, then turned, then moved. */
function placeOf(
  { matrix: [a, b, c, d, e, f], isMirrored }: SheetGroup,
  heightMm: number,
): { x: number; y: number; rotation: number; mirrored: boolean } {
  const sign = isMirrored ? -1 : 1;
  const rotation = Math.round(((Math.atan2(sign * b, sign * a) * 180) / Math.PI + 360) % 360);
  return { x: e + c * heightMm, y: f + d * heightMm, rotation, mirrored: isMirrored };
}
