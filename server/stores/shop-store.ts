import type { Knex } from 'knex';
import { Problem } from '../problem.js';
import type { CutterProfile, Film, FilmPiece, Mat, Shop } from '../../core/shop/index.js';

interface DataRow {
  readonly data: string;
}

/** The shop as it is kept: its revision grows with every write. */
export type StoredShop = Shop & { readonly revision: number };

/** The shop's films, pieces, mats and cutter. */
export class ShopStore {
  #known: Promise<StoredShop> | null = null;

  constructor(
    private readonly db: Knex,
    private readonly onChanged: (revision: number) => void = () => {},
  ) {}

  /** As it was last written; asked for with every plan, so it is read once and kept until it is written again. */
  async get(): Promise<StoredShop> {
    this.#known ??= this.#read().catch((error: unknown) => {
      this.#known = null;
      throw error;
    });
    return this.#known;
  }

  async #read(): Promise<StoredShop> {
    const read = async <T>(table: string, order: string) => (await this.db<DataRow>(table).orderBy(order)).map((row) => JSON.parse((row as DataRow).data) as T);
    const cutters = await read<CutterProfile>('cutters', 'id');
    return {
      films: await read<Film>('films', 'rank'),
      pieces: await read<FilmPiece>('pieces', 'id'),
      mats: await read<Mat>('mats', 'id'),
      cutter: cutters[0]!,
      revision: (await this.db<{ id: number; revision: number }>('shop_state').first())!.revision,
    };
  }

  /** Puts a whole shop in place of what is there. */
  async replace(shop: Shop): Promise<void> {
    await this.db.transaction(async (tx) => {
      for (const table of ['pieces', 'films', 'mats', 'cutters']) await tx(table).delete();
      await tx.batchInsert('films', shop.films.map((film, rank) => ({ id: film.id, rank, data: JSON.stringify(film) })));
      await tx.batchInsert('pieces', shop.pieces.map((piece) => ({ id: piece.id, film_id: piece.filmId, data: JSON.stringify(piece) })));
      await tx.batchInsert('mats', shop.mats.map((mat) => ({ id: mat.id, data: JSON.stringify(mat) })));
      await tx('cutters').insert({ id: shop.cutter.id, data: JSON.stringify(shop.cutter) });
      await tx('shop_state').increment('revision');
    });
    await this.#changed();
  }

  /** Lays other figures over a film's. @throws Problem 404, 409 when the shop was changed since `revision` */
  async changeFilm(id: string, change: Partial<Film>, revision: number): Promise<void> {
    await this.#write('films', id, change, revision, () => new Problem(404, 'film-unknown', 'There is no such film.'));
  }

  /** The same for the cutter. */
  async changeCutter(change: Partial<CutterProfile>, revision: number): Promise<void> {
    const { cutter } = await this.get();
    await this.#write('cutters', cutter.id, change, revision, () => new Problem(404, 'cutter-unknown', 'There is no such cutter.'));
  }

  async #write(table: 'films' | 'cutters', id: string, change: object, revision: number, unknown: () => Problem): Promise<void> {
    await this.db.transaction(async (tx) => {
      const row = await tx<DataRow & { id: string }>(table).where({ id }).first();
      if (!row) throw unknown();
      const taken = await tx('shop_state').where({ revision }).update({ revision: revision + 1 });
      if (taken === 0) throw new Problem(409, 'shop-changed', 'The shop was changed somewhere else in the meantime, so this change was not saved.');
      await tx(table).where({ id }).update({ data: JSON.stringify({ ...(JSON.parse(row.data) as object), ...change }) });
    });
    await this.#changed();
  }

  async #changed(): Promise<void> {
    this.#known = null;
    this.onChanged((await this.get()).revision);
  }

  async isEmpty(): Promise<boolean> {
    return (await this.db('films').first()) === undefined;
  }
}
