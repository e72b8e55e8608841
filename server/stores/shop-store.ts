import type { Knex } from 'knex';
import { Problem } from '../problem.js';
import type { CutterProfile, Film, FilmPiece, Mat, Shop } from '../../core/job/index.js';

interface DataRow {
  readonly data: string;
}

/** The shop's films, pieces, mats and cutter. */
export class ShopStore {
  constructor(private readonly db: Knex) {}

  async get(): Promise<Shop> {
    const read = async <T>(table: string, order: string) => (await this.db<DataRow>(table).orderBy(order)).map((row) => JSON.parse((row as DataRow).data) as T);
    const cutters = await read<CutterProfile>('cutters', 'id');
    return {
      films: await read<Film>('films', 'rank'),
      pieces: await read<FilmPiece>('pieces', 'id'),
      mats: await read<Mat>('mats', 'id'),
      cutter: cutters[0]!,
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
    });
  }

  /** Lays other figures over a film's. @throws Problem 404 */
  async changeFilm(id: string, change: Partial<Film>): Promise<void> {
    const row = await this.db<DataRow & { id: string }>('films').where({ id }).first();
    if (!row) throw new Problem(404, 'film-unknown', 'There is no such film.');
    await this.db('films').where({ id }).update({ data: JSON.stringify({ ...(JSON.parse(row.data) as Film), ...change }) });
  }

  /** The same for the cutter. */
  async changeCutter(change: Partial<CutterProfile>): Promise<void> {
    const { cutter } = await this.get();
    await this.db('cutters').where({ id: cutter.id }).update({ data: JSON.stringify({ ...cutter, ...change }) });
  }

  async isEmpty(): Promise<boolean> {
    return (await this.db('films').first()) === undefined;
  }
}
