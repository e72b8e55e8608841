import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { cutterInUse, worthOf } from '../../core/shop/index.js';
import { SPOT_KINDS } from '../../core/engines/weeding/index.js';
import {
  farthestRun,
  filmsOfSheet,
  tookFilm,
  type CopyVerdict,
  type FrozenSheet,
} from '../../core/stations/cut/index.js';
import { formatLength } from '../../core/words/index.js';
import { object, size, text, whole } from '../../core/words/schema.js';
import { decideSheet, judgeCopies, sheetToCutAgain, undecidedSheet } from '../judge-copies.js';
import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import type { CopyPlace } from '../stores/sheet-store.js';
import { EDIT_PROPERTIES } from './edit-schema.js';
import { changed, filesOnly, LOADED, mustBeLoaded } from './cut-routes.js';
import { shopEditOf, whoOf } from './who.js';

const LOADED_ONLY = {
  type: 'object',
  additionalProperties: false,
  required: ['loadedFilmIds'],
  properties: LOADED,
} as const;

/** What of a sheet goes back to the rack: of each that is kept its size as it was measured, and where it lies. */
const BACK = object({ leftover: whole(0, 1000), widthMm: size, lengthMm: size, place: text });
/** What a page rounds when it shows a size. */
const ROUNDING_MM = 0.05;
type Back = { readonly leftover: number; readonly widthMm: number; readonly lengthMm: number; readonly place: string };

/** Sheets that were sent to the cutter: looking at them, deciding what becomes of one that failed, and ticking off what was weeded. */
export function sheetRoutes({ jobs, sheets, programs, compute, shop, spooler, weeding, facts }: Services): Route[] {
  return [
    {
      method: 'get',
      path: '/api/jobs/:id/cuts',
      summary:
        'Every sheet of a job that was sent to the cutter, as it was then, with its runs and ticks, the oldest first',
      answer: 'FrozenSheets',
      answers: 'A list of frozen sheets',
      handle: async ({ params }) => {
        await jobs.mustExist(params['id']!);
        return sheets.ofJob(params['id']!);
      },
    },
    {
      method: 'get',
      path: '/api/sheets/:id',
      summary: 'A frozen sheet',
      answer: 'FrozenSheet',
      answers: 'The sheet',
      handle: ({ params }) => sheets.get(params['id']!),
    },
    ...(['outlines', 'runs'] as const).map((what): Route => ({
      method: 'get',
      path: `/api/sheets/:id/${what}`,
      summary:
        what === 'outlines'
          ? 'What lies on a frozen sheet, group by group: contours, marks, borders; thousandths of a mm, y up'
          : 'Where the holder goes for it, run by run; 1/40 mm, y up',
      answers: 'Packed lists of 32-bit numbers: how many, the length of each, then all of them',
      handle: async ({ ctx, params }) => {
        await sheets.get(params['id']!);
        ctx.body = await programs.packed(params['id']!, what);
        ctx.type = 'application/octet-stream';
        // A frozen sheet never changes.
        ctx.set('Cache-Control', 'private, max-age=31536000, immutable');
        return undefined;
      },
    })),
    {
      method: 'post',
      path: '/api/sheets/:id/again',
      isBench: true,
      summary: 'Cut a sheet that failed or was cancelled once more, as it is, on a new piece',
      body: LOADED_ONLY,
      answer: 'Run',
      answers: 'The run',
      handle: async ({ ctx, params, body }) => {
        const sheet = await sheetToCutAgain(sheets, params['id']!);
        mustBeLoaded(sheet, (body as { loadedFilmIds: string[] }).loadedFilmIds);
        if (cutterInUse(await shop.get()).host === null) throw filesOnly();
        const who = await whoOf(shop, ctx);
        return facts.run(() => spooler.start(async () => (await sheetToCutAgain(sheets, sheet.id)).id, who));
      },
    },
    {
      method: 'post',
      path: '/api/sheets/:id/rest',
      isBench: true,
      summary: 'Cut what is not whole on a sheet that failed or was cancelled, on a new piece',
      body: LOADED_ONLY,
      answer: 'Run',
      answers: 'The run, of a sheet of its own',
      handle: async ({ ctx, params, body }) => {
        const sheet = await undecidedSheet(sheets, params['id']!);
        const [program, cutter] = [await programs.get(sheet.id), cutterInUse(await shop.get())];
        if (cutter.host === null) throw filesOnly();
        // Every run of a sheet cuts the same in the same order: what is missing is what the one that got farthest did not reach.
        const { pairsDone } = farthestRun(sheet.runs)!;
        const settings = {
          ...program,
          bladeOffsetMm: program.bladeOffsetMm ?? cutter.bladeOffsetMm,
          overcutMm: program.overcutMm ?? cutter.overcutMm,
        };
        const { forceG, speedMmS, bladeOffsetMm, overcutMm } = settings;
        const rest = await compute.rest({
          sheet,
          program,
          pairsDone,
          settings: { forceG, speedMmS, bladeOffsetMm, overcutMm },
          motion: cutter,
        });
        mustBeLoaded(rest, (body as { loadedFilmIds: string[] }).loadedFilmIds);
        const who = await whoOf(shop, ctx);
        const freeze = async () => {
          const now = await undecidedSheet(sheets, sheet.id);
          // What is missing of it may have changed while that was worked out: another hand cut it again, or judged a copy.
          if (!isDeepStrictEqual([now.runs, verdictsOf(now)], [sheet.runs, verdictsOf(sheet)])) throw changed();
          return sheets.freeze({
            ...rest,
            restOf: sheet.id,
            // Its sheet says how its jobs were built.
            jobs: [],
            batchId: sheet.batchId,
            groups: rest.groups.map((group) => ({
              ...group,
              jobId: sheet.groups[group.of]!.jobId,
              revision: sheet.groups[group.of]!.revision,
            })),
          });
        };
        return facts.run(() => spooler.start(freeze, who));
      },
    },
    {
      method: 'post',
      path: '/api/sheets/:id/decide',
      isBench: true,
      summary:
        'Say what becomes of a sheet that failed or was cancelled: keep it, when every part is whole; throw it away, so that it is planned anew; null asks again',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['decided'],
        properties: { decided: { enum: ['kept', 'thrown-away', null] } },
      },
      answer: 'FrozenSheet',
      answers: 'The sheet',
      handle: async ({ ctx, params, body }) => {
        const { decided } = body as { decided: FrozenSheet['decided'] };
        const [id, who] = [params['id']!, await whoOf(shop, ctx)];
        await facts.run(() => decideSheet(sheets, id, { decided, who }));
        return sheets.get(id);
      },
    },
    {
      method: 'put',
      path: '/api/sheets/:id/verdicts',
      isBench: true,
      summary:
        'Say how copies of a sheet turned out, each by its position: a spoiled one goes back among what is to be cut. null takes it back; refused once copies were cut in its place',
      body: object({
        positions: { type: 'array', minItems: 1, maxItems: 5000, items: { type: 'integer', minimum: 0 } },
        verdict: { enum: ['good', 'spoiled', null] },
      }),
      answer: 'FrozenSheet',
      answers: 'The sheet',
      handle: async ({ ctx, params, body }) => {
        const said = body as { readonly positions: readonly number[]; readonly verdict: CopyVerdict | null };
        const who = await whoOf(shop, ctx);
        await facts.run(() => judgeCopies(sheets, params['id']!, { ...said, who }));
        return sheets.get(params['id']!);
      },
    },
    {
      method: 'post',
      path: '/api/sheets/:id/leftovers',
      isBench: true,
      summary:
        'Say what becomes of what is left of a sheet’s pieces: those that are named go back to the rack as offcuts, with a number each, and the others are thrown away. All of it is booked, or nothing. Said once',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['revision', 'back'],
        properties: { back: { type: 'array', maxItems: 1000, items: BACK }, ...EDIT_PROPERTIES },
      },
      answer: 'LeftoversBooked',
      answers: 'The numbers to write on the offcuts, in the order in which they were named',
      handle: async ({ ctx, params, body }) => {
        const { back } = body as { back: readonly Back[] };
        const sheet = await sheets.get(params['id']!);
        if (!sheet.runs.some((run) => run.finishedAt !== null && tookFilm(run)))
          throw new Problem(409, 'sheet-not-cut', 'Nothing of this sheet is cut yet, so nothing is left of it.');
        const pieces = back.map(({ leftover, widthMm, lengthMm, place }) => {
          const left = sheet.leftovers[leftover];
          if (!left)
            throw new Problem(
              422,
              'leftover-unknown',
              'Nothing like that is left of this sheet. Look at it again.',
              'back',
            );
          // A card in the hand may be turned round.
          const [across, along] = [Math.min(widthMm, lengthMm), Math.max(widthMm, lengthMm)];
          const [most, longest] = [Math.min(left.widthMm, left.lengthMm), Math.max(left.widthMm, left.lengthMm)];
          if (across > most + ROUNDING_MM || along > longest + ROUNDING_MM)
            throw new Problem(
              422,
              'leftover-larger',
              `Only ${formatLength(left.widthMm, 'mm')} × ${formatLength(left.lengthMm, 'mm')} mm are left of this piece. Measure it again; if it is larger, count the stock of its roll.`,
              'back',
            );
          const film = [...filmsOfSheet(sheet), ...sheet.foils.map((foil) => foil.film)].find(
            ({ id }) => id === left.filmId,
          );
          return {
            worth: worthOf({ widthMm, lengthMm }, film?.costPerM2 ?? 0),
            id: randomUUID(),
            filmId: left.filmId,
            kind: 'offcut' as const,
            widthMm,
            lengthMm,
            edgeMm: left.edgeMm,
            place,
            note: '',
            retired: false,
          };
        });
        if (new Set(back.map(({ leftover }) => leftover)).size < back.length)
          throw new Problem(422, 'leftover-twice', 'The same piece is named twice. Name each once.', 'back');
        const numbers = await shop.putBack(pieces, sheet.id, await shopEditOf(shop, { ctx, body }));
        return { numbers, revision: (await shop.get()).revision };
      },
    },
    {
      method: 'post',
      path: '/api/sheets/:id/numbers-written',
      isBench: true,
      summary: 'Say that the numbers of a sheet’s offcuts are written on them',
      answer: 'FrozenSheet',
      answers: 'The sheet',
      handle: async ({ params }) => {
        const { id } = await sheets.get(params['id']!);
        await sheets.numbersWritten(id);
        return sheets.get(id);
      },
    },
    {
      method: 'put',
      path: '/api/sheets/:id/ticks',
      isBench: true,
      summary:
        'Tick off what is out of copies while they are weeded, or take the ticks back: all that are named, or none',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['places', 'ticked'],
        properties: {
          places: {
            type: 'array',
            minItems: 1,
            maxItems: 5000,
            items: {
              type: 'object',
              additionalProperties: false,
              required: ['position', 'kind', 'xMm', 'yMm'],
              properties: {
                position: { type: 'integer', minimum: 0 },
                kind: { enum: [...SPOT_KINDS, 'all out'] },
                xMm: { type: 'number' },
                yMm: { type: 'number' },
                part: { type: 'integer', minimum: 0 },
              },
            },
          },
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
      summary:
        'Start or stop the clock of weeding a sheet, or drop its times: a clock that nobody stopped teaches nothing',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['clock'],
        properties: { clock: { enum: ['start', 'stop', 'drop'] } },
      },
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

function verdictsOf({ groups }: FrozenSheet): readonly (CopyVerdict | null)[] {
  return groups.map(({ verdict }) => verdict);
}
