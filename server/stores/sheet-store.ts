import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { WeedingWork } from '../../core/engines/weeding/index.js';
import type { Matrix } from '../../core/geometry/index.js';
import type { Film, FilmPiece, Mat } from '../../core/shop/index.js';
import type {
  FrozenGroup,
  FrozenLeftover,
  FrozenSheet,
  FrozenZone,
  SheetDecision,
  WeedPlace,
} from '../../core/stations/cut/index.js';
import { Problem } from '../problem.js';
import type { ProgramStore, StoredProgram } from './program-store.js';
import { runOf, type RunRow } from './run-store.js';

interface SheetRow {
  readonly id: string;
  readonly created_at: string;
  readonly film: string;
  readonly piece: string | null;
  readonly mat: string | null;
  readonly used_length_mm: number;
  readonly kept_mm2: number;
  readonly film_mm2: number;
  readonly film_cost: number;
  readonly cut_mm: number;
  readonly estimate_seconds: number;
  readonly pairs_total: number;
  readonly rest_of: string | null;
  readonly batch_id: string | null;
  readonly zones: string | null;
  readonly leftovers: string;
  readonly leftovers_booked_at: string | null;
  readonly decided: SheetDecision | null;
  readonly weed_work: string | null;
  readonly force_g: number;
  readonly speed_mm_s: number;
}

interface GroupRow {
  readonly sheet_id: string;
  readonly position: number;
  readonly job_id: string;
  readonly revision: number | null;
  readonly copy: number;
  readonly per_strip: number;
  readonly film_id: string;
  readonly kept_mm2: number;
  readonly fingerprint: string;
  readonly matrix: string;
  readonly contours: number;
  readonly marks: number;
  readonly borders: number;
  readonly weed_places: string;
}

interface TickRow {
  readonly sheet_id: string;
  readonly position: number;
  readonly kind: WeedPlace['kind'];
  readonly x_mm: number;
  readonly y_mm: number;
}

/** A sheet to be kept: all of it but what it is given by being kept. */
export type NewSheet = Omit<
  FrozenSheet,
  'id' | 'createdAt' | 'runs' | 'decided' | 'groups' | 'weedTimes' | 'forceG' | 'speedMmS' | 'leftoversBookedAt'
> & {
  readonly groups: readonly Omit<FrozenGroup, 'ticked'>[];
  readonly program: StoredProgram;
};

/** A place on a copy, which is told by its position on the sheet. */
export interface CopyPlace extends WeedPlace {
  readonly position: number;
}

const keyOfPlace = ({ kind, xMm, yMm }: WeedPlace) => `${kind} ${xMm} ${yMm}`;

interface TimeRow {
  readonly sheet_id: string;
  readonly started_at: string;
  readonly stopped_at: string | null;
}

/** Sheets as they were sent to the cutter. Rows are added and never changed, but for what a maker decides of a sheet that failed. */
export class SheetStore {
  constructor(
    private readonly db: Knex,
    private readonly programs: ProgramStore,
  ) {}

  /** Keeps a sheet; gives its id. */
  async freeze(sheet: NewSheet): Promise<string> {
    const id = randomUUID();
    await this.db.transaction(async (tx) => {
      await tx('sheets').insert({
        id,
        created_at: new Date().toISOString(),
        film: JSON.stringify(sheet.film),
        piece: sheet.piece && JSON.stringify(sheet.piece),
        mat: sheet.mat && JSON.stringify(sheet.mat),
        used_length_mm: sheet.usedLengthMm,
        kept_mm2: sheet.keptMm2,
        film_mm2: sheet.filmMm2,
        film_cost: sheet.filmCost,
        cut_mm: sheet.cutMm,
        estimate_seconds: sheet.estimateSeconds,
        pairs_total: sheet.pairsTotal,
        rest_of: sheet.restOf,
        batch_id: sheet.batchId,
        zones: sheet.zones && JSON.stringify(sheet.zones),
        leftovers: JSON.stringify(sheet.leftovers),
        weed_work: sheet.weedWork && JSON.stringify(sheet.weedWork),
      });
      const rows = sheet.groups.map((group, position) => ({
        sheet_id: id,
        position,
        job_id: group.jobId,
        revision: group.revision,
        copy: group.copy,
        per_strip: group.perStrip,
        film_id: group.filmId,
        kept_mm2: group.keptMm2,
        fingerprint: group.fingerprint,
        matrix: JSON.stringify(group.matrix),
        contours: group.contours,
        marks: group.marks,
        borders: group.borders,
        weed_places: JSON.stringify(group.weedPlaces),
      }));
      // SQLite takes so many values in one statement.
      await tx.batchInsert('sheet_groups', rows, 40);
      await this.programs.add(id, sheet.program, tx);
    });
    return id;
  }

  /** @throws Problem 404 */
  async get(id: string): Promise<FrozenSheet> {
    const [sheet] = await this.#read((query) => query.where('sheets.id', id));
    if (!sheet) throw new Problem(404, 'sheet-unknown', 'There is no such sheet.');
    return sheet;
  }

  /** Sheets that carry anything of a job, the oldest first, with all their rests: how a sheet stands hangs on them, also where what they carry is of other jobs. */
  async ofJob(jobId: string): Promise<FrozenSheet[]> {
    return this.#withRests(
      ((await this.db('sheet_groups').distinct('sheet_id').where({ job_id: jobId })) as { sheet_id: string }[]).map(
        (row) => row.sheet_id,
      ),
    );
  }

  /** Sheets that were laid out in a batch, the oldest first, with all their rests. */
  async ofBatch(batchId: string): Promise<FrozenSheet[]> {
    return this.#read((query) => query.where('sheets.batch_id', batchId));
  }

  async #withRests(ids: readonly string[]): Promise<FrozenSheet[]> {
    const [all, parents] = [
      new Set(ids),
      (await this.db('sheets')
        .whereNotNull('rest_of')
        .select('id', 'rest_of')
        .orderBy('created_at')
        .orderBy('rowid')) as { id: string; rest_of: string }[],
    ];
    // A rest is younger than what it is of.
    for (const { id, rest_of: of } of parents) if (all.has(of)) all.add(id);
    return all.size === 0 ? [] : this.#read((query) => query.whereIn('sheets.id', [...all]));
  }

  /** Every sheet that carries anything of one of the jobs, the oldest first, with all their rests. */
  async ofJobs(jobIds: readonly string[]): Promise<FrozenSheet[]> {
    const wanted = new Set(jobIds);
    // Most jobs of a list have none: their names are looked for once.
    const ids = new Set(
      (
        (await this.db('sheet_groups').distinct('sheet_id', 'job_id')) as { sheet_id: string; job_id: string }[]
      ).flatMap((row) => (wanted.has(row.job_id) ? [row.sheet_id] : [])),
    );
    return this.#withRests([...ids]);
  }

  /** What becomes of a sheet whose run failed or was cancelled; null opens the question again. */
  async decide(id: string, decided: SheetDecision | null): Promise<void> {
    await this.db('sheets')
      .where({ id })
      .update({ decided, decided_at: decided && new Date().toISOString() });
  }

  /** Ticks places of copies off, or takes the ticks back: all of them or, when the sheet has not all of them, none. @throws Problem 404 */
  async tick(id: string, places: readonly CopyPlace[], ticked: boolean): Promise<void> {
    const { groups } = await this.get(id);
    const known = groups.map(({ weedPlaces }) => new Set(weedPlaces.map(keyOfPlace)));
    if (!places.every((place) => known[place.position]?.has(keyOfPlace(place))))
      throw new Problem(404, 'place-unknown', 'This copy has no such counter or small part.');
    const rows = places.map(({ position, kind, xMm, yMm }) => ({ sheet_id: id, position, kind, x_mm: xMm, y_mm: yMm }));
    const at = new Date().toISOString();
    await this.db.transaction(async (tx) => {
      // SQLite takes so many values in one statement.
      if (ticked)
        for (let i = 0; i < rows.length; i += 100)
          await tx('weed_ticks')
            .insert(rows.slice(i, i + 100).map((row) => ({ ...row, ticked_at: at })))
            .onConflict()
            .ignore();
      else for (const row of rows) await tx('weed_ticks').where(row).delete();
    });
  }

  async #read(which: (query: Knex.QueryBuilder) => Knex.QueryBuilder): Promise<FrozenSheet[]> {
    const query = this.db('sheets')
      .join('programs', 'programs.sheet_id', 'sheets.id')
      .select('sheets.*', 'programs.force_g', 'programs.speed_mm_s')
      .orderBy('sheets.created_at')
      .orderBy('sheets.rowid');
    const rows = (await which(query)) as SheetRow[];
    const ids = rows.map((row) => row.id);
    const within = async <T extends { readonly sheet_id: string }>(table: string, ...order: string[]) => {
      const found: T[] = [];
      for (let i = 0; i < ids.length; i += 500) {
        const some = this.db(table).whereIn('sheet_id', ids.slice(i, i + 500));
        found.push(...((await order.reduce((q, column) => q.orderBy(column), some)) as T[]));
      }
      return grouped(found);
    };
    const [groups, runs, ticks] = [
      await within<GroupRow>('sheet_groups', 'sheet_id', 'position'),
      await within<RunRow>('runs', 'started_at', 'rowid'),
      await within<TickRow>('weed_ticks', 'ticked_at'),
    ];
    const times = await within<TimeRow>('weed_times', 'started_at', 'rowid');
    return rows.map((row) =>
      sheetOf(row, {
        groups: groups.get(row.id) ?? [],
        runs: runs.get(row.id) ?? [],
        ticks: ticks.get(row.id) ?? [],
        times: times.get(row.id) ?? [],
      }),
    );
  }
}

function grouped<T extends { readonly sheet_id: string }>(rows: readonly T[]): Map<string, T[]> {
  const by = new Map<string, T[]>();
  for (const row of rows) {
    const list = by.get(row.sheet_id);
    if (list) list.push(row);
    else by.set(row.sheet_id, [row]);
  }
  return by;
}

interface RowsOfSheet {
  readonly groups: readonly GroupRow[];
  readonly runs: readonly RunRow[];
  readonly ticks: readonly TickRow[];
  readonly times: readonly TimeRow[];
}

function sheetOf(row: SheetRow, { groups, runs, ticks, times }: RowsOfSheet): FrozenSheet {
  const ticked = new Map<number, WeedPlace[]>();
  for (const { position, kind, x_mm: xMm, y_mm: yMm } of ticks) {
    const list = ticked.get(position);
    if (list) list.push({ kind, xMm, yMm });
    else ticked.set(position, [{ kind, xMm, yMm }]);
  }
  return {
    id: row.id,
    createdAt: row.created_at,
    film: JSON.parse(row.film) as Film,
    piece: row.piece ? (JSON.parse(row.piece) as FilmPiece) : null,
    mat: row.mat ? (JSON.parse(row.mat) as Mat) : null,
    usedLengthMm: row.used_length_mm,
    keptMm2: row.kept_mm2,
    filmMm2: row.film_mm2,
    filmCost: row.film_cost,
    cutMm: row.cut_mm,
    estimateSeconds: row.estimate_seconds,
    pairsTotal: row.pairs_total,
    forceG: row.force_g,
    speedMmS: row.speed_mm_s,
    restOf: row.rest_of,
    batchId: row.batch_id,
    zones: row.zones ? (JSON.parse(row.zones) as FrozenZone[]) : null,
    leftovers: JSON.parse(row.leftovers) as FrozenLeftover[],
    leftoversBookedAt: row.leftovers_booked_at,
    decided: row.decided,
    weedWork: row.weed_work ? (JSON.parse(row.weed_work) as WeedingWork) : null,
    weedTimes: times.map(({ started_at: startedAt, stopped_at: stoppedAt }) => ({ startedAt, stoppedAt })),
    groups: groups.map((group) => ({
      jobId: group.job_id,
      revision: group.revision,
      copy: group.copy,
      perStrip: group.per_strip,
      filmId: group.film_id,
      keptMm2: group.kept_mm2,
      fingerprint: group.fingerprint,
      matrix: JSON.parse(group.matrix) as Matrix,
      contours: group.contours,
      marks: group.marks,
      borders: group.borders,
      weedPlaces: JSON.parse(group.weed_places) as WeedPlace[],
      ticked: ticked.get(group.position) ?? [],
    })),
    runs: runs.map((run) => runOf({ ...run, pairs_total: row.pairs_total, estimate_seconds: row.estimate_seconds })),
  };
}
