import { randomBytes } from 'node:crypto';
import pg from 'pg';
import type { Db } from '../../src/database/db.ts';
import { PostgresDb } from '../../src/database/postgres.ts';
import { embeddedDb } from './embeddedDb.ts';

/** The PostgreSQL server that the tests may use, or null where there is none. */
export const testServer = (): string | null => process.env['TEST_DATABASE_URL'] ?? null;

/** An empty database of its own on that server. */
export async function emptyDatabase(): Promise<string> {
  const server = testServer();
  if (server === null) throw new Error('There is no PostgreSQL server to test on.');
  const name = `test_${randomBytes(6).toString('hex')}`;
  const client = new pg.Client(server);
  await client.connect();
  await client.query(`CREATE DATABASE ${name}`);
  await client.end();
  return Object.assign(new URL(server), { pathname: `/${name}` }).toString();
}

/** The kinds of database there are, for tests that run on each. */
export const databaseKinds = (): [name: string, connect: () => Promise<Db>][] => [
  ['embedded', embeddedDb],
  ...(testServer() === null ? [] : [['PostgreSQL', async () => new PostgresDb(await emptyDatabase())] as [string, () => Promise<Db>]]),
];
