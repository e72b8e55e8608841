import { SHOP_SCHEMAS, STOCK_ACTS, worthOf, type PieceCard, type StockAct } from '../../core/shop/index.js';
import { figure, id, note, object, oneOf, orNull } from '../../core/words/schema.js';
import { filmsOfSheet, tookFilm, type FrozenSheet } from '../../core/stations/cut/index.js';
import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import type { Services } from '../services.js';
import { bookEntry, mustMakeSense, takeBack } from '../stock-acts.js';
import { EDIT_PROPERTIES, EDIT_SCHEMA } from './edit-schema.js';
import { shopEditOf } from './who.js';

const MOST_LINES = 200;
/** A new piece gets its number here. */
const { number: _number, ...unnumbered } = SHOP_SCHEMAS.pieces.properties;
const amount = figure(-100_000_000, 100_000_000);

/** Pieces of film that come and go, and the book in which that stands. */
export function stockRoutes({ shop, book, sheets }: Services): Route[] {
  return [
    {
      method: 'get',
      path: '/api/shop/lines',
      summary:
        'Lines of the stock book, the newest first; of one piece when it is named. “before” is the last line that was seen',
      query: { piece: id, before: { type: 'string', pattern: '^\\d{1,12}$' } },
      answer: 'StockLines',
      answers: `At most ${MOST_LINES} lines`,
      handle: ({ query }) =>
        book.lines({
          most: MOST_LINES,
          ...(query['piece'] ? { pieceId: query['piece'] } : {}),
          ...(query['before'] ? { before: Number(query['before']) } : {}),
        }),
    },
    {
      method: 'post',
      path: '/api/shop/pieces',
      isBench: true,
      summary:
        'Receive a roll or sheets into stock, or put back an offcut of a sheet that was cut, which gets a number to write on it',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['revision', 'piece', 'amount', 'why', 'note', 'sheetId'],
        properties: {
          piece: object({ ...unnumbered, retired: { const: false } }),
          amount,
          why: oneOf(['received', 'returned']),
          note,
          sheetId: orNull(id),
          ...EDIT_PROPERTIES,
        },
      },
      answer: 'PieceReceived',
      answers: 'The number to write on an offcut; null for others',
      handle: async ({ ctx, body }) => {
        const {
          piece,
          amount: received,
          why,
          note: said,
          sheetId,
        } = body as {
          piece: Omit<PieceCard, 'number'>;
          amount: number;
          why: 'received' | 'returned';
          note: string;
          sheetId: string | null;
        };
        mustMakeSense(piece, why, received);
        const edit = await shopEditOf(shop, { ctx, body });
        // Sent again, it is not held against what it has put back itself.
        const isNew = edit.edit === undefined || !(await shop.isDone(edit.edit));
        const worth = sheetId && isNew ? worthOfLeft(await sheets.get(sheetId), piece, received) : 0;
        const number = await shop.receive(piece, { amount: received, why, note: said, sheetId }, edit, worth);
        return { number, revision: (await shop.get()).revision };
      },
    },
    {
      method: 'post',
      path: '/api/shop/pieces/:id/lines',
      isBench: true,
      summary:
        'Write into the stock book: received, used, returned or corrected by so much (mm of a roll, else how many); counted, so much is there; thrown away, so much or (null) all of it',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['revision', 'act', 'figure', 'note'],
        properties: { act: oneOf(STOCK_ACTS), figure: orNull(amount), note, ...EDIT_PROPERTIES },
      },
      answer: 'ShopRevision',
      answers: 'The shop’s new revision',
      handle: async ({ ctx, params, body }) => {
        const { act, figure: said, note: noted } = body as { act: StockAct; figure: number | null; note: string };
        await bookEntry(
          { shop, book },
          params['id']!,
          { act, figure: said, note: noted },
          await shopEditOf(shop, { ctx, body }),
        );
        return { revision: (await shop.get()).revision };
      },
    },
    {
      method: 'post',
      path: '/api/shop/lines/:id/take-back',
      isBench: true,
      summary: 'Take a line of the stock book back, by a line against it',
      body: EDIT_SCHEMA,
      answer: 'ShopRevision',
      answers: 'The shop’s new revision',
      handle: async ({ ctx, params, body }) => {
        await takeBack({ shop, book }, Number(params['id']), await shopEditOf(shop, { ctx, body }));
        return { revision: (await shop.get()).revision };
      },
    },
  ];
}

/** What an offcut of a sheet is worth. @throws Problem 422 when it is larger than what can be left: the film that was taken, less what went back already and what stays on the work */
function worthOfLeft(
  sheet: FrozenSheet,
  { filmId, widthMm, lengthMm }: Omit<PieceCard, 'number'>,
  count: number,
): number {
  const takenMm2 = sheet.runs.reduce((sum, run) => sum + (run.bookedMm2 ?? (tookFilm(run) ? sheet.filmMm2 : 0)), 0);
  const leftMm2 = takenMm2 - sheet.backMm2 - sheet.keptMm2;
  const film = filmsOfSheet(sheet).find(({ id }) => id === filmId);
  if (!film || count !== 1 || widthMm * lengthMm > leftMm2)
    throw new Problem(
      422,
      'leftover-larger',
      'An offcut of a sheet is one piece of its film, and no larger than what can be left of it. Measure it again.',
      'piece',
    );
  return worthOf({ widthMm, lengthMm }, film.costPerM2);
}
