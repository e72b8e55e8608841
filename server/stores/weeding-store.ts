import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { learnWeeding, type LoggedWeeding } from '../../core/engines/learning/index.js';
import type { WeedingWork } from '../../core/engines/weeding/index.js';
import type { LearnedWeeding } from '../../core/stations/prepare/index.js';
import type { WeedPlace } from '../../core/stations/cut/index.js';

/** Hands change: so many of the newest sheets teach. */
const NEWEST = 300;
/** What took less was no weeding, minutes. */
const LEAST_MIN = 0.1;

/** When the clock of weeding ran for which sheet, and what that teaches. */
export class WeedingStore {
  #learned: { readonly of: string; readonly weeding: LearnedWeeding } | null = null;

  constructor(private readonly db: Knex) {}

  /** Starts the clock for a sheet; one that runs goes on. The sheet exists. */
  async start(sheetId: string, who: string): Promise<void> {
    await this.db.transaction(async (tx) => {
      if (await tx('weed_times').where({ sheet_id: sheetId, stopped_at: null }).first()) return;
      await tx('weed_times').insert({
        id: randomUUID(),
        sheet_id: sheetId,
        started_at: new Date().toISOString(),
        stopped_at: null,
        who,
      });
    });
  }

  /** Stops the clock of a sheet; nothing when it does not run. */
  async stop(sheetId: string): Promise<void> {
    await this.db('weed_times')
      .where({ sheet_id: sheetId, stopped_at: null })
      .update({ stopped_at: new Date().toISOString() });
  }

  /** Forgets all times of a sheet: a clock that ran on while nobody weeded teaches nothing. */
  async drop(sheetId: string): Promise<void> {
    await this.db('weed_times').where({ sheet_id: sheetId }).delete();
  }

  /** What the shop's own log teaches: of sheets of which all is out, the clock stopped. Null while there is none. */
  async learned(): Promise<LearnedWeeding | null> {
    const log = await this.#log();
    if (log.length === 0) return null;
    const of = JSON.stringify(log);
    if (this.#learned?.of !== of) this.#learned = { of, weeding: { figures: learnWeeding(log), logs: log.length } };
    return this.#learned.weeding;
  }

  async #log(): Promise<LoggedWeeding[]> {
    const sheets = (await this.db('sheets')
      .select('sheets.id', 'sheets.weed_work')
      .whereNotNull('weed_work')
      .whereIn('id', this.db('weed_times').select('sheet_id'))
      .whereNotIn('id', this.db('weed_times').select('sheet_id').whereNull('stopped_at'))
      .orderBy('created_at', 'desc')
      .limit(NEWEST)) as { id: string; weed_work: string }[];
    const ids = sheets.map(({ id }) => id);
    const times = (await this.db('weed_times').whereIn('sheet_id', ids)) as {
      sheet_id: string;
      started_at: string;
      stopped_at: string;
    }[];
    const groups = (await this.db('sheet_groups').select('sheet_id', 'weed_places').whereIn('sheet_id', ids)) as {
      sheet_id: string;
      weed_places: string;
    }[];
    const ticks = (await this.db('weed_ticks')
      .select('sheet_id')
      .count({ count: '*' })
      .whereIn('sheet_id', ids)
      .groupBy('sheet_id')) as { sheet_id: string; count: number }[];
    const sumBy = <T extends { readonly sheet_id: string }>(rows: readonly T[], of: (row: T) => number) => {
      const sums = new Map<string, number>();
      for (const row of rows) sums.set(row.sheet_id, (sums.get(row.sheet_id) ?? 0) + of(row));
      return sums;
    };
    const minutes = sumBy(
      times,
      ({ started_at: from, stopped_at: to }) => (Date.parse(to) - Date.parse(from)) / 60_000,
    );
    const places = sumBy(groups, (group) => (JSON.parse(group.weed_places) as WeedPlace[]).length);
    const ticked = sumBy(ticks, ({ count }) => count);
    return sheets.flatMap(({ id, weed_work }) => {
      const took = minutes.get(id) ?? 0;
      // Half-weeded sheets would teach that weeding is quick.
      return took >= LEAST_MIN && (ticked.get(id) ?? 0) === places.get(id)
        ? [{ ...(JSON.parse(weed_work) as WeedingWork), minutes: took }]
        : [];
    });
  }
}
