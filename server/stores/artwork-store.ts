import { createHash, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { Problem } from '../problem.js';

/** An artwork's untouched bytes. */
export interface StoredArtwork {
  readonly id: string;
  readonly fileName: string;
  readonly sha256: string;
  readonly bytes: Uint8Array;
}

/** Artworks as they came; never changed, shared by the jobs that use them. */
export class ArtworkStore {
  constructor(private readonly db: Knex) {}

  async add(fileName: string, bytes: Uint8Array): Promise<StoredArtwork> {
    const artwork = { id: randomUUID(), fileName, sha256: createHash('sha256').update(bytes).digest('hex'), bytes };
    await this.db('artworks').insert({
      id: artwork.id,
      file_name: fileName,
      sha256: artwork.sha256,
      bytes: Buffer.from(bytes),
      created_at: new Date().toISOString(),
    });
    return artwork;
  }

  /** @throws Problem 404 */
  async get(id: string): Promise<StoredArtwork> {
    const row = await this.db<{ id: string; file_name: string; sha256: string; bytes: Buffer }>('artworks').where({ id }).first();
    if (!row) throw new Problem(404, 'artwork-unknown', 'There is no such artwork.');
    return { id: row.id, fileName: row.file_name, sha256: row.sha256, bytes: new Uint8Array(row.bytes) };
  }
}
