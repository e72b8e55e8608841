import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import {
  contoursOfGroups,
  ENDED,
  tookFilm,
  type Run,
  type RunState,
  type WholeOnPiece,
} from '../../core/stations/cut/index.js';
import { Problem } from '../problem.js';
import { SAID } from '../spooler/said.js';
import type { StoredCut } from '../spooler/cut-state.js';
import type { FrozenProgram, RunBook, SavedCut } from '../spooler/spooler.js';
import type { FilmBooking } from './film-booking.js';
import type { ProgramStore } from './program-store.js';

/** A run as it is stored, with what it takes from its sheet. */
export interface RunRow {
  readonly id: string;
  readonly sheet_id: string;
  readonly state: RunState;
  readonly message: string;
  readonly pairs_done: number;
  readonly share: number;
  readonly pairs_base: number | null;
  readonly boot: number | null;
  readonly meter_ms: number | null;
  readonly actual_seconds: number | null;
  readonly whole: string | null;
  readonly note: string;
  readonly started_at: string;
  readonly finished_at: string | null;
  readonly pairs_total: number;
  readonly estimate_seconds: number;
}

/** Runs of sheets through the cutter. */
export class RunStore implements RunBook {
  constructor(
    private readonly db: Knex,
    private readonly programs: ProgramStore,
    private readonly film: FilmBooking,
  ) {}

  /** A run of a sheet. What it takes of its piece is booked in the same transaction, so neither is there without the other. */
  async create({ sheetId, who }: { readonly sheetId: string; readonly who: string }): Promise<Run> {
    const id = randomUUID();
    const now = new Date().toISOString();
    // There is one connection: what is asked of the shop is asked before it is taken.
    const bladeId = await this.film.bladeInCutter();
    const pieceIds = await this.db.transaction(async (tx) => {
      if (await tx('runs').whereNull('finished_at').first()) throw new Problem(409, 'cutter-busy', SAID.busy);
      await tx('runs').insert({
        id,
        sheet_id: sheetId,
        state: 'cutting',
        message: '',
        pairs_done: 0,
        share: 0,
        note: '',
        started_at: now,
        blade_id: bladeId,
        who,
      });
      return this.film.used(tx, { runId: id, sheetId, who });
    });
    await this.film.told(pieceIds);
    return this.get(id);
  }

  /** @throws Problem 404 */
  async get(id: string): Promise<Run> {
    return runOf(await this.#row(id));
  }

  async cutOf(id: string): Promise<{ stored: StoredCut; program: FrozenProgram }> {
    const row = await this.#row(id);
    const { state, message, pairs_done: pairsDone, pairs_base, boot, meter_ms } = row;
    const bearings = pairs_base === null ? null : { pairsBase: pairs_base, boot: boot!, meterMs: meter_ms! };
    const groups = (await this.db('sheet_groups').where({ sheet_id: row.sheet_id }).orderBy('position')) as {
      contours: number;
      marks: number;
      borders: number;
    }[];
    const contoursOf = contoursOfGroups(groups);
    return {
      stored: { state, message, pairsDone, bearings },
      program: { ...(await this.programs.get(row.sheet_id)), contoursOf },
    };
  }

  async open(): Promise<Run[]> {
    const rows = (await this.#rows().whereNull('runs.finished_at')) as RunRow[];
    return rows.map(runOf);
  }

  async save(id: string, cut: SavedCut): Promise<void> {
    const { state, message, pairsDone, bearings, share, actualSeconds, whole } = cut;
    const isOver = ENDED.includes(state);
    const row = {
      state,
      message,
      pairs_done: pairsDone,
      share,
      actual_seconds: actualSeconds,
      ...(bearings ? { pairs_base: bearings.pairsBase, boot: bearings.boot, meter_ms: bearings.meterMs } : {}),
      ...(whole ? { whole: JSON.stringify(whole) } : {}),
      ...(isOver ? { finished_at: new Date().toISOString() } : {}),
    };
    if (!isOver || tookFilm({ state, pairsDone })) {
      await this.db('runs').where({ id }).update(row);
      return;
    }
    // The knife never came down: the film is as it was.
    const pieceIds = await this.db.transaction(async (tx) => {
      await tx('runs').where({ id }).update(row);
      return this.film.returned(tx, id);
    });
    await this.film.told(pieceIds);
  }

  /** How often each mat went through the cutter, and how far each blade has cut, m. */
  async wear(): Promise<{
    readonly mats: Readonly<Record<string, number>>;
    readonly blades: Readonly<Record<string, number>>;
  }> {
    const cut = this.db('runs').join('sheets', 'sheets.id', 'runs.sheet_id').where('runs.share', '>', 0);
    const mats = (await cut
      .clone()
      .whereNotNull('sheets.mat')
      .select(this.db.raw(`json_extract(sheets.mat, '$.id') as mat_id`))
      .count({ n: '*' })
      .groupBy('mat_id')) as { mat_id: string; n: number }[];
    const blades = (await cut
      .clone()
      .whereNotNull('runs.blade_id')
      .select('runs.blade_id')
      .select(this.db.raw('sum(runs.share * sheets.cut_mm) / 1000 as m'))
      .groupBy('runs.blade_id')) as { blade_id: string; m: number }[];
    return {
      mats: Object.fromEntries(mats.map(({ mat_id: id, n }) => [id, n])),
      blades: Object.fromEntries(blades.map(({ blade_id: id, m }) => [id, m])),
    };
  }

  async setNote(id: string, note: string): Promise<Run> {
    await this.#row(id);
    await this.db('runs').where({ id }).update({ note });
    return this.get(id);
  }

  #rows(): Knex.QueryBuilder<object, RunRow[]> {
    return this.db('runs')
      .join('sheets', 'sheets.id', 'runs.sheet_id')
      .select<RunRow[]>('runs.*', 'sheets.pairs_total', 'sheets.estimate_seconds') as unknown as Knex.QueryBuilder<
      object,
      RunRow[]
    >;
  }

  async #row(id: string): Promise<RunRow> {
    const row = (await this.#rows().where('runs.id', id).first()) as RunRow | undefined;
    if (!row) throw new Problem(404, 'run-unknown', 'There is no such run.');
    return row;
  }
}

export function runOf(row: RunRow): Run {
  return {
    id: row.id,
    sheetId: row.sheet_id,
    state: row.state,
    message: row.message,
    pairsTotal: row.pairs_total,
    pairsDone: row.pairs_done,
    share: row.share,
    estimateSeconds: row.estimate_seconds,
    actualSeconds: row.actual_seconds,
    whole: row.whole ? (JSON.parse(row.whole) as WholeOnPiece) : null,
    note: row.note,
    startedAt: row.started_at,
    finishedAt: row.finished_at,
  };
}
