import type { Context } from 'koa';
import { cutterInUse } from '../../core/shop/index.js';
import { ENDED, filmsOfSheet, type FrozenSheet, type Run } from '../../core/stations/cut/index.js';
import { openEventStream } from '../event-stream.js';
import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import { askCutterControl } from '../spooler/cutter-control.js';

/** What was looked at in the cutter: of a mat with several pieces each film, in the order of the pieces. */
export const LOADED = {
  loadedFilmIds: { type: 'array', minItems: 1, maxItems: 200, items: { type: 'string', maxLength: 200 } },
} as const;

/** The runs that come of sheets that were sent to the cutter, and the cutter itself. */
export function cutRoutes({ jobs, sheets, runs, shop, spoils, spooler, cutterControlPort }: Services): Route[] {
  return [
    {
      method: 'get',
      path: '/api/jobs/:id/built-with',
      summary:
        'What of the shop a job was built with when what is cut of it was sent: its films and figures stay so. For every time that the newer ones were taken; empty while nothing is cut',
      answer: 'BuiltWith',
      answers: 'A list',
      handle: async ({ params }) => sheets.builtWith(params['id']!, await sheets.ofJob(params['id']!)),
    },
    {
      method: 'get',
      path: '/api/runs/:id',
      summary: 'A run',
      answer: 'Run',
      answers: 'The run',
      handle: ({ params }) => runs.get(params['id']!),
    },
    {
      method: 'patch',
      path: '/api/runs/:id',
      isBench: true,
      summary: 'Keep a note about a run',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['note'],
        properties: { note: { type: 'string', maxLength: 2000 } },
      },
      answer: 'Run',
      answers: 'The run',
      handle: ({ params, body }) => runs.setNote(params['id']!, (body as { note: string }).note),
    },
    {
      method: 'get',
      path: '/api/jobs/:id/spoiled',
      summary: 'How many copies of a job were spoiled while they were weeded and laid',
      answer: 'SpoiledOfJob',
      answers: 'How many, null while nobody has said; and how many are cut well by now',
      handle: async ({ params }) => spoils.ofJob((await jobs.get(params['id']!)).id),
    },
    {
      method: 'put',
      path: '/api/jobs/:id/spoiled',
      isBench: true,
      summary: 'Record how many copies of a job were spoiled. New batches cut spares by what the shop’s own runs teach',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['spoiled'],
        properties: { spoiled: { type: ['integer', 'null'], minimum: 0, maximum: 1_000_000 } },
      },
      answer: 'SpoiledOfJob',
      answers: 'The same as it is kept',
      handle: async ({ params, body }) =>
        spoils.record((await jobs.get(params['id']!)).id, (body as { spoiled: number | null }).spoiled),
    },
    {
      method: 'get',
      path: '/api/spares',
      summary: 'How many spares this shop needs of a run, learned from what was spoiled of its own',
      answer: 'LearnedSpares',
      answers: 'For single films and for layered work the share, and from how many copies it is',
      handle: () => spoils.learned(),
    },
    ...(['pause', 'resume', 'cancel'] as const).map((name): Route => ({
      method: 'post',
      path: `/api/runs/:id/${name}`,
      isBench: true,
      summary: {
        pause: 'Hold the cutter where it is',
        resume: 'Go on',
        cancel: 'Drop what the cutter holds, lift the knife and stop for good',
      }[name],
      answer: 'Run',
      answers: 'The run',
      handle: async ({ params }) => {
        await spooler[name](params['id']!);
        return runs.get(params['id']!);
      },
    })),
    {
      method: 'get',
      path: '/api/runs/:id/events',
      summary: 'A run as it goes: “progress” events with the head’s place, and “ended”',
      answers: 'Server-sent events',
      handle: async ({ ctx, params }) => {
        const run = await runs.get(params['id']!);
        const stop = spooler.listen((progress) => {
          if (progress.runId !== run.id) return;
          stream.send('progress', progress, { whole: true });
          if (ENDED.includes(progress.state)) finish();
        });
        const stream = openEventStream(ctx, stop);
        const finish = () => {
          stream.send('ended', {});
          stream.end();
          stop();
        };
        const current = spooler.progressOf(run.id);
        if (current) stream.send('progress', current, { whole: true });
        else if (ENDED.includes(run.state)) finish();
        return undefined;
      },
    },
    {
      method: 'get',
      path: '/api/cutter',
      summary: 'What the cutter is at: the run that has not ended, and the job it is of',
      answer: 'CutterBusy',
      answers: '{ busy: null } or the run, its job’s id and title',
      handle: async () => {
        const run: Run | undefined = (await runs.open())[0];
        if (!run) return { busy: null };
        const sheet = await sheets.get(run.sheetId);
        const { groups } = sheet;
        const { id, title } = await jobs.get(groups[0]!.jobId);
        return {
          busy: {
            runId: run.id,
            state: spooler.progressOf(run.id)?.state ?? run.state,
            filmName: filmsOfSheet(sheet)
              .map(({ name }) => name)
              .join(', '),
            jobId: id,
            jobTitle: title,
          },
        };
      },
    },
    {
      method: 'post',
      path: '/api/cutter/control',
      summary: 'The simulated cutter’s switches: look at it, break it, mend it',
      body: { type: 'object', required: ['do'], properties: { do: { type: 'string', maxLength: 40 } } },
      answer: 'CutterAnswer',
      answers: 'The cutter’s status, or what it cut',
      handle: async ({ body }) => {
        const { host } = cutterInUse(await shop.get());
        if (host === null) throw filesOnly();
        return askCutterControl(host, cutterControlPort, body as object);
      },
    },
  ];
}

/** A sheet as a file to be saved. */
export function sendHpgl(ctx: Context, sheet: string, bytes: Uint8Array): undefined {
  ctx.set('Content-Disposition', `attachment; filename="sheet-${sheet}.plt"`);
  ctx.set('Cache-Control', 'no-store');
  ctx.type = 'application/vnd.hp-hpgl';
  ctx.body = Buffer.from(bytes);
  return undefined;
}

/** A cutter that is given files cannot be sent anything. */
export function filesOnly(): Problem {
  return new Problem(
    409,
    'cutter-takes-files',
    'The shop’s cutter takes files only, so nothing was sent. Save the sheet as a file, or give the cutter an address under Tools.',
  );
}

export function changed(): Problem {
  return new Problem(
    409,
    'sheet-changed',
    'The job, its films, or what is cut of it have changed since you looked. Nothing was cut. The newest state is shown now. Look at it, then cut.',
  );
}

/** @throws Problem 409 when another revision was looked at than there is */
export function mustBeLookedAt(now: number, looked: number): void {
  if (now !== looked) throw changed();
}

/** @throws Problem 409 when another film lies in the cutter */
export function mustBeLoaded(
  { film, zones }: Pick<FrozenSheet, 'film' | 'zones'>,
  loadedFilmIds: readonly string[],
): void {
  const films = zones ? zones.map((zone) => zone.film) : [film];
  if (films.length === loadedFilmIds.length && films.every(({ id }, i) => id === loadedFilmIds[i])) return;
  throw new Problem(
    409,
    'wrong-film',
    `This sheet is for ${films.map(({ name }) => name).join(', then ')}. Nothing was cut. Load ${films.length === 1 ? 'that film' : 'those films, in that order,'} first.`,
  );
}
