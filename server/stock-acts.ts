import { amountOf, MOST, type PieceCard, type StockAct, type StockPiece } from '../core/shop/index.js';
import { formatLength } from '../core/words/index.js';
import { Problem } from './problem.js';
import type { ShopEdit, ShopStore } from './stores/shop-store.js';
import type { StockBook } from './stores/stock-book.js';

/** What a hand writes into the stock book. */
export interface StockEntry {
  readonly act: StockAct;
  /** How much, in mm of a roll or in pieces; null throws all of it away. */
  readonly figure: number | null;
  readonly note: string;
}

/**
 * Writes a line about a piece. What counts all that is there was looked at before: it is refused when the book has had a line since.
 * @throws Problem 404, 409, and 422 when there is not so much, or a figure makes no sense
 */
export async function bookEntry(
  { shop, book }: { readonly shop: ShopStore; readonly book: StockBook },
  pieceId: string,
  { act, figure, note }: StockEntry,
  edit: ShopEdit,
): Promise<void> {
  const piece = await pieceOf(shop, pieceId);
  if (figure === null && act !== 'thrown away') throw new Problem(422, 'figure-missing', 'Say how much.', 'figure');
  if (figure !== null) mustMakeSense(piece, act, figure);
  await shop.write(
    edit,
    async (tx, { position, revision }) => {
      const isWhole = act === 'counted' || figure === null;
      if (isWhole && (await book.lastRevision(pieceId, tx)) > edit.revision)
        throw new Problem(
          409,
          'stock-changed',
          'Something was booked of this piece in the meantime, so this was not booked. Look at what is left now, and count again.',
        );
      const left = await book.leftOf(pieceId, tx);
      const amount = amountOf(act, figure, left);
      if (left + amount < 0)
        throw new Problem(
          422,
          'not-so-much-left',
          `By the book only ${said(piece, left)} left. If there is more, count it first.`,
          'figure',
        );
      await book.add({ pieceId, who: edit.who, why: act, amount, note, sheetId: null }, revision + 1, tx);
      return position;
    },
    { pieceId },
  );
}

/** Takes a line back, by a line against it. @throws Problem 404; 409 when it was taken back already; 422 when not so much is left */
export async function takeBack(
  { shop, book }: { readonly shop: ShopStore; readonly book: StockBook },
  lineId: number,
  edit: ShopEdit,
): Promise<void> {
  await shop.write(edit, async (tx, { position, revision }) => {
    const line = await book.line(lineId, tx);
    if (!line) throw new Problem(404, 'line-unknown', 'There is no such line in the stock book.');
    if (line.takesBack !== null)
      throw new Problem(409, 'line-is-answer', 'This line takes another one back. Book what is there instead.');
    if (await tx('stock_lines').where({ takes_back: lineId }).first())
      throw new Problem(409, 'line-taken-back', 'This line was taken back already.');
    if ((await book.leftOf(line.pieceId, tx)) - line.amount < 0)
      throw new Problem(
        422,
        'not-so-much-left',
        'More of this piece was used since than would be left. Count it instead.',
      );
    await book.add(
      {
        pieceId: line.pieceId,
        who: edit.who,
        why: 'taken back',
        amount: -line.amount,
        note: '',
        sheetId: line.sheetId,
        takesBack: lineId,
      },
      revision + 1,
      tx,
    );
    return position;
  });
}

async function pieceOf(shop: ShopStore, id: string): Promise<StockPiece> {
  const piece = (await shop.get()).stock.find((one) => one.id === id);
  if (!piece) throw new Problem(404, 'piece-unknown', 'There is no such piece.');
  return piece;
}

/** @throws Problem 422 */
export function mustMakeSense({ kind }: Pick<PieceCard, 'kind'>, act: StockAct, figure: number): void {
  const most = MOST[kind];
  const least = act === 'corrected' ? -most : act === 'counted' ? 0 : Number.MIN_VALUE;
  if (figure < least || figure > most)
    throw new Problem(
      422,
      'figure-out-of-range',
      act === 'counted'
        ? 'What is there cannot be less than nothing.'
        : `It must be more than nothing, and at most ${kind === 'roll' ? '10 km' : '10,000'}.`,
      'figure',
    );
  if (kind !== 'roll' && !Number.isInteger(figure))
    throw new Problem(422, 'figure-not-whole', 'Sheets and offcuts are counted in whole numbers.', 'figure');
}

function said({ kind }: Pick<PieceCard, 'kind'>, left: number): string {
  return kind === 'roll' ? `${formatLength(left, 'cm')} are` : `${left} ${left === 1 ? 'is' : 'are'}`;
}
