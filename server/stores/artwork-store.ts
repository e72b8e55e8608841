import { createHash, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import type { Source } from '../../core/stations/artwork/index.js';
import { Problem } from '../problem.js';

/** An artwork's untouched bytes. */
export interface StoredArtwork extends Source {
  readonly bytes: Uint8Array;
}

/** A file's description: a new id, its name and its SHA-256. */
export function describeFile(fileName: string, bytes: Uint8Array): Source {
  return { id: randomUUID(), fileName, sha256: createHash('sha256').update(bytes).digest('hex') };
}

/** Artworks as they came; never changed, shared by the jobs that use them. */
export class ArtworkStore {
  constructor(private readonly db: Knex) {}

  /** Keeps a file under the id it was given. */
  async add({ id, fileName, sha256 }: Source, bytes: Uint8Array): Promise<void> {
    await this.db('artworks').insert({
      id,
      file_name: fileName,
      sha256,
      bytes: Buffer.from(bytes),
      created_at: new Date().toISOString(),
    });
  }

  /** @throws Problem 404 */
  async get(id: string): Promise<StoredArtwork> {
    const row = await this.db<{ id: string; file_name: string; sha256: string; bytes: Buffer }>('artworks')
      .where({ id })
      .first();
    if (!row) throw new Problem(404, 'artwork-unknown', 'There is no such artwork.');
    return { id: row.id, fileName: row.file_name, sha256: row.sha256, bytes: new Uint8Array(row.bytes) };
  }
}
