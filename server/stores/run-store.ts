import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { ENDED, type Run, type RunState } from '../../core/records/index.js';
import { Problem } from '../problem.js';

/** What the cutter is told, as stored: holder positions in plotter units. */
export interface StoredProgram {
  readonly runs: readonly (readonly number[])[];
  readonly forceG: number;
  readonly speedMmS: number;
}

/** What the spooler must know to go on where it stopped: the device's own counters at the start. */
export interface Bearings {
  readonly pairsBase: number;
  readonly boot: number;
  readonly meterMs: number;
}

interface RunRow {
  readonly id: string;
  readonly job_id: string;
  readonly sheet: number;
  readonly film_id: string;
  readonly state: RunState;
  readonly message: string;
  readonly program: string;
  readonly pairs_total: number;
  readonly pairs_done: number;
  readonly pairs_base: number | null;
  readonly boot: number | null;
  readonly meter_ms: number | null;
  readonly estimate_seconds: number;
  readonly actual_seconds: number | null;
  readonly cut_mm: number;
  readonly film_mm2: number;
  readonly film_cost: number;
  readonly outcome: 'good' | 'remake' | null;
  readonly note: string;
  readonly started_at: string;
  readonly finished_at: string | null;
}

export type NewRun = Pick<Run, 'jobId' | 'sheet' | 'filmId' | 'estimateSeconds' | 'cutMm' | 'filmMm2' | 'filmCost'> & { readonly program: StoredProgram };

export class RunStore {
  constructor(private readonly db: Knex) {}

  async create(run: NewRun): Promise<Run> {
    const id = randomUUID();
    // The last pair takes the head back to its corner.
    const pairs = run.program.runs.reduce((sum, r) => sum + r.length / 2, 0) + 1;
    await this.db('runs').insert({
      id,
      job_id: run.jobId,
      sheet: run.sheet,
      film_id: run.filmId,
      state: 'cutting',
      message: '',
      program: JSON.stringify(run.program),
      pairs_total: pairs,
      pairs_done: 0,
      estimate_seconds: run.estimateSeconds,
      cut_mm: run.cutMm,
      film_mm2: run.filmMm2,
      film_cost: run.filmCost,
      note: '',
      started_at: new Date().toISOString(),
    });
    return this.get(id);
  }

  /** @throws Problem 404 */
  async get(id: string): Promise<Run> {
    return runOf(await this.#row(id));
  }

  async program(id: string): Promise<{ program: StoredProgram; bearings: Bearings | null }> {
    const row = await this.#row(id);
    const bearings = row.pairs_base === null ? null : { pairsBase: row.pairs_base, boot: row.boot!, meterMs: row.meter_ms! };
    return { program: JSON.parse(row.program) as StoredProgram, bearings };
  }

  async ofJob(jobId: string): Promise<Run[]> {
    return (await this.db<RunRow>('runs').where({ job_id: jobId }).orderBy('started_at', 'desc')).map((row) => runOf(row as RunRow));
  }

  async open(): Promise<Run[]> {
    return (await this.db<RunRow>('runs').whereNull('finished_at')).map((row) => runOf(row as RunRow));
  }

  async setBearings(id: string, bearings: Bearings): Promise<void> {
    await this.db('runs').where({ id }).update({ pairs_base: bearings.pairsBase, boot: bearings.boot, meter_ms: bearings.meterMs });
  }

  async setProgress(id: string, progress: { state: RunState; message: string; pairsDone: number; actualSeconds: number | null }): Promise<void> {
    const { state, message, pairsDone, actualSeconds } = progress;
    await this.db('runs')
      .where({ id })
      .update({ state, message, pairs_done: pairsDone, actual_seconds: actualSeconds, ...(ENDED.includes(state) ? { finished_at: new Date().toISOString() } : {}) });
  }

  async setRecord(id: string, record: { outcome?: Run['outcome']; note?: string }): Promise<Run> {
    await this.#row(id);
    if (Object.keys(record).length > 0) await this.db('runs').where({ id }).update(record);
    return this.get(id);
  }

  async #row(id: string): Promise<RunRow> {
    const row = await this.db<RunRow>('runs').where({ id }).first();
    if (!row) throw new Problem(404, 'run-unknown', 'There is no such run.');
    return row as RunRow;
  }
}

function runOf(row: RunRow): Run {
  return {
    id: row.id,
    jobId: row.job_id,
    sheet: row.sheet,
    filmId: row.film_id,
    state: row.state,
    message: row.message,
    pairsTotal: row.pairs_total,
    pairsDone: row.pairs_done,
    estimateSeconds: row.estimate_seconds,
    actualSeconds: row.actual_seconds,
    cutMm: row.cut_mm,
    filmMm2: row.film_mm2,
    filmCost: row.film_cost,
    outcome: row.outcome,
    note: row.note,
    startedAt: row.started_at,
    finishedAt: row.finished_at,
  };
}
