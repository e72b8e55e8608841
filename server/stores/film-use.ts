import type { Knex } from 'knex';
import { cutterInUse, type FilmPiece } from '../../core/shop/index.js';
import type { FrozenZone } from '../../core/stations/cut/index.js';
import type { ShopStore } from './shop-store.js';
import type { StockBook } from './stock-book.js';

/** What the cutter writes into the stock book: what a run takes of its piece, and that it was not used after all. */
export class FilmUse {
  constructor(
    private readonly shop: ShopStore,
    private readonly book: StockBook,
  ) {}

  /** Books what a run's sheet takes of each of its pieces: of a roll its length, of a sheet or an offcut the whole of it. Of a piece that the shop has not, or that the book says is used up, nothing is booked. Gives the pieces of which less is left. */
  async used(
    tx: Knex,
    { runId, sheetId, who }: { readonly runId: string; readonly sheetId: string; readonly who: string },
  ): Promise<readonly string[]> {
    const sheet = (await tx('sheets').where({ id: sheetId }).first()) as {
      piece: string | null;
      zones: string | null;
      used_length_mm: number;
    };
    const blanks = sheet.zones
      ? (JSON.parse(sheet.zones) as FrozenZone[])
      : sheet.piece
        ? [{ piece: JSON.parse(sheet.piece) as FilmPiece, lengthMm: sheet.used_length_mm }]
        : [];
    const wanted = new Map<string, number>();
    for (const { piece, lengthMm } of blanks)
      wanted.set(piece.id, (wanted.get(piece.id) ?? 0) + (piece.kind === 'roll' ? lengthMm : 1));
    const booked: string[] = [];
    for (const [pieceId, much] of wanted) {
      if (!(await tx('shop_records').where({ kind: 'pieces', id: pieceId }).first())) continue;
      const taken = Math.min(await this.book.leftOf(pieceId, tx), much);
      if (taken <= 0) continue;
      await this.book.add(
        { pieceId, who, why: 'used', amount: -taken, note: '', sheetId, runId },
        await this.shop.touch(tx),
        tx,
      );
      booked.push(pieceId);
    }
    return booked;
  }

  /** What a run had booked as used is there again. Gives the pieces of which more is left. */
  async returned(tx: Knex, runId: string): Promise<readonly string[]> {
    if (await tx('stock_lines').where({ run_id: runId, why: 'returned' }).first()) return [];
    const lines = (await tx('stock_lines').where({ run_id: runId, why: 'used' })) as {
      piece_id: string;
      amount: number;
      sheet_id: string;
    }[];
    for (const line of lines)
      await this.book.add(
        {
          pieceId: line.piece_id,
          who: '',
          why: 'returned',
          amount: -line.amount,
          note: 'Nothing was cut',
          sheetId: line.sheet_id,
          runId,
        },
        await this.shop.touch(tx),
        tx,
      );
    return lines.map((line) => line.piece_id);
  }

  /** The blade that the shop's cutter has in it; null when nobody said. */
  async bladeInCutter(): Promise<string | null> {
    return cutterInUse(await this.shop.get()).bladeId;
  }

  /** Pages are told that less, or more, is left of some pieces. */
  async told(pieceIds: readonly string[]): Promise<void> {
    if (pieceIds.length > 0) await this.shop.changed(pieceIds.length === 1 ? pieceIds[0] : undefined);
  }
}
