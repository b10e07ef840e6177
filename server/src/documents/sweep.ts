import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Db } from '../database/db.ts';

/** Bytes nothing refers to are kept this long, so that an import under way never loses its own. */
const GRACE_MS = 24 * 3600_000;

/** Removes blobs and results that nothing in the database refers to any more, and what broken uploads left. */
export async function sweep(db: Db, data: string): Promise<number> {
  const kept = new Set(
    (await db.query<{ sha256: string }>('SELECT sha256 FROM files UNION SELECT sha256 FROM fonts')).map((r) => r.sha256),
  );
  const runs = new Set((await db.query<{ id: string }>('SELECT id FROM runs')).map((r) => r.id));
  const old = async (path: string): Promise<boolean> =>
    stat(path).then(
      (s) => Date.now() - s.mtimeMs > GRACE_MS,
      () => false,
    );
  const names = (path: string): Promise<string[]> => readdir(path).catch(() => []);
  let removed = 0;
  const drop = async (path: string): Promise<void> => {
    if (!(await old(path))) return;
    await rm(path, { recursive: true, force: true });
    removed++;
  };
  for (const prefix of await names(join(data, 'blobs')))
    for (const name of await names(join(data, 'blobs', prefix))) if (!kept.has(name)) await drop(join(data, 'blobs', prefix, name));
  for (const name of await names(join(data, 'results'))) if (!runs.has(name)) await drop(join(data, 'results', name));
  const sites = new Set((await db.query<{ id: string }>('SELECT id FROM published_sites')).map((r) => r.id));
  for (const name of await names(join(data, 'published'))) if (!sites.has(name)) await drop(join(data, 'published', name));
  for (const name of await names(join(data, 'incoming'))) await drop(join(data, 'incoming', name));
  return removed;
}
