/** Knex's own client for better-sqlite3, which it has no types for. */
declare module 'knex/lib/dialects/better-sqlite3/index.js' {
  import { Knex } from 'knex';

  export default class BetterSqlite3Client extends Knex.Client {
    _query(connection: unknown, query: { sql: string; response?: unknown }): Promise<unknown>;
  }
}
