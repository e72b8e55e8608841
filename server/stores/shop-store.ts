import type { Knex } from 'knex';
import {
  EMPTY_SHOP,
  shopForPlans,
  SETTINGS_ID,
  SHOP_KINDS,
  wholeShop,
  type RecordChange,
  type Shop,
  type ShopFile,
  type ShopKind,
  type ShopRecords,
  type StockPiece,
  type WholeShop,
} from '../../core/shop/index.js';
import { Problem } from '../problem.js';
import { answerOfEdit, rememberEdit } from './edits.js';
import type { LeftoverBack } from './sheet-store.js';
import type { StockBook } from './stock-book.js';

/** The shop as it is kept: its revision grows with every write. */
export interface StoredShop extends ShopFile {
  readonly revision: number;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
}

/** A write of the shop: the revision that was looked at, who made it, and a name of its own, by which it is known when it is sent twice. */
export interface ShopEdit {
  readonly revision: number;
  readonly edit?: string;
  readonly who: string;
}

interface RecordRow {
  readonly kind: ShopKind;
  readonly id: string;
  readonly rank: number;
  readonly data: string;
  readonly revision: number;
}

/** One record before a write and after it; null where there was, or is, none. */
interface Step {
  readonly kind: ShopKind;
  readonly id: string;
  readonly before: object | null;
  readonly after: object | null;
}

interface StateRow {
  readonly revision: number;
  readonly position: number;
}

/** Steps that can be undone; older ones are dropped. */
const HISTORY = 400;

/**
 * The shop's records and the history of their changes. Check and act are one transaction: a record that was changed since the revision that a write
 * was made from is not written. What is left of pieces stands in the stock book.
 */
export class ShopStore {
  #known: Promise<StoredShop> | null = null;

  constructor(
    private readonly db: Knex,
    private readonly book: StockBook,
    private readonly onChanged: (revision: number) => void = () => {},
  ) {}

  /** As it was last written; asked for with every plan, so it is read once and kept until it is written again. */
  get(): Promise<StoredShop> {
    return this.#known ?? this.#keep(this.#read());
  }

  /** What was read is known from now on; a reading that failed is tried again by the next who asks. */
  #keep(reading: Promise<StoredShop>): Promise<StoredShop> {
    this.#known = reading;
    reading.catch(() => {
      if (this.#known === reading) this.#known = null;
    });
    return reading;
  }

  async whole(): Promise<WholeShop & StoredShop> {
    const stored = await this.get();
    return { ...stored, ...wholeShop(stored) };
  }

  /** What plans read of it. */
  async forPlans(): Promise<Shop & { readonly revision: number }> {
    const whole = await this.whole();
    return { ...shopForPlans(whole), revision: whole.revision };
  }

  /** A maker's name; empty when there is none of that id. */
  async nameOfMaker(id: string): Promise<string> {
    return (await this.get()).makers.find((maker) => maker.id === id)?.name ?? '';
  }

  async isEmpty(): Promise<boolean> {
    return (await this.get()).films.length === 0;
  }

  /**
   * Writes some records as one step that can be undone; one that is not there is added. @throws Problem 409 when one was changed since, or
   * something hangs on it; 422 when it names what is not there
   */
  async change(changes: readonly RecordChange[], edit: ShopEdit): Promise<void> {
    await this.write(edit, async (tx, { position, revision }) => {
      const steps: Step[] = [];
      for (const { kind, id, value } of changes) {
        const row = await rowOf(tx, kind, id);
        if (row && row.revision > edit.revision) throw changedElsewhere(kind);
        steps.push({ kind, id, before: row ? (JSON.parse(row.data) as object) : null, after: value });
      }
      const next = position + 1;
      await tx('shop_history').where('position', '>', position).delete();
      await tx('shop_history').insert({
        position: next,
        changes: JSON.stringify(steps),
        at: new Date().toISOString(),
        who: edit.who,
        edit: edit.edit ?? null,
      });
      await tx('shop_history')
        .where('position', '<=', next - HISTORY)
        .delete();
      await this.#lay(
        tx,
        steps.map(({ kind, id, after }) => ({ kind, id, value: after })),
        revision,
      );
      return next;
    });
  }

  /** One step back or forward in the history of the records. @throws Problem 409 when the shop was changed since, or there is no such step */
  async step(by: -1 | 1, edit: ShopEdit): Promise<void> {
    await this.write(edit, async (tx, { position, revision }) => {
      if (revision !== edit.revision)
        throw new Problem(
          409,
          'shop-changed',
          'The shop was changed somewhere else in the meantime, so nothing was undone. Look at it first.',
        );
      const at = by < 0 ? position : position + 1;
      const row = (await tx('shop_history').where({ position: at }).first()) as { changes: string } | undefined;
      if (!row) throw new Problem(409, 'no-step', by < 0 ? 'There is nothing to undo.' : 'There is nothing to redo.');
      const steps = JSON.parse(row.changes) as Step[];
      await this.#lay(
        tx,
        steps.map(({ kind, id, before, after }) => ({ kind, id, value: by < 0 ? before : after })),
        revision,
      );
      return position + by;
    });
  }

  /** A new piece with its first line in the book, `worth` so much when it is left of a sheet; numbers of offcuts are given here. Gives its number. */
  async receive(
    piece: Omit<ShopRecords['pieces'], 'number'>,
    line: {
      readonly amount: number;
      readonly why: 'received' | 'returned';
      readonly note: string;
      readonly sheetId: string | null;
    },
    edit: ShopEdit,
    worth = 0,
  ): Promise<number | null> {
    let number: number | null = null;
    const act = async (tx: Knex, { position, revision }: StateRow) => {
      number = piece.kind === 'offcut' ? (await mostNumber(tx)) + 1 : null;
      await this.#lay(tx, [{ kind: 'pieces', id: piece.id, value: { ...piece, number } }], revision);
      await this.book.add({ pieceId: piece.id, who: edit.who, ...line }, revision + 1, tx);
      const { sheetId: id } = line;
      if (id) {
        const one: LeftoverBack = { pieceId: piece.id, mm2: piece.widthMm * piece.lengthMm, worth };
        await tx('sheets')
          .where({ id })
          .update({ leftovers_back: JSON.stringify([...(await backBefore(tx, id)), one]) });
      }
      return position;
    };
    return this.write(edit, act, { answer: () => number });
  }

  /**
   * What is left of a sheet goes back as offcuts: their cards, their lines in the book and that it was said are one write, so that all of it is there or nothing. Gives their numbers.
   * @throws Problem 409 when it was said before
   */
  async putBack(
    pieces: readonly (Omit<ShopRecords['pieces'], 'number'> & { readonly worth: number })[],
    sheetId: string,
    edit: ShopEdit,
  ): Promise<readonly number[]> {
    let numbers: number[] = [];
    const act = async (tx: Knex, { position, revision }: StateRow) => {
      const back = pieces.map(({ id, widthMm, lengthMm, worth }) => ({ pieceId: id, mm2: widthMm * lengthMm, worth }));
      const said = await tx('sheets')
        .where({ id: sheetId })
        .whereNull('leftovers_booked_at')
        .update({
          leftovers_booked_at: new Date().toISOString(),
          // The foil of a sheet that is thrown away is back in the rack as it was.
          foil_cut_up: tx.raw(`coalesce(decided, '') <> 'thrown-away'`),
          leftovers_back: JSON.stringify([...(await backBefore(tx, sheetId)), ...back] satisfies LeftoverBack[]),
        });
      if (said === 0)
        throw new Problem(
          409,
          'leftovers-booked',
          'The leftovers of this sheet are already booked. Look at the stock.',
        );
      const first = (await mostNumber(tx)) + 1;
      numbers = pieces.map((_, i) => first + i);
      const cards = pieces.map(({ worth: _, ...card }, i) => ({ ...card, number: numbers[i]! }));
      await this.#lay(
        tx,
        cards.map((value) => ({ kind: 'pieces', id: value.id, value })),
        revision,
      );
      for (const { id } of pieces)
        await this.book.add(
          { pieceId: id, who: edit.who, why: 'returned', amount: 1, note: '', sheetId },
          revision + 1,
          tx,
        );
      return position;
    };
    return this.write(edit, act, { answer: () => numbers });
  }

  /** Tells everyone that what is left of pieces has changed; called by whoever wrote into the book, within the same transaction. */
  async touch(tx: Knex): Promise<number> {
    await tx('shop_state').increment('revision');
    return ((await tx('shop_state').first()) as StateRow).revision;
  }

  /** What was known of the shop is read anew, all of it or what is left of one piece, and pages are told. */
  async changed(pieceId?: string): Promise<void> {
    // Nothing is waited for between what was known and what is: another write may be told meanwhile, and what it made known is gone on from.
    const before = this.#known;
    this.#known = null;
    if (before && pieceId !== undefined) void this.#keep(this.#withPiece(before, pieceId));
    this.onChanged((await this.get()).revision);
  }

  async #withPiece(reading: Promise<StoredShop>, pieceId: string): Promise<StoredShop> {
    const before = await reading;
    const [left, { revision }] = [await this.book.leftOf(pieceId), (await this.db('shop_state').first()) as StateRow];
    return {
      ...before,
      revision,
      stock: before.stock.map((piece) => (piece.id === pieceId ? { ...piece, left } : piece)),
    };
  }

  /** Brings the shop to what a file says, piece by piece of its stock by count; what the file does not name is put away. */
  async fill(file: ShopFile): Promise<void> {
    const before = await this.get();
    await this.db.transaction(async (tx) => {
      const revision = await this.touch(tx);
      for (const kind of SHOP_KINDS) {
        const wanted = recordsOf(file, kind);
        if (kind !== 'pieces')
          await tx('shop_records')
            .where({ kind })
            .whereNotIn(
              'id',
              wanted.map(({ id }) => id),
            )
            .delete();
        for (const [rank, { id, ...rest }] of wanted.entries())
          await tx('shop_records')
            .insert({ kind, id, rank, data: JSON.stringify({ id, ...rest }), revision })
            .onConflict(['kind', 'id'])
            .merge();
      }
      const lines = file.stock.flatMap((piece) => {
        const was = before.stock.find((one) => one.id === piece.id);
        const amount = piece.left - (was?.left ?? 0);
        return amount === 0 && was
          ? []
          : [{ pieceId: piece.id, why: was ? ('counted' as const) : ('received' as const), amount }];
      });
      const gone = before.stock
        .filter((piece) => piece.left !== 0 && !file.stock.some((one) => one.id === piece.id))
        .map((piece) => ({ pieceId: piece.id, why: 'thrown away' as const, amount: -piece.left }));
      for (const line of [...lines, ...gone])
        await this.book.add({ who: '', note: '', sheetId: null, ...line }, revision, tx);
    });
    await this.changed();
  }

  /** Jobs that name a film in what they decide, and how many sheets were cut of it. */
  async usesOf(
    filmId: string,
  ): Promise<{ readonly jobs: readonly { readonly id: string; readonly title: string }[]; readonly sheets: number }> {
    const said = likeId(filmId);
    const jobs = (await this.db('jobs')
      .join('recipes', (on) => on.on('recipes.job_id', 'jobs.id').andOn('recipes.position', 'jobs.position'))
      .whereNull('jobs.deleted_at')
      .andWhere('recipes.recipe', 'like', said)
      .select('jobs.id', 'jobs.title')
      .orderBy('jobs.updated_at', 'desc')
      .limit(50)) as { id: string; title: string }[];
    const [{ n }] = (await this.db('sheets')
      .whereRaw(`id in (select sheet_id from sheet_groups where film_id = ?)`, [filmId])
      .count({ n: '*' })) as [{ n: number }];
    return { jobs, sheets: n };
  }

  /**
   * Writes something of the shop in one transaction, and tells that it has changed. `act` gives where the history of the records then stands; `pieceId` is the only thing that
   * changes by it, when nothing else does. `answer` is asked once it is done. One that was written already is not written twice, and gets the answer of then.
   */
  async write<T = null>(
    edit: ShopEdit,
    act: (tx: Knex, state: StateRow) => Promise<number>,
    { pieceId, answer }: { readonly pieceId?: string; readonly answer?: () => T } = {},
  ): Promise<T> {
    const done = await this.db.transaction(async (tx) => {
      const before = edit.edit === undefined ? null : await answerOfEdit(tx, 'shop', edit.edit);
      if (before) return { isNew: false, answer: before.answer as T };
      const state = (await tx('shop_state').first()) as StateRow;
      const position = await act(tx, state);
      await tx('shop_state').update({ revision: state.revision + 1, position });
      const made = (answer?.() ?? null) as T;
      if (edit.edit !== undefined) await rememberEdit(tx, { of: 'shop', name: edit.edit, answer: made });
      return { isNew: true, answer: made };
    });
    if (done.isNew) await this.changed(pieceId);
    return done.answer;
  }

  /** Whether a write of this name was done. */
  async isDone(name: string): Promise<boolean> {
    return (await answerOfEdit(this.db, 'shop', name)) !== null;
  }

  /** Lays records into the table of a shop that stands at a revision, and sees to it that all they name is there. */
  async #lay(
    tx: Knex,
    changes: readonly { readonly kind: ShopKind; readonly id: string; readonly value: object | null }[],
    revision: number,
  ): Promise<void> {
    for (const { kind, id, value } of changes) {
      if (value === null) {
        await this.#mustBeFree(tx, kind, id);
        await tx('shop_records').where({ kind, id }).delete();
      } else {
        const [{ most }] = (await tx('shop_records').where({ kind }).max('rank as most')) as [{ most: number | null }];
        await tx('shop_records')
          .insert({ kind, id, rank: (most ?? -1) + 1, data: JSON.stringify(value), revision: revision + 1 })
          .onConflict(['kind', 'id'])
          .merge(['data', 'revision']);
      }
    }
    await mustHold(tx, new Set(changes.map(({ kind }) => kind)));
  }

  /** @throws Problem 409 when something that was done hangs on a record */
  async #mustBeFree(tx: Knex, kind: ShopKind, id: string): Promise<void> {
    const said = likeId(id);
    const isUsed =
      kind === 'films'
        ? (await tx('shop_records').where({ kind: 'pieces' }).andWhere('data', 'like', said).first()) ||
          (await tx('recipes').where('recipe', 'like', said).first()) ||
          (await tx('sheet_groups').where({ film_id: id }).first())
        : kind === 'pieces';
    if (isUsed)
      throw new Problem(
        409,
        'in-use',
        kind === 'films'
          ? 'Pieces or jobs use this film, so it cannot go. Retire it instead: it is then no longer offered.'
          : 'A piece that stands in the stock book cannot go. Put it away instead.',
      );
  }

  async #read(): Promise<StoredShop> {
    const rows = (await this.db('shop_records').orderBy('kind').orderBy('rank').orderBy('id')) as RecordRow[];
    const records = new Map<ShopKind, object[]>(SHOP_KINDS.map((kind) => [kind, []]));
    for (const { kind, data } of rows) records.get(kind)!.push(JSON.parse(data) as object);
    const all = <K extends ShopKind>(kind: K) => records.get(kind) as ShopRecords[K][];
    const { revision, position } = (await this.db('shop_state').first()) as StateRow;
    const [{ last }] = (await this.db('shop_history').max('position as last')) as [{ last: number | null }];
    const [{ first }] = (await this.db('shop_history').min('position as first')) as [{ first: number | null }];
    const left = await this.book.left();
    const stock: StockPiece[] = all('pieces').map((piece) => ({ ...piece, left: left.get(piece.id) ?? 0 }));
    const cutters = all('cutters');
    return {
      // A shop that was never written begins as an empty one.
      settings: all('settings')[0] ?? EMPTY_SHOP.settings,
      films: all('films'),
      stock,
      mats: all('mats'),
      blades: all('blades'),
      cutters: cutters.length > 0 ? cutters : EMPTY_SHOP.cutters,
      tapes: all('tapes'),
      presses: all('presses'),
      makers: all('makers'),
      blanks: all('blanks'),
      revision,
      canUndo: position > 0 && first !== null && position >= first,
      canRedo: last !== null && last > position,
    };
  }
}

/** What went back to the rack of a sheet so far. */
async function backBefore(tx: Knex, id: string): Promise<readonly LeftoverBack[]> {
  const row = (await tx('sheets').where({ id }).first('leftovers_back as back')) as { back: string | null } | undefined;
  return row?.back ? (JSON.parse(row.back) as LeftoverBack[]) : [];
}

/** The highest number that an offcut has. */
async function mostNumber(tx: Knex): Promise<number> {
  const [row] = (await tx('shop_records')
    .where({ kind: 'pieces' })
    .select(tx.raw(`max(json_extract(data, '$.number')) as most`))) as { most: number | null }[];
  return row!.most ?? 0;
}

/** A recipe or a record that names an id somewhere. */
function likeId(id: string): string {
  return `%${JSON.stringify(id)}%`;
}

function recordsOf(file: ShopFile, kind: ShopKind): readonly { readonly id: string }[] {
  if (kind === 'settings') return [file.settings];
  if (kind === 'pieces') return file.stock.map(({ left: _left, ...card }) => card);
  return file[kind];
}

async function rowOf(tx: Knex, kind: ShopKind, id: string): Promise<RecordRow | undefined> {
  return (await tx('shop_records').where({ kind, id }).first()) as RecordRow | undefined;
}

function changedElsewhere(kind: ShopKind): Problem {
  return new Problem(
    409,
    'shop-changed',
    `${kind === 'settings' ? 'The shop' : 'This entry'} was changed somewhere else in the meantime, so this change was not saved. What you typed is still here.`,
  );
}

/** @throws Problem 422 when a record names another that is not there, or that is put away */
async function mustHold(tx: Knex, kinds: ReadonlySet<ShopKind>): Promise<void> {
  const missing = async (sql: string) => ((await tx.raw(sql)) as unknown[]).length > 0;
  if (
    kinds.has('pieces') &&
    (await missing(
      `select 1 from shop_records p where p.kind = 'pieces' and not exists (select 1 from shop_records f where f.kind = 'films' and f.id = json_extract(p.data, '$.filmId')) limit 1`,
    ))
  ) {
    throw new Problem(422, 'film-unknown', 'There is no such film. Choose one of the list.', 'filmId');
  }
  if (kinds.has('settings') || kinds.has('cutters')) {
    const settings = (await rowOf(tx, 'settings', SETTINGS_ID))?.data;
    const { cutterId } = settings ? (JSON.parse(settings) as ShopRecords['settings']) : EMPTY_SHOP.settings;
    const cutter = await rowOf(tx, 'cutters', cutterId);
    const isThere = cutter ? !(JSON.parse(cutter.data) as ShopRecords['cutters']).retired : settings === undefined;
    if (!isThere)
      throw new Problem(422, 'cutter-in-use', 'The shop cuts with this cutter. Choose another one first.', 'cutterId');
  }
  if (
    kinds.has('cutters') &&
    (await missing(
      `select 1 from shop_records c where c.kind = 'cutters' and json_extract(c.data, '$.bladeId') is not null and not exists (select 1 from shop_records b where b.kind = 'blades' and b.id = json_extract(c.data, '$.bladeId')) limit 1`,
    ))
  ) {
    throw new Problem(422, 'blade-unknown', 'There is no such blade. Choose one of the list.', 'bladeId');
  }
}
