import pg from 'pg';
import { DatabaseAway, encoded } from './db.ts';
import type { Db, Query } from './db.ts';

/** How long a connection is waited for while the server is being restarted; requests after that are told so. */
const CONNECT_MS = 5000;
const AGAIN_MS = 250;

/** A PostgreSQL server. Connections may break at any time: what was under way is refused with a reason, and what comes next has a new one. */
export class PostgresDb implements Db {
  private readonly pool: pg.Pool;

  constructor(url: string) {
    this.pool = new pg.Pool({ connectionString: url, max: 8, connectionTimeoutMillis: CONNECT_MS });
    this.pool.on('error', (error) => console.error(`The database connection broke: ${error.message}`));
    // Also while somebody has it: without a listener a broken connection ends the program.
    this.pool.on('connect', (client) => client.on('error', () => undefined));
  }

  query: Query = async <Row>(sql: string, params: readonly unknown[] = []) => {
    for (let tries = 1; ; tries++)
      try {
        return await this.with(async (client) => (await client.query(sql, encoded(params))).rows as Row[]);
      } catch (error) {
        // What only reads can be asked once more; of a change nobody knows whether it was made.
        if (!(error instanceof DatabaseAway) || tries > 1 || !/^\s*select\b/i.test(sql)) throw error;
      }
  };

  transaction<T>(work: (query: Query) => Promise<T>): Promise<T> {
    return this.with(async (client) => {
      try {
        await client.query('BEGIN');
        const result = await work(
          (async (sql: string, params: readonly unknown[] = []) => (await client.query(sql, encoded(params))).rows) as Query,
        );
        await client.query('COMMIT');
        return result;
      } catch (error) {
        if (!isBroken(error)) await client.query('ROLLBACK');
        throw error;
      }
    });
  }

  close(): Promise<void> {
    return this.pool.end();
  }

  /** Works on a connection; one that broke is not used again. */
  private async with<T>(work: (client: pg.PoolClient) => Promise<T>): Promise<T> {
    const client = await this.connected();
    let broken = false;
    try {
      return await work(client);
    } catch (error) {
      broken = isBroken(error);
      throw broken ? new DatabaseAway(error) : error;
    } finally {
      client.release(broken);
    }
  }

  /** A connection, waited for while there is none. */
  private async connected(): Promise<pg.PoolClient> {
    for (const until = Date.now() + CONNECT_MS; ;)
      try {
        return await this.pool.connect();
      } catch (error) {
        if (!isBroken(error) || Date.now() >= until) throw isBroken(error) ? new DatabaseAway(error) : error;
        await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
      }
  }
}

/**
 * Whether a connection broke, or there was none: classes 08 and 57P of SQLSTATE, 53300 (too many connections), 25P03 (idle too
 * long in a transaction) (PostgreSQL 15, appendix A), what the operating system says, and what the driver says without a code.
 */
function isBroken(error: unknown): boolean {
  const { code, message } = error as { code?: string; message?: string };
  if (code !== undefined && /^(08...|57P0.|53300|25P03|ECONN.*|EPIPE|ETIMEDOUT|ENOENT|ENOTFOUND|EHOSTUNREACH)$/.test(code)) return true;
  return /^(Connection terminated|timeout exceeded when trying to connect|Client (has encountered|was closed)|connect )/i.test(
    message ?? '',
  );
}
