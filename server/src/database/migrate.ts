import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { Db, Query } from './db.ts';

/** Brings a database up to date: each file of plain SQL once, in the order of its number. */
export async function migrate(db: Db, folder: string): Promise<void> {
  const done = await appliedTo(db.query);
  for (const name of await knownMigrations(folder)) if (!done.has(name)) await db.transaction((query) => migrateTo(query, folder, [name]));
}

/** The names of all migrations, in order. */
export const knownMigrations = async (folder: string): Promise<string[]> =>
  (await readdir(folder)).filter((f) => f.endsWith('.sql')).sort();

/** Runs those of some migrations, or of all, that a database has not had yet. */
export async function migrateTo(query: Query, folder: string, names?: readonly string[]): Promise<void> {
  const done = await appliedTo(query);
  for (const name of names ?? (await knownMigrations(folder))) {
    if (done.has(name)) continue;
    for (const statement of statementsOf(await readFile(join(folder, name), 'utf8'))) await query(statement);
    await query('INSERT INTO migrations (name) VALUES ($1)', [name]);
  }
}

/** The names of migrations that a database has had. */
async function appliedTo(query: Query): Promise<Set<string>> {
  await query('CREATE TABLE IF NOT EXISTS migrations (name text PRIMARY KEY, applied_at timestamptz NOT NULL DEFAULT now())');
  return new Set((await query<{ name: string }>('SELECT name FROM migrations')).map((r) => r.name));
}

/** The statements of a migration; the bodies of functions, between two `$$`, hold semicolons of their own. */
const statementsOf = (sql: string): string[] =>
  [...sql.replace(/^--.*$/gm, '').matchAll(/(?:\$\$[\s\S]*?\$\$|[^;$]|\$(?!\$))+/g)].map(([text]) => text.trim()).filter(Boolean);
