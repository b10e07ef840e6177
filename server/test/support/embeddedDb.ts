import { PGlite } from '@electric-sql/pglite';
import { encoded } from '../../src/database/db.ts';
import type { Db, Query } from '../../src/database/db.ts';

/** The embedded database in this thread: the server's own has one apart, with the same SQL. */
export async function embeddedDb(): Promise<Db> {
  const db = new PGlite();
  const query: Query = async <Row>(sql: string, params: readonly unknown[] = []) => (await db.query<Row>(sql, encoded(params))).rows;
  return {
    query,
    transaction: (work) =>
      db.transaction((tx) =>
        work((async (sql: string, params: readonly unknown[] = []) => (await tx.query(sql, encoded(params))).rows) as Query),
      ),
    close: () => db.close(),
  };
}
