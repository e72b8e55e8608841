import { randomUUID } from 'node:crypto';
import { Ajv } from 'ajv';
import {
  FILM_SCHEMA,
  SHOP_KINDS,
  SHOP_SCHEMAS,
  type Film,
  type RecordChange,
  type ShopRecords,
} from '../../core/shop/index.js';
import { columnOf, readFilmsCsv, sayFault, worst, writeFilmsCsv, type Fault } from '../../core/shop/fields/index.js';
import { object } from '../../core/words/schema.js';
import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import { EDIT_PROPERTIES, EDIT_SCHEMA } from './edit-schema.js';
import { shopEditOf } from './who.js';

/** More than any hand changes at once: a starting set, a file of films. */
const MOST_CHANGES = 1000;
const LARGEST_CSV = 8_000_000;

const CHANGE = {
  type: 'object',
  discriminator: { propertyName: 'kind' },
  required: ['kind'],
  oneOf: SHOP_KINDS.map((kind) => object({ kind: { const: kind }, value: SHOP_SCHEMAS[kind] })),
};

/** What the shop has: films, tools, makers and blanks. */
export function shopRoutes({ shop, runs }: Services): Route[] {
  const written = async () => ({ revision: (await shop.get()).revision });
  return [
    {
      method: 'get',
      path: '/api/shop',
      summary: 'All that the shop has, and what is left of each piece',
      answer: 'Shop',
      answers: 'The shop',
      handle: () => shop.get(),
    },
    {
      method: 'post',
      path: '/api/shop/changes',
      summary:
        'Add records or change them, all in one step that can be undone: each is written whole. Refused when one of them was changed since the revision that was looked at',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['revision', 'changes'],
        properties: {
          changes: { type: 'array', minItems: 1, maxItems: MOST_CHANGES, items: CHANGE },
          ...EDIT_PROPERTIES,
        },
      },
      most: LARGEST_CSV,
      answer: 'ShopRevision',
      answers: 'The shop’s new revision',
      handle: async ({ ctx, body }) => {
        const { changes } = body as { changes: readonly { kind: RecordChange['kind']; value: { id: string } }[] };
        const { stock } = await shop.get();
        for (const { kind, value } of changes) {
          if (kind === 'pieces')
            mustStayWhatItIs(
              stock.find((piece) => piece.id === value.id),
              value as ShopRecords['pieces'],
            );
        }
        await shop.change(
          changes.map(({ kind, value }) => ({ kind, id: value.id, value }) as RecordChange),
          await shopEditOf(shop, { ctx, body }),
        );
        return written();
      },
    },
    ...(['undo', 'redo'] as const).map((name): Route => ({
      method: 'post',
      path: `/api/shop/${name}`,
      summary: name === 'undo' ? 'Take the last change of the shop’s records back' : 'Make it again',
      body: EDIT_SCHEMA,
      answer: 'ShopRevision',
      answers: 'The shop’s new revision',
      handle: async ({ ctx, body }) => {
        await shop.step(name === 'undo' ? -1 : 1, await shopEditOf(shop, { ctx, body }));
        return written();
      },
    })),
    {
      method: 'get',
      path: '/api/shop/films.csv',
      summary: 'All films as a table, lengths in mm',
      answers: 'CSV',
      handle: async ({ ctx }) => {
        ctx.set('Content-Disposition', 'attachment; filename="films.csv"');
        ctx.set('Cache-Control', 'no-store');
        ctx.type = 'text/csv';
        ctx.body = writeFilmsCsv((await shop.get()).films);
        return undefined;
      },
    },
    {
      method: 'post',
      path: '/api/shop/films.csv',
      summary:
        'Take films out of such a table: known ones by their id, others as new ones. Nothing is taken when a line is wrong',
      query: {
        revision: { type: 'string', pattern: '^\\d{1,12}$' },
        edit: { type: 'string', minLength: 1, maxLength: 64 },
      },
      body: 'bytes',
      most: LARGEST_CSV,
      answer: 'FilmsTaken',
      answers: 'How many were added and changed; 422 with what is wrong, line by line',
      handle: async ({ ctx, query, bytes }) => {
        const { films } = await shop.get();
        const read = readFilms(bytes, films);
        const changed = read.filter((film) => films.some((one) => one.id === film.id)).length;
        const edit = await shopEditOf(shop, {
          ctx,
          body: { revision: Number(query['revision'] ?? 0), ...(query['edit'] ? { edit: query['edit'] } : {}) },
        });
        await shop.change(
          read.map((film) => ({ kind: 'films', id: film.id, value: film })),
          edit,
        );
        return { added: read.length - changed, changed, ...(await written()) };
      },
    },
    {
      method: 'get',
      path: '/api/shop/wear',
      summary: 'How often each mat went through the cutter, and how far each blade has cut, m, as the runs tell',
      answer: 'Wear',
      answers: 'Counts and metres by id',
      handle: () => runs.wear(),
    },
    {
      method: 'get',
      path: '/api/shop/films/:id/jobs',
      summary: 'Jobs that use a film, and how many sheets were cut of it',
      answer: 'FilmUse',
      answers: 'Titles and ids of jobs, and a count',
      handle: ({ params }) => shop.usesOf(params['id']!),
    },
  ];
}

/** @throws Problem 422 when a piece becomes one of another film or kind: what is left is counted by these */
function mustStayWhatItIs(before: ShopRecords['pieces'] | undefined, after: ShopRecords['pieces']): void {
  if (!before) throw new Problem(422, 'piece-unknown', 'There is no such piece. A new one is received into stock.');
  for (const field of ['filmId', 'kind', 'number'] as const) {
    if (before[field] !== after[field])
      throw new Problem(
        422,
        'piece-is-another',
        'A piece stays of its film and its kind, and keeps its number. Throw it away, and receive another.',
        field,
      );
  }
}

const validateFilm = new Ajv({ strict: false, verbose: true, allErrors: true }).compile<Film>(FILM_SCHEMA);

/** @throws Problem 422 with every line that is wrong */
function readFilms(bytes: Uint8Array, known: readonly Film[]): Film[] {
  let text: string;
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new Problem(
      422,
      'csv-invalid',
      'This is no text in UTF-8, so nothing was taken. Save the table as “CSV UTF-8”.',
    );
  }
  const { films, problems } = readFilmsCsv(text, known, randomUUID);
  const wrong = [...problems];
  for (const { line, film } of films) {
    if (validateFilm(film)) continue;
    const faults = (validateFilm.errors ?? []) as unknown as Fault[];
    for (const path of new Set(faults.map(({ instancePath }) => instancePath)))
      wrong.push({
        line,
        message: `${columnOf(path.slice(1).replaceAll('/', '.'))}: ${sayFault(worst(faults.filter((fault) => fault.instancePath === path))!)}`,
      });
  }
  if (wrong.length > 0)
    throw new Problem(
      422,
      'csv-invalid',
      'Some lines are not right, so nothing was taken.',
      undefined,
      wrong.sort((a, b) => a.line - b.line).slice(0, 200),
    );
  return films.map(({ film }) => film);
}
