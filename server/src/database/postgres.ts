import pg from 'pg';
import type { Db, Query } from './db.ts';

/** A PostgreSQL server. */
export class PostgresDb implements Db {
  private readonly pool: pg.Pool;

  constructor(url: string) {
    this.pool = new pg.Pool({ connectionString: url, max: 8 });
    this.pool.on('error', (error) => console.error(`The database connection broke: ${error.message}`));
  }

  query: Query = async <Row>(sql: string, params: readonly unknown[] = []) => (await this.pool.query(sql, encode(params))).rows as Row[];

  async transaction<T>(work: (query: Query) => Promise<T>): Promise<T> {
    const client = await this.pool.connect();
    try {
      await client.query('BEGIN');
      const result = await work(
        (async (sql: string, params: readonly unknown[] = []) => (await client.query(sql, encode(params))).rows) as Query,
      );
      await client.query('COMMIT');
      return result;
    } catch (error) {
      await client.query('ROLLBACK');
      throw error;
    } finally {
      client.release();
    }
  }

  close(): Promise<void> {
    return this.pool.end();
  }
}

/** `pg` takes arrays for SQL arrays; here they are always JSON, as the embedded database has them. */
const encode = (params: readonly unknown[]): unknown[] => params.map((p) => (Array.isArray(p) ? JSON.stringify(p) : p));
