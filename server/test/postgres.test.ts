import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import pg from 'pg';
import { postgres } from '../../scripts/postgres.mjs';
import type { OwnServer } from '../../scripts/postgres.mjs';
import { DatabaseAway } from '../src/database/db.ts';
import { PostgresDb } from '../src/database/postgres.ts';
import { testServer } from './support/databases.ts';

// The server is restarted here: it is one of these tests' own.
const onServer = testServer() === null ? describe.skip : describe;
onServer('connections to a PostgreSQL server', () => {
  let server: OwnServer;
  let url: string;
  let db: PostgresDb;
  beforeAll(async () => {
    server = (await postgres())!;
    url = server.database('cut').TEST_DATABASE_URL;
    db = new PostgresDb(url);
    await db.query('CREATE TABLE rows (n integer PRIMARY KEY)');
  });
  afterAll(async () => {
    await db.close();
    server.stop();
  });
  /** Ends every connection but the one that says so. */
  const terminate = async (): Promise<void> => {
    const client = new pg.Client(url);
    await client.connect();
    await client.query(
      'SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid()',
    );
    await client.end();
  };
  const rows = async (): Promise<number[]> => (await db.query<{ n: number }>('SELECT n FROM rows ORDER BY n')).map((r) => r.n);

  test('that are cut in the middle of a transaction undo it, say so, and the next one works', async () => {
    for (const after of ['BEGIN', 'INSERT']) {
      const cut = db.transaction(async (query) => {
        if (after === 'INSERT') await query('INSERT INTO rows VALUES (1)');
        await terminate();
        await query('INSERT INTO rows VALUES (2)');
      });
      await expect(cut).rejects.toBeInstanceOf(DatabaseAway);
      expect(await rows()).toEqual([]);
    }
    await db.transaction((query) => query('INSERT INTO rows VALUES (3)'));
    expect(await rows()).toEqual([3]);
  });

  test('that are cut while nobody uses them, or while a query runs, cost at most that query', async () => {
    await Promise.all(Array.from({ length: 8 }, () => db.query('SELECT 1')));
    await terminate();
    expect(await rows()).toEqual([3]);
    const slow = db.query('SELECT 1 AS one, pg_sleep(0.5)');
    await new Promise((r) => setTimeout(r, 150));
    await terminate();
    // What only reads is asked once more.
    expect(await slow).toHaveLength(1);
    const change = db.query('INSERT INTO rows SELECT 4 FROM pg_sleep(0.5)');
    await new Promise((r) => setTimeout(r, 150));
    await terminate();
    await expect(change).rejects.toBeInstanceOf(DatabaseAway);
    expect(await rows()).toEqual([3]);
  });

  test('that are refused for their own fault say so, and are used again', async () => {
    await expect(db.transaction((query) => query('INSERT INTO rows VALUES (3)'))).rejects.toThrow(/duplicate key/);
    expect(await rows()).toEqual([3]);
  });

  test('are waited for while the server is restarted: nothing that was confirmed is lost, nothing is there twice', async () => {
    const confirmed: number[] = [];
    let away = 0;
    let going = true;
    const work = async (first: number): Promise<void> => {
      for (let n = first; going || n % 4 !== first % 4; n += 4) {
        try {
          await db.transaction((query) => query('INSERT INTO rows VALUES ($1)', [n]));
          confirmed.push(n);
        } catch (error) {
          expect(error).toBeInstanceOf(DatabaseAway);
          away++;
        }
        await new Promise((r) => setTimeout(r, 10));
      }
    };
    const all = [100, 101, 102, 103].map((n) => work(n));
    await new Promise((r) => setTimeout(r, 300));
    const before = confirmed.length;
    await server.restart(1500);
    await new Promise((r) => setTimeout(r, 600));
    going = false;
    await Promise.all(all);
    const there = (await rows()).filter((n) => n >= 100);
    expect(before).toBeGreaterThan(4);
    expect(confirmed.length).toBeGreaterThan(before + 4);
    expect(there).toEqual(expect.arrayContaining(confirmed));
    // Of those that broke off, at most what was on its way to be confirmed is there.
    expect(there.length - confirmed.length).toBeLessThanOrEqual(away);
  });
});
