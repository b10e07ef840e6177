import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import type { Db } from './db.ts';

/** Brings a database up to date: each file of plain SQL once, in the order of its number. */
export async function migrate(db: Db, folder: string): Promise<void> {
  await db.query('CREATE TABLE IF NOT EXISTS migrations (name text PRIMARY KEY, applied_at timestamptz NOT NULL DEFAULT now())');
  const done = new Set((await db.query<{ name: string }>('SELECT name FROM migrations')).map((r) => r.name));
  for (const name of (await readdir(folder)).filter((f) => f.endsWith('.sql')).sort()) {
    if (done.has(name)) continue;
    const sql = await readFile(join(folder, name), 'utf8');
    await db.transaction(async (query) => {
      for (const statement of statementsOf(sql)) await query(statement);
      await query('INSERT INTO migrations (name) VALUES ($1)', [name]);
    });
  }
}

/** The statements of a migration; the bodies of functions, between two `$$`, hold semicolons of their own. */
const statementsOf = (sql: string): string[] =>
  [...sql.replace(/^--.*$/gm, '').matchAll(/(?:\$\$[\s\S]*?\$\$|[^;$]|\$(?!\$))+/g)].map(([text]) => text.trim()).filter(Boolean);
