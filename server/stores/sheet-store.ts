import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { WeedingWork } from '../../core/engines/weeding/index.js';
import type { Matrix } from '../../core/geometry/index.js';
import type { Film, FilmPiece, Mat } from '../../core/shop/index.js';
import {
  keyOfPlace,
  sheetsThatCount,
  placesOnPiece,
  type BookedRun,
  type CopyVerdict,
  type FrozenGroup,
  type FrozenLeftover,
  type FrozenSheet,
  type FrozenZone,
  type SheetDecision,
  type WeedPlace,
} from '../../core/stations/cut/index.js';
import type { FoilView } from '../../core/laying/index.js';
import type { BuiltWith } from '../../core/stations/films/index.js';
import type { Recipe } from '../../core/recipe/index.js';
import { Problem } from '../problem.js';
import type { FilmBooking } from './film-booking.js';
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
  readonly foils: string;
  readonly foil_cut_up: number;
  readonly leftovers: string;
  readonly leftovers_booked_at: string | null;
  readonly leftovers_back: string | null;
  readonly numbers_written_at: string | null;
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
  readonly of_position: number | null;
  readonly asked: number | null;
}

interface VerdictRow {
  readonly sheet_id: string;
  readonly position: number;
  readonly verdict: CopyVerdict;
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
  | 'id'
  | 'createdAt'
  | 'runs'
  | 'decided'
  | 'groups'
  | 'weedTimes'
  | 'forceG'
  | 'speedMmS'
  | 'leftoversBookedAt'
  | 'offcutIds'
  | 'numbersWrittenAt'
  | 'backMm2'
  | 'backCost'
> & {
  readonly groups: readonly Omit<FrozenGroup, 'ticked' | 'verdict'>[];
  readonly program: StoredProgram;
  /** Each job that it carries, as it was built. */
  readonly jobs: readonly JobOnSheet[];
};

/** A job as it was when a sheet of it was sent: its recipe, and what of the shop it was built with. */
export interface JobOnSheet {
  readonly jobId: string;
  readonly recipe: Recipe;
  readonly builtWith: BuiltWith;
}

/** A place on a copy, which is told by its position on the sheet. */
export interface CopyPlace extends WeedPlace {
  readonly position: number;
}

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
    private readonly film: FilmBooking,
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
        foils: JSON.stringify(sheet.foils),
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
        of_position: group.of,
        asked: group.asked,
      }));
      // SQLite takes so many values in one statement.
      await tx.batchInsert('sheet_groups', rows, 40);
      for (const { jobId, recipe, builtWith } of sheet.jobs)
        await tx('sheet_jobs').insert({
          sheet_id: id,
          job_id: jobId,
          recipe: JSON.stringify(recipe),
          built_with: JSON.stringify(builtWith),
        });
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

  /** What of the shop a job was built with, by its sheets that count (`cuts` are all of its sheets): the newest of every renewal. */
  async builtWith(jobId: string, cuts: readonly FrozenSheet[]): Promise<readonly BuiltWith[]> {
    const ids = sheetsThatCount(cuts, jobId);
    if (ids.length === 0) return [];
    const rows = (await this.db('sheet_jobs').where({ job_id: jobId }).select('sheet_id', 'built_with')) as {
      sheet_id: string;
      built_with: string;
    }[];
    const bySheet = new Map(rows.map((row) => [row.sheet_id, row.built_with]));
    const byRenewal = new Map<number, BuiltWith>();
    for (const id of ids) {
      const json = bySheet.get(id);
      if (json === undefined) continue;
      const built = JSON.parse(json) as BuiltWith;
      byRenewal.set(built.renewals, built);
    }
    return [...byRenewal.values()];
  }

  /** The recipe that a job had when a sheet of it was sent; null where that was not kept yet. */
  async recipeOf(sheetId: string, jobId: string): Promise<unknown> {
    const row = (await this.db('sheet_jobs').where({ sheet_id: sheetId, job_id: jobId }).first('recipe')) as
      { recipe: string } | undefined;
    return row ? (JSON.parse(row.recipe) as unknown) : null;
  }

  /** What becomes of a sheet whose run failed or was cancelled; null opens the question again. */
  async decide(id: string, decided: SheetDecision | null, who: string): Promise<void> {
    const pieceIds = await this.db.transaction(async (tx) => {
      const row = (await tx('sheets').where({ id }).first('decided')) as Pick<SheetRow, 'decided'>;
      await tx('sheets')
        .where({ id })
        .update({ decided, decided_at: decided && new Date().toISOString() });
      if (decided === 'thrown-away') return this.film.foilReturned(tx, id, who);
      return row.decided === 'thrown-away' ? this.film.foilUsedAgain(tx, id, who) : [];
    });
    await this.film.told(pieceIds);
  }

  /** The numbers of a sheet's offcuts are written on them. */
  async numbersWritten(id: string): Promise<void> {
    await this.db('sheets')
      .where({ id })
      .whereNull('numbers_written_at')
      .update({ numbers_written_at: new Date().toISOString() });
  }

  /** What the maker says of copies of a sheet; null takes it back. It is said of the whole copy: also of what earlier sheets and later rests carry of it. */
  async judge(id: string, positions: readonly number[], verdict: CopyVerdict | null, who: string): Promise<void> {
    await this.db.transaction(async (tx) => {
      const places: { sheet_id: string; position: number }[] = [];
      for (const position of positions) places.push(...(await this.#piecesOfCopy(tx, id, position)));
      for (const place of places) {
        if (verdict === null) await tx('copy_verdicts').where(place).delete();
        else
          await tx('copy_verdicts')
            .insert({ ...place, verdict, who, judged_at: new Date().toISOString() })
            .onConflict(['sheet_id', 'position'])
            .merge();
      }
    });
  }

  /** Where a copy lies: on the sheet that it was first sent on, and on every rest that completes it. */
  async #piecesOfCopy(
    tx: Knex,
    sheetId: string,
    position: number,
  ): Promise<{ readonly sheet_id: string; readonly position: number }[]> {
    let [at, place] = [sheetId, position];
    for (;;) {
      const row = (await tx('sheet_groups')
        .join('sheets', 'sheets.id', 'sheet_groups.sheet_id')
        .where({ sheet_id: at, position: place })
        .first('rest_of', 'of_position')) as { rest_of: string | null; of_position: number | null } | undefined;
      if (!row) throw new Problem(404, 'copy-unknown', 'This sheet has no such copy. Look at it again.');
      if (row.rest_of === null || row.of_position === null) break;
      [at, place] = [row.rest_of, row.of_position];
    }
    const pieces = [{ sheet_id: at, position: place }];
    // The list grows while it is gone through: a rest may have a rest of its own.
    for (const piece of pieces)
      pieces.push(
        ...((await tx('sheet_groups')
          .join('sheets', 'sheets.id', 'sheet_groups.sheet_id')
          .where({ rest_of: piece.sheet_id, of_position: piece.position })
          .select('sheet_id', 'position')) as typeof pieces),
      );
    return pieces;
  }

  /** Ticks places of copies off, or takes the ticks back: all of them or, when the sheet has not all of them, none. What is not whole on it has no places on it. @throws Problem 404 */
  async tick(id: string, places: readonly CopyPlace[], ticked: boolean): Promise<void> {
    const sheet = await this.get(id);
    const known = sheet.groups.map((_, position) => new Set(placesOnPiece(sheet, position)?.places.map(keyOfPlace)));
    if (!places.every((place) => known[place.position]?.has(keyOfPlace(place))))
      throw new Problem(
        404,
        'place-unknown',
        'This copy has no such counter or small part, or it is not whole on this piece.',
      );
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

  async #stockLines(sheetIds: readonly string[]): Promise<SheetLine[]> {
    const found: SheetLine[] = [];
    for (let i = 0; i < sheetIds.length; i += 500)
      found.push(
        ...((await this.db('stock_lines as line')
          .leftJoin('stock_lines as back', 'back.takes_back', 'line.id')
          .whereIn('line.sheet_id', sheetIds.slice(i, i + 500))
          // What takes a line back counts with that line.
          .whereNull('line.takes_back')
          .select('line.sheet_id', 'line.run_id', 'line.piece_id')
          .select(this.db.raw('line.amount + coalesce(back.amount, 0) as amount'))) as SheetLine[]),
      );
    return found;
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
    const verdicts = await within<VerdictRow>('copy_verdicts');
    const lines = grouped(await this.#stockLines(ids));
    return rows.map((row) =>
      sheetOf(row, {
        groups: groups.get(row.id) ?? [],
        runs: runs.get(row.id) ?? [],
        ticks: ticks.get(row.id) ?? [],
        times: times.get(row.id) ?? [],
        verdicts: verdicts.get(row.id) ?? [],
        lines: lines.get(row.id) ?? [],
      }),
    );
  }
}

/** What the stock book says for a sheet, less what was taken back of it. */
interface SheetLine {
  readonly sheet_id: string;
  readonly run_id: string | null;
  readonly piece_id: string;
  readonly amount: number;
}

/** A piece that went back to the rack, as it was booked. */
export interface LeftoverBack {
  readonly pieceId: string;
  readonly mm2: number;
  readonly worth: number;
}

/** The film that the book took for a run and what it cost, by the pieces and films as they were frozen; nulls when it took nothing. */
function bookedOf(
  runId: string,
  row: SheetRow,
  lines: readonly SheetLine[],
): Pick<BookedRun, 'bookedMm2' | 'bookedCost'> {
  const own = lines.filter((line) => line.run_id === runId);
  if (own.length === 0) return { bookedMm2: null, bookedCost: null };
  const zones = row.zones ? (JSON.parse(row.zones) as FrozenZone[]) : [];
  const film = JSON.parse(row.film) as Film;
  const cut = row.piece ? [{ piece: JSON.parse(row.piece) as FilmPiece, film }] : zones;
  const laid = [...cut, ...foilsOf(row)];
  let [bookedMm2, bookedCost] = [0, 0];
  for (const { piece_id: id, amount } of own) {
    const { piece, film: of } = laid.find(({ piece: { id: other } }) => other === id)!;
    const mm2 = -amount * mm2OfOne(piece);
    bookedMm2 += mm2;
    bookedCost += (mm2 / 1e6) * of.costPerM2;
  }
  return { bookedMm2, bookedCost };
}

/** How much film one of what the book counts of a piece is: a mm of a roll, a whole sheet; mm². */
function mm2OfOne({ kind, widthMm, lengthMm }: FilmPiece): number {
  return kind === 'roll' ? widthMm : widthMm * lengthMm;
}

/** What went back to the rack of a sheet's pieces. */
function offcutsOf({ leftovers_back: back }: Pick<SheetRow, 'leftovers_back'>): LeftoverBack[] {
  return back ? (JSON.parse(back) as LeftoverBack[]) : [];
}

function foilsOf({ foils }: Pick<SheetRow, 'foils'>): FoilView[] {
  return JSON.parse(foils) as FoilView[];
}

/** What of a sheet is in the rack by the book: its leftovers, and foil that was not laid since the sheet was thrown away. */
function backOf(row: SheetRow, lines: readonly SheetLine[]): Pick<FrozenSheet, 'backMm2' | 'backCost'> {
  const foils = new Map(foilsOf(row).map((foil) => [foil.piece.id, foil]));
  const booked = [
    ...offcutsOf(row),
    ...[...foils.values()].map(({ piece, film: { costPerM2 } }): LeftoverBack => {
      const mm2 = mm2OfOne(piece);
      return { pieceId: piece.id, mm2, worth: (mm2 / 1e6) * costPerM2 };
    }),
  ];
  const amountOf = (id: string) =>
    lines.reduce((sum, line) => sum + (line.run_id === null && line.piece_id === id ? line.amount : 0), 0);
  return {
    backMm2: booked.reduce((sum, { pieceId, mm2 }) => sum + mm2 * amountOf(pieceId), 0),
    backCost: booked.reduce((sum, { pieceId, worth }) => sum + worth * amountOf(pieceId), 0),
  };
}

/** What is left of a sheet's pieces; not of its foil where that went back as it was. */
function leftoversOf(row: SheetRow): FrozenLeftover[] {
  const leftovers = JSON.parse(row.leftovers) as FrozenLeftover[];
  if (row.decided !== 'thrown-away' || row.foil_cut_up) return leftovers;
  const foils = new Set(foilsOf(row).map(({ piece }) => piece.id));
  return leftovers.filter(({ pieceId }) => !foils.has(pieceId));
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
  readonly verdicts: readonly VerdictRow[];
  readonly lines: readonly SheetLine[];
}

function sheetOf(row: SheetRow, { groups, runs, ticks, times, verdicts, lines }: RowsOfSheet): FrozenSheet {
  const ticked = new Map<number, WeedPlace[]>();
  const judged = new Map(verdicts.map(({ position, verdict }) => [position, verdict]));
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
    foils: foilsOf(row),
    leftovers: leftoversOf(row),
    leftoversBookedAt: row.leftovers_booked_at,
    offcutIds: offcutsOf(row).map(({ pieceId }) => pieceId),
    numbersWrittenAt: row.numbers_written_at,
    ...backOf(row, lines),
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
      of: group.of_position,
      asked: group.asked,
      verdict: judged.get(group.position) ?? null,
    })),
    runs: runs.map((run) => ({
      ...runOf({ ...run, pairs_total: row.pairs_total, estimate_seconds: row.estimate_seconds }),
      ...bookedOf(run.id, row, lines),
    })),
  };
}
