import type { Knex } from 'knex';
import { toThousandth, type StockLine, type StockWhy } from '../../core/shop/index.js';

interface LineRow {
  readonly id: number;
  readonly piece_id: string;
  readonly at: string;
  readonly who: string;
  readonly why: StockWhy;
  readonly amount: number;
  readonly note: string;
  readonly sheet_id: string | null;
  readonly takes_back: number | null;
  readonly revision: number;
}

/** A line to be written. */
export type NewLine = Omit<StockLine, 'id' | 'at' | 'takesBack'> & {
  readonly runId?: string;
  readonly takesBack?: number;
};

/** The stock book. Lines are added and never changed: the database itself refuses it. */
export class StockBook {
  constructor(private readonly db: Knex) {}

  /** Writes a line; `revision` is that of the shop once it is written. */
  async add(line: NewLine, revision: number, tx: Knex = this.db): Promise<void> {
    await tx('stock_lines').insert({
      piece_id: line.pieceId,
      at: new Date().toISOString(),
      who: line.who,
      why: line.why,
      amount: line.amount,
      note: line.note,
      sheet_id: line.sheetId,
      run_id: line.runId ?? null,
      takes_back: line.takesBack ?? null,
      revision,
    });
  }

  /** What is left of every piece: the sum of its lines, to a thousandth. */
  async left(): Promise<ReadonlyMap<string, number>> {
    const rows = (await this.db('stock_lines').select('piece_id').sum('amount as sum').groupBy('piece_id')) as {
      piece_id: string;
      sum: number;
    }[];
    return new Map(rows.map((row) => [row.piece_id, toThousandth(row.sum)]));
  }

  async leftOf(pieceId: string, tx: Knex = this.db): Promise<number> {
    const [row] = (await tx('stock_lines').where({ piece_id: pieceId }).sum('amount as sum')) as {
      sum: number | null;
    }[];
    return toThousandth(row?.sum ?? 0);
  }

  /** The shop's revision when a piece's last line was written; 0 for one without lines. */
  async lastRevision(pieceId: string, tx: Knex = this.db): Promise<number> {
    const [row] = (await tx('stock_lines').where({ piece_id: pieceId }).max('revision as last')) as {
      last: number | null;
    }[];
    return row?.last ?? 0;
  }

  async line(id: number, tx: Knex = this.db): Promise<StockLine | null> {
    const row = (await tx('stock_lines').where({ id }).first()) as LineRow | undefined;
    return row ? lineOf(row) : null;
  }

  /** The newest lines, of one piece or of all, the newest first. */
  async lines({
    pieceId,
    most,
    before,
  }: {
    readonly pieceId?: string;
    readonly most: number;
    readonly before?: number;
  }): Promise<StockLine[]> {
    const query = this.db('stock_lines').orderBy('id', 'desc').limit(most);
    if (pieceId !== undefined) void query.where({ piece_id: pieceId });
    if (before !== undefined) void query.where('id', '<', before);
    return ((await query) as LineRow[]).map(lineOf);
  }
}

function lineOf(row: LineRow): StockLine {
  return {
    id: row.id,
    pieceId: row.piece_id,
    at: row.at,
    who: row.who,
    why: row.why,
    amount: row.amount,
    note: row.note,
    sheetId: row.sheet_id,
    takesBack: row.takes_back,
  };
}
