import { ENDED } from '../../core/records/index.js';
import { openEventStream } from '../event-stream.js';
import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import { askCutterControl } from '../spooler/cutter-control.js';

/** Cutting sheets, watching them, and recording what came of them. */
export function cutRoutes({ jobs, runs, shop, compute, planJob, spooler, cutterControlPort }: Services): Route[] {
  const sheetOf = async (jobId: string, sheet: string) => compute.sheet(await planJob(jobId), Number(sheet));
  return [
    {
      method: 'get',
      path: '/api/jobs/:id/sheets/:sheet/hpgl',
      summary: 'A sheet as an HP-GL file',
      answers: 'HP-GL, 40 units per mm',
      handle: async ({ ctx, params }) => {
        const { sheet } = await sheetOf(params['id']!, params['sheet']!);
        ctx.set('Content-Disposition', `attachment; filename="sheet-${params['sheet']}-${sheet.filmId}.plt"`);
        ctx.type = 'application/vnd.hp-hpgl';
        ctx.body = sheet.hpgl;
        return undefined;
      },
    },
    {
      method: 'post',
      path: '/api/jobs/:id/sheets/:sheet/cut',
      summary: 'Cut a sheet; the film said to be loaded must be the one the sheet is for',
      body: { type: 'object', additionalProperties: false, required: ['loadedFilmId'], properties: { loadedFilmId: { type: 'string' } } },
      answers: 'The run',
      handle: async ({ params, body }) => {
        const { sheet, sheets } = await sheetOf(params['id']!, params['sheet']!);
        const { loadedFilmId } = body as { loadedFilmId: string };
        if (loadedFilmId !== sheet.filmId) {
          throw new Problem(409, 'wrong-film', `This sheet is for ${sheet.filmName}; load that first. Nothing was cut.`);
        }
        const { filmId, program, estimateSeconds, cutMm, filmMm2, filmCost } = sheet;
        const run = await spooler.start({ jobId: params['id']!, sheet: Number(params['sheet']), filmId, program, estimateSeconds, cutMm, filmMm2, filmCost });
        await jobs.setSheetsTotal(params['id']!, sheets);
        return run;
      },
    },
    { method: 'get', path: '/api/jobs/:id/runs', summary: 'Every run of a job, the newest first', answers: 'A list of runs', handle: ({ params }) => runs.ofJob(params['id']!) },
    { method: 'get', path: '/api/runs/:id', summary: 'A run', answers: 'The run', handle: ({ params }) => runs.get(params['id']!) },
    {
      method: 'patch',
      path: '/api/runs/:id',
      summary: 'Record how a run turned out',
      body: {
        type: 'object',
        additionalProperties: false,
        properties: { outcome: { enum: ['good', 'remake', null] }, note: { type: 'string', maxLength: 2000 } },
      },
      answers: 'The run',
      handle: ({ params, body }) => runs.setRecord(params['id']!, body as { outcome?: 'good' | 'remake' | null; note?: string }),
    },
    ...(['pause', 'resume', 'cancel'] as const).map(
      (name): Route => ({
        method: 'post',
        path: `/api/runs/:id/${name}`,
        summary: { pause: 'Hold the cutter where it is', resume: 'Go on', cancel: 'Lift the knife and stop for good' }[name],
        answers: 'The run',
        handle: async ({ params }) => {
          await spooler[name](params['id']!);
          return runs.get(params['id']!);
        },
      }),
    ),
    {
      method: 'get',
      path: '/api/runs/:id/events',
      summary: 'A run as it goes: “progress” events with the head’s place, and “ended”',
      answers: 'Server-sent events',
      handle: async ({ ctx, params }) => {
        const run = await runs.get(params['id']!);
        const stop = spooler.listen((progress) => {
          if (progress.runId !== run.id) return;
          stream.send('progress', progress);
          if (ENDED.includes(progress.state)) finish();
        });
        const stream = openEventStream(ctx, stop);
        const finish = () => {
          stream.send('ended', {});
          stream.end();
          stop();
        };
        const current = spooler.progressOf(run.id);
        if (current) stream.send('progress', current);
        else if (ENDED.includes(run.state)) finish();
        return undefined;
      },
    },
    {
      method: 'post',
      path: '/api/cutter/control',
      summary: 'The simulated cutter’s switches: look at it, break it, mend it',
      body: { type: 'object', required: ['do'], properties: { do: { type: 'string' } } },
      answers: 'The cutter’s status, or what it cut',
      handle: async ({ body }) => {
        const { cutter } = await shop.get();
        return askCutterControl(cutter.host, cutterControlPort, body as object);
      },
    },
  ];
}
