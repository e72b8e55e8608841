import type { Knex } from 'knex';
import { cutterInUse, type FilmPiece } from '../../core/shop/index.js';
import type { ShopStore } from './shop-store.js';
import type { StockBook } from './stock-book.js';

/** What the cutter writes into the stock book: what a run takes of its piece, and that it was not used after all. */
export class FilmUse {
  constructor(
    private readonly shop: ShopStore,
    private readonly book: StockBook,
  ) {}

  /** Books what a run's sheet takes: of a roll its length, of a sheet or an offcut the whole of it. Of a piece that the shop has not, or that the book says is used up, nothing is booked. Gives the piece of which less is left; null for none. */
  async used(tx: Knex, { runId, sheetId, who }: { readonly runId: string; readonly sheetId: string; readonly who: string }): Promise<string | null> {
    const sheet = (await tx('sheets').where({ id: sheetId }).first()) as { piece: string | null; used_length_mm: number } | undefined;
    const piece = sheet?.piece ? (JSON.parse(sheet.piece) as FilmPiece) : null;
    if (!piece || !(await tx('shop_records').where({ kind: 'pieces', id: piece.id }).first())) return null;
    const left = await this.book.leftOf(piece.id, tx);
    const taken = Math.min(left, piece.kind === 'roll' ? sheet!.used_length_mm : 1);
    if (taken <= 0) return null;
    await this.book.add({ pieceId: piece.id, who, why: 'used', amount: -taken, note: '', sheetId, runId }, await this.shop.touch(tx), tx);
    return piece.id;
  }

  /** What a run had booked as used is there again. Gives the piece of which more is left; null for none. */
  async returned(tx: Knex, runId: string): Promise<string | null> {
    const line = (await tx('stock_lines').where({ run_id: runId, why: 'used' }).first()) as { piece_id: string; amount: number; sheet_id: string } | undefined;
    if (!line || (await tx('stock_lines').where({ run_id: runId, why: 'returned' }).first())) return null;
    await this.book.add({ pieceId: line.piece_id, who: '', why: 'returned', amount: -line.amount, note: 'Nothing was cut', sheetId: line.sheet_id, runId }, await this.shop.touch(tx), tx);
    return line.piece_id;
  }

  /** The blade that the shop's cutter has in it; null when nobody said. */
  async bladeInCutter(): Promise<string | null> {
    return cutterInUse(await this.shop.get()).bladeId;
  }

  /** Pages are told that less, or more, is left of a piece. */
  async told(pieceId: string | null): Promise<void> {
    if (pieceId !== null) await this.shop.changed(pieceId);
  }
}
