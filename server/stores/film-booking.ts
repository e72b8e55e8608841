import type { Knex } from 'knex';
import { cutterInUse, toThousandth, type FilmPiece } from '../../core/shop/index.js';
import type { FrozenZone } from '../../core/stations/cut/index.js';
import type { FoilView } from '../../core/laying/index.js';
import type { ShopStore } from './shop-store.js';
import type { NewLine, StockBook } from './stock-book.js';

/** What the cutter writes into the stock book: what a run takes of its piece, and that it was not used after all. */
export class FilmBooking {
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
      foils: string;
      used_length_mm: number;
    };
    const cut = sheet.zones
      ? (JSON.parse(sheet.zones) as FrozenZone[])
      : sheet.piece
        ? [{ piece: JSON.parse(sheet.piece) as FilmPiece, lengthMm: sheet.used_length_mm }]
        : [];
    const wanted = amountsOf(cut);
    // Foil is laid once, on what of the sheet comes out well: a second run of it takes none.
    for (const [pieceId, much] of amountsOfFoil(sheet.foils))
      if ((await this.#takenOf(tx, sheetId, pieceId)) <= 0) wanted.set(pieceId, (wanted.get(pieceId) ?? 0) + much);
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

  /** The foil of a sheet that is thrown away goes back as it is, unless what is left of it is booked already: then it was cut up. Gives the pieces of which more is left. */
  async foilReturned(tx: Knex, sheetId: string, who: string): Promise<readonly string[]> {
    const { foils, foil_cut_up: isCutUp } = await foilsOf(tx, sheetId);
    if (isCutUp) return [];
    return this.#bookFoil(tx, foils, {
      line: { sheetId, who, note: 'The sheet was thrown away before it was laid' },
      amountOf: async (pieceId) => Math.max(0, await this.#takenOf(tx, sheetId, pieceId)),
    });
  }

  /** A sheet that was thrown away is wanted after all, and its foil with it. Gives the pieces of which less is left. */
  async foilUsedAgain(tx: Knex, sheetId: string, who: string): Promise<readonly string[]> {
    const { foils } = await foilsOf(tx, sheetId);
    return this.#bookFoil(tx, foils, {
      line: { sheetId, who, note: 'The sheet is not thrown away after all' },
      amountOf: async (pieceId, much) =>
        (await this.#takenOf(tx, sheetId, pieceId)) > 0 ? 0 : -Math.min(await this.book.leftOf(pieceId, tx), much),
    });
  }

  async #bookFoil(
    tx: Knex,
    foils: string,
    {
      line,
      amountOf,
    }: {
      readonly line: Pick<NewLine, 'sheetId' | 'who' | 'note'>;
      readonly amountOf: (pieceId: string, much: number) => Promise<number>;
    },
  ): Promise<readonly string[]> {
    const booked: string[] = [];
    for (const [pieceId, much] of amountsOfFoil(foils)) {
      const amount = await amountOf(pieceId, much);
      if (amount === 0) continue;
      await this.book.add(
        { ...line, pieceId, why: amount > 0 ? 'returned' : 'used', amount },
        await this.shop.touch(tx),
        tx,
      );
      booked.push(pieceId);
    }
    return booked;
  }

  /** How much of a piece the book has taken for a sheet, less what came back. */
  async #takenOf(tx: Knex, sheetId: string, pieceId: string): Promise<number> {
    // A line that takes one back names the sheet as well.
    const [row] = (await tx('stock_lines').where({ sheet_id: sheetId, piece_id: pieceId }).sum('amount as sum')) as {
      sum: number | null;
    }[];
    return -toThousandth(row?.sum ?? 0);
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

async function foilsOf(tx: Knex, sheetId: string): Promise<{ foils: string; foil_cut_up: number }> {
  return (await tx('sheets').where({ id: sheetId }).first('foils', 'foil_cut_up')) as Awaited<
    ReturnType<typeof foilsOf>
  >;
}

function amountsOfFoil(foils: string): Map<string, number> {
  const taken = JSON.parse(foils) as FoilView[];
  return amountsOf(taken.map(({ piece, usedLengthMm }) => ({ piece, lengthMm: usedLengthMm })));
}

/** How much is taken of each piece, as the book counts it: of a roll its length, of others how many. */
function amountsOf(taken: readonly { readonly piece: FilmPiece; readonly lengthMm: number }[]): Map<string, number> {
  const wanted = new Map<string, number>();
  for (const { piece, lengthMm } of taken)
    wanted.set(piece.id, (wanted.get(piece.id) ?? 0) + (piece.kind === 'roll' ? lengthMm : 1));
  return wanted;
}
