import { BATCH_WISH_SCHEMA, withPin, type HandMove } from '../../core/batch/index.js';
import { figure, id, object, text, whole } from '../../core/words/schema.js';
import { nameOfBatch } from '../compute/compute.js';
import { openEventStream } from '../event-stream.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import { streamWork } from '../stream-work.js';
import type { BatchChange } from '../stores/batch-store.js';
import { changed, filesOnly, LOADED, mustBeLoaded, mustBeLookedAt, sendHpgl } from './cut-routes.js';
import { whoOf } from './who.js';

const REVISION = { revision: { type: 'integer', minimum: 0 } } as const;
const JOB_IDS = { type: 'array', minItems: 1, maxItems: 200, items: id } as const;

/** What is cut together, or one job alone (whose batch has the job’s id): which jobs, how, what comes of it, and sending it to the cutter. */
export function batchRoutes({
  batches,
  jobs,
  sheets,
  shop,
  compute,
  sourceOfBatch,
  spooler,
  facts,
}: Services): Route[] {
  return [
    {
      method: 'get',
      path: '/api/batches',
      summary: 'The batches that have a number: jobs that are cut together, and what is decided of that',
      answer: 'Batches',
      answers: 'Those that have not ended',
      handle: () => batches.list(),
    },
    {
      method: 'get',
      path: '/api/batches/:id',
      summary: 'A batch, or by a job’s id the batch of one in which it is cut alone',
      answer: 'Batch',
      answers: 'The batch',
      handle: ({ params }) => batches.get(params['id']!),
    },
    {
      method: 'get',
      path: '/api/jobs/:id/batch',
      summary: 'The batch that a job is cut in: with others, or alone in its own',
      answer: 'Batch',
      answers: 'The batch',
      handle: async ({ params }) => batches.get((await batches.ofJob(params['id']!))?.id ?? params['id']!),
    },
    {
      method: 'post',
      path: '/api/batches',
      isBench: true,
      summary: 'Put jobs together, so that they are cut on the same sheets. A job that lies in another batch leaves it',
      body: object({ jobIds: JOB_IDS }),
      answer: 'Batch',
      answers: 'The new batch',
      handle: ({ body }) => batches.create((body as { jobIds: readonly string[] }).jobIds),
    },
    {
      method: 'patch',
      path: '/api/batches/:id',
      isBench: true,
      summary: 'Change which jobs a batch has, or what is decided of it',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['revision'],
        properties: { ...REVISION, wish: BATCH_WISH_SCHEMA, jobIds: JOB_IDS },
      },
      answer: 'Batch',
      answers: 'The batch as it then is',
      handle: ({ params, body }) => {
        const { revision, ...change } = body as BatchChange & { revision: number };
        return batches.change(params['id']!, revision, change);
      },
    },
    {
      method: 'post',
      path: '/api/batches/:id/end',
      isBench: true,
      summary: 'Take a batch apart: its jobs are cut alone again. What was cut stays cut',
      body: object(REVISION),
      answer: 'Batches',
      answers: 'The batches that are left',
      handle: async ({ params, body }) => {
        await batches.end(params['id']!, (body as { revision: number }).revision);
        return batches.list();
      },
    },
    {
      method: 'get',
      path: '/api/batches/:id/plan',
      summary: 'What a batch comes to: its sheets in the order of cutting, what is left of pieces, what is short',
      answer: 'BatchPlan',
      answers: 'Figures, and path data to draw the sheets with',
      handle: async ({ params, signal }) => compute.batch(await sourceOfBatch(params['id']!), { signal }),
    },
    {
      method: 'get',
      path: '/api/batches/:id/plan/events',
      summary:
        'The same while it is computed: “progress” events from 0 to 1, “waits” with what is worked on instead, then “plan” or “failed”',
      answers: 'Server-sent events',
      handle: async ({ ctx, params }) => {
        const source = await sourceOfBatch(params['id']!);
        return streamWork(ctx, { event: 'plan', failed: 'This batch could not be laid out.' }, (how) =>
          compute.batch(source, how),
        );
      },
    },
    {
      method: 'post',
      path: '/api/batches/:id/pins',
      isBench: true,
      summary:
        'Lay a copy by hand: moved by so much (mm, y up) and turned about its middle. It comes to lie as near to that as it can, and stays there; the rest is nested round it. To let it go, change the batch’s “pins”',
      body: object({
        ...REVISION,
        sheetId: text,
        group: whole(0, 100_000),
        dxMm: figure(-100_000, 100_000),
        dyMm: figure(-100_000, 100_000),
        turn: { enum: [0, 90, 180, 270] },
      }),
      answer: 'Batch',
      answers: 'The batch as it then is',
      handle: async ({ params, body, signal }) => {
        const { revision, ...move } = body as HandMove & { revision: number };
        const batch = await batches.get(params['id']!);
        mustBeLookedAt(batch.revision, revision);
        const pin = await compute.move(await sourceOfBatch(batch.id), move, signal);
        return batches.change(batch.id, revision, { wish: { ...batch.wish, pins: withPin(batch.wish.pins, pin) } });
      },
    },
    {
      method: 'post',
      path: '/api/batches/:id/search',
      isBench: true,
      summary:
        'Look for less film for so many seconds, or until it is said to be enough. What is found is decided by its number of steps, so that it comes out the same again',
      body: object({ ...REVISION, seconds: whole(1, 300) }),
      answer: 'BatchSearched',
      answers: 'The batch as it then is, and how much film is taken, with what was found and before',
      handle: async ({ params, body, signal }) => {
        const { revision, seconds } = body as { revision: number; seconds: number };
        const batch = await batches.get(params['id']!);
        mustBeLookedAt(batch.revision, revision);
        const { steps, takenMm2, beforeMm2 } = await compute.search(
          batch.id,
          await sourceOfBatch(batch.id),
          seconds,
          signal,
        );
        return {
          batch: steps ? await batches.change(batch.id, revision, { wish: { ...batch.wish, steps } }) : batch,
          takenMm2,
          beforeMm2,
        };
      },
    },
    {
      method: 'get',
      path: '/api/batches/:id/search/events',
      summary:
        'What searches for less film find on the way: “better” events, each the best so far for one film; “waits” while something else has its turn',
      answers: 'Server-sent events',
      handle: ({ ctx, params }) => {
        const stream = openEventStream(ctx, () => leave());
        const leave = compute.watchSearch(params['id']!, (told) =>
          stream.send('waitsFor' in told ? 'waits' : 'better', told, { whole: true }),
        );
        return Promise.resolve(undefined);
      },
    },
    {
      method: 'post',
      path: '/api/batches/:id/search/enough',
      isBench: true,
      summary: 'End a search that is under way, and keep what it found',
      answer: 'Batch',
      answers: 'The batch; the search answers for itself',
      handle: ({ params }) => {
        compute.searchedEnough(params['id']!);
        return batches.get(params['id']!);
      },
    },
    {
      method: 'get',
      path: '/api/batches/:id/cuts',
      summary:
        'Every sheet of a batch that was sent to the cutter, the oldest first. By the id of a job, every sheet that carries anything of it',
      answer: 'FrozenSheets',
      answers: 'A list of frozen sheets',
      handle: async ({ params }) => {
        const ofBatch = await sheets.ofBatch(params['id']!);
        return ofBatch.length > 0 ? ofBatch : sheets.ofJob(params['id']!);
      },
    },
    {
      method: 'get',
      path: '/api/batches/:id/sheets/:sheet/hpgl',
      summary: 'A sheet of a batch as an HP-GL file',
      answers: 'HP-GL, 40 units per mm',
      handle: async ({ ctx, params, signal }) => {
        const bytes = await compute.hpgl(await sourceOfBatch(params['id']!), params['sheet']!, signal);
        return sendHpgl(ctx, params['sheet']!, bytes);
      },
    },
    {
      method: 'post',
      path: '/api/batches/:id/sheets/:sheet/cut',
      isBench: true,
      summary:
        'Cut a sheet of a batch. It is frozen as it is; refused when the batch, one of its jobs or the shop is another by now, or when other films are loaded',
      body: object({ ...REVISION, ...LOADED }),
      answer: 'Run',
      answers: 'The run',
      handle: async ({ ctx, params, body, signal }) => {
        const { loadedFilmIds, revision } = body as { loadedFilmIds: readonly string[]; revision: number };
        const batchId = params['id']!;
        mustBeLookedAt((await batches.get(batchId)).revision, revision);
        const planned = await sourceOfBatch(batchId);
        if (planned.shop.cutter.host === null) throw filesOnly();
        const { sheet, toCut } = await compute.sheet(planned, params['sheet']!, signal);
        mustBeLoaded(sheet, loadedFilmIds);
        const who = await whoOf(shop, ctx);
        const freeze = async () => {
          // Whatever was changed or cut while it was planned: the cutter is taken by now, so nothing more is cut in between.
          const now = await sourceOfBatch(batchId);
          if (nameOfBatch(now) !== nameOfBatch(planned)) throw changed();
          const sheetId = await sheets.freeze({
            ...sheet,
            restOf: null,
            jobs: toCut.map(({ jobId, builtWith }) => ({
              jobId,
              recipe: now.jobs.find((job) => job.jobId === jobId)!.source.recipe,
              builtWith,
            })),
            batchId: now.isAlone ? null : batchId,
            groups: sheet.groups.map((group) => ({ ...group, revision: now.revisions.get(group.jobId)!, of: null })),
          });
          for (const { jobId, layers } of toCut) await jobs.setToCut(jobId, { layers });
          return sheetId;
        };
        return facts.run(() => spooler.start(freeze, who));
      },
    },
  ];
}
