import BetterSqlite3Client from 'knex/lib/dialects/better-sqlite3/index.js';

/**
 * Knex's client, but for one thing. On a full disk SQLite ends a transaction by itself. Knex then rolls back what is no transaction any more, and that error hides the first one, which
 * says that the disk is full.
 */
export class SqliteClient extends BetterSqlite3Client {
  override async _query(connection: unknown, query: { sql: string; response?: unknown }): Promise<unknown> {
    try {
      return await super._query(connection, query);
    } catch (error) {
      const isOver = /^rollback/i.test(query.sql) && /no transaction is active/.test((error as Error).message);
      if (!isOver) throw error;
      return { ...query, response: [] };
    }
  }
}
