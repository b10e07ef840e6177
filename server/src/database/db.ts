export interface Query {
  <Row = Record<string, unknown>>(sql: string, params?: readonly unknown[]): Promise<Row[]>;
}

/** A database as the server knows it: plain SQL, one statement at a time, and transactions. */
export interface Db {
  query: Query;
  /** Runs `work` in one transaction: all of it happens, or nothing. */
  transaction<T>(work: (query: Query) => Promise<T>): Promise<T>;
  close(): Promise<void>;
}

/** The database does not answer just now: nothing is known to have been done, and it can be tried again. */
export class DatabaseAway extends Error {
  constructor(cause: unknown) {
    super('The database does not answer.', { cause });
  }
}

/** Values as both databases take them: a list is always JSON, never an array of SQL, which only one of them would take for what it is. */
export const encoded = (params: readonly unknown[]): unknown[] => params.map((p) => (Array.isArray(p) ? JSON.stringify(p) : p));
