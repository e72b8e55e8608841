import type { Knex } from 'knex';
import type { Source } from '../../core/stations/artwork/index.js';

/** A font that the shop added: its name, and its file, which is kept with the artworks' files. */
export interface OwnFont {
  readonly name: string;
  readonly source: Source;
}

/** The shop's own fonts. */
export class FontStore {
  constructor(private readonly db: Knex) {}

  async list(): Promise<OwnFont[]> {
    const rows = await this.db<{ id: string; name: string; file_name: string; sha256: string }>('fonts')
      .join('artworks', 'artworks.id', 'fonts.id')
      .orderBy('name')
      .select('fonts.id', 'name', 'file_name', 'sha256');
    return rows.map((row: { id: string; name: string; file_name: string; sha256: string }) => ({
      name: row.name,
      source: { id: row.id, fileName: row.file_name, sha256: row.sha256 },
    }));
  }

  /** Names a file that is kept already as a font. */
  async add(font: OwnFont): Promise<OwnFont> {
    await this.db('fonts').insert({ id: font.source.id, name: font.name });
    return font;
  }
}
