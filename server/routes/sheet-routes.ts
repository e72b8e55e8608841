import { cutterInUse } from '../../core/shop/index.js';
import { SPOT_KINDS } from '../../core/engines/weeding/index.js';
import { standings, type FrozenSheet } from '../../core/stations/cut/index.js';
import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import type { CopyPlace } from '../stores/sheet-store.js';
import { filesOnly, mustBeLoaded } from './cut-routes.js';
import { whoOf } from './who.js';

const LOADED = { type: 'object', additionalProperties: false, required: ['loadedFilmId'], properties: { loadedFilmId: { type: 'string', maxLength: 200 } } } as const;

/** Sheets that were sent to the cutter: looking at them, deciding what becomes of one that failed, and ticking off what was weeded. */
export function sheetRoutes({ jobs, sheets, programs, compute, shop, spooler, weeding }: Services): Route[] {
  const undecided = async (id: string): Promise<FrozenSheet> => {
    const sheet = await sheets.get(id);
    const standing = standings(await sheets.ofJob(sheet.groups[0]!.jobId)).get(id);
    if (standing !== 'undecided') throw new Problem(409, 'sheet-decided', 'It is already decided what to do with this sheet. Look at it again.');
    return sheet;
  };
  return [
    {
      method: 'get',
      path: '/api/jobs/:id/cuts',
      summary: 'Every sheet of a job that was sent to the cutter, as it was then, with its runs and ticks, the oldest first',
      answer: 'FrozenSheets',
      answers: 'A list of frozen sheets',
      handle: async ({ params }) => {
        await jobs.mustExist(params['id']!);
        return sheets.ofJob(params['id']!);
      },
    },
    { method: 'get', path: '/api/sheets/:id', summary: 'A frozen sheet', answer: 'FrozenSheet', answers: 'The sheet', handle: ({ params }) => sheets.get(params['id']!) },
    ...(['outlines', 'runs'] as const).map(
      (what): Route => ({
        method: 'get',
        path: `/api/sheets/:id/${what}`,
        summary: what === 'outlines' ? 'What lies on a frozen sheet, group by group: contours, marks, borders; thousandths of a mm, y up' : 'Where the holder goes for it, run by run; 1/40 mm, y up',
        answers: 'Packed lists of 32-bit numbers: how many, the length of each, then all of them',
        handle: async ({ ctx, params }) => {
          await sheets.get(params['id']!);
          ctx.body = await programs.packed(params['id']!, what);
          ctx.type = 'application/octet-stream';
          // A frozen sheet never changes.
          ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
          return undefined;
        },
      }),
    ),
    {
      method: 'post',
      path: '/api/sheets/:id/again',
      isBench: true,
      summary: 'Cut a sheet that failed or was cancelled once more, as it is, on a new piece',
      body: LOADED,
      answer: 'Run',
      answers: 'The run',
      handle: async ({ ctx, params, body }) => {
        const { film } = await undecided(params['id']!);
        mustBeLoaded(film, (body as { loadedFilmId: string }).loadedFilmId);
        if (cutterInUse(await shop.get()).host === null) throw filesOnly();
        return spooler.start(async () => (await undecided(params['id']!)).id, await whoOf(shop, ctx));
      },
    },
    {
      method: 'post',
      path: '/api/sheets/:id/rest',
      isBench: true,
      summary: 'Cut what is not whole on a sheet that failed or was cancelled, on a new piece',
      body: LOADED,
      answer: 'Run',
      answers: 'The run, of a sheet of its own',
      handle: async ({ ctx, params, body }) => {
        const sheet = await undecided(params['id']!);
        mustBeLoaded(sheet.film, (body as { loadedFilmId: string }).loadedFilmId);
        const [program, cutter] = [await programs.get(sheet.id), cutterInUse(await shop.get())];
        if (cutter.host === null) throw filesOnly();
        const { pairsDone } = sheet.runs.at(-1)!;
        const settings = { ...program, bladeOffsetMm: program.bladeOffsetMm ?? cutter.bladeOffsetMm, overcutMm: program.overcutMm ?? cutter.overcutMm };
        const { forceG, speedMmS, bladeOffsetMm, overcutMm } = settings;
        const rest = await compute.rest({ sheet, program, pairsDone, settings: { forceG, speedMmS, bladeOffsetMm, overcutMm }, motion: cutter });
        return spooler.start(async () => {
          const { groups } = await undecided(sheet.id);
          const of = (copy: number, fingerprint: string) => groups.find((group) => group.copy === copy && group.fingerprint === fingerprint)!;
          return sheets.freeze({ ...rest, restOf: sheet.id, groups: rest.groups.map((group) => ({ ...group, jobId: of(group.copy, group.fingerprint).jobId, revision: of(group.copy, group.fingerprint).revision })) });
        }, await whoOf(shop, ctx));
      },
    },
    {
      method: 'post',
      path: '/api/sheets/:id/decide',
      isBench: true,
      summary: 'Say what becomes of a sheet that failed or was cancelled: keep it, when every part is whole; throw it away, so that it is planned anew; null asks again',
      body: { type: 'object', additionalProperties: false, required: ['decided'], properties: { decided: { enum: ['kept', 'thrown-away', null] } } },
      answer: 'FrozenSheet',
      answers: 'The sheet',
      handle: async ({ params, body }) => {
        const { decided } = body as { decided: FrozenSheet['decided'] };
        const id = params['id']!;
        if (decided === null) {
          if ((await sheets.get(id)).decided === null) throw new Problem(409, 'sheet-undecided', 'Nothing was decided about this sheet.');
        } else {
          const whole = (await undecided(id)).runs.at(-1)!.whole;
          if (decided === 'kept' && (whole === null || whole.parts < whole.ofParts)) throw new Problem(409, 'parts-missing', 'Not every part of this sheet is whole, so it cannot be kept as it is. Cut the rest instead.');
        }
        await sheets.decide(id, decided);
        return sheets.get(id);
      },
    },
    {
      method: 'put',
      path: '/api/sheets/:id/ticks',
      isBench: true,
      summary: 'Tick off what is out of copies while they are weeded, or take the ticks back: all that are named, or none',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['places', 'ticked'],
        properties: {
          places: { type: 'array', minItems: 1, maxItems: 5000, items: { type: 'object', additionalProperties: false, required: ['position', 'kind', 'xMm', 'yMm'], properties: { position: { type: 'integer', minimum: 0 }, kind: { enum: [...SPOT_KINDS, 'all out'] }, xMm: { type: 'number' }, yMm: { type: 'number' } } } },
          ticked: { type: 'boolean' },
        },
      },
      answer: 'FrozenSheet',
      answers: 'The sheet',
      handle: async ({ params, body }) => {
        const { places, ticked } = body as { places: readonly CopyPlace[]; ticked: boolean };
        await sheets.tick(params['id']!, places, ticked);
        return sheets.get(params['id']!);
      },
    },
    {
      method: 'post',
      path: '/api/sheets/:id/weeding',
      isBench: true,
      summary: 'Start or stop the clock of weeding a sheet, or drop its times: a clock that nobody stopped teaches nothing',
      body: { type: 'object', additionalProperties: false, required: ['clock'], properties: { clock: { enum: ['start', 'stop', 'drop'] } } },
      answer: 'FrozenSheet',
      answers: 'The sheet',
      handle: async ({ ctx, params, body }) => {
        const { id } = await sheets.get(params['id']!);
        const { clock } = body as { clock: 'start' | 'stop' | 'drop' };
        if (clock === 'start') await weeding.start(id, await whoOf(shop, ctx));
        else await weeding[clock](id);
        return sheets.get(id);
      },
    },
    {
      method: 'get',
      path: '/api/weeding',
      summary: 'How long this shop takes to weed, learned from its own times',
      answer: 'LearnedWeeding',
      answers: 'The figures, and from how many times they are; null while nothing was timed to its end',
      handle: async () => ({ learned: await weeding.learned() }),
    },
  ];
}
