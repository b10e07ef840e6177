/** A PostgreSQL server of its own for tests and campaigns. */
export interface OwnServer {
  /** An empty database of its own, by the variable that tests find it in. */
  database(name: string): { TEST_DATABASE_URL: string };
  /** Stops it as an administrator does (`fast`), or as a fault does (`immediate`), waits, and starts it again. */
  restart(pauseMs?: number, mode?: 'fast' | 'immediate'): Promise<void>;
  stop(): void;
}

/** Null where no PostgreSQL server is installed. */
export function postgres(): Promise<OwnServer | null>;
