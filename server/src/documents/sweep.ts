import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import type { Db } from '../database/db.ts';

/** Bytes nothing refers to are kept this long, so that an import under way never loses its own. */
const GRACE_MS = 24 * 3600_000;
/** How folders begin that are only there while something is made; the program gives them its own places otherwise. */
const UNFINISHED = /^(\.restore-|\.backup-|\.asked-|samples-\d+$|sample-)|\.(part|former|arriving)$/;

/**
 * Removes blobs and results that nothing in the database refers to any more, and what was left half done: uploads, samples, results,
 * backups. `alone`: nobody else uses the folder and nothing is under way, so that what is half done goes at once. Gives how many went.
 */
export async function sweep(db: Db, data: string, { alone = false } = {}): Promise<number> {
  const kept = new Set(
    (await db.query<{ sha256: string }>('SELECT sha256 FROM files UNION SELECT sha256 FROM fonts')).map((r) => r.sha256),
  );
  const runs = new Set((await db.query<{ id: string }>('SELECT id FROM runs')).map((r) => r.id));
  const names = (path: string): Promise<string[]> => readdir(path).catch(() => []);
  let removed = 0;
  const drop = async (path: string, atOnce = false): Promise<void> => {
    if (!atOnce && !(await isOld(path))) return;
    await rm(path, { recursive: true, force: true });
    removed++;
  };
  for (const prefix of await names(join(data, 'blobs')))
    for (const name of await names(join(data, 'blobs', prefix)))
      if (prefix === 'tmp') await drop(join(data, 'blobs', prefix, name), alone);
      else if (!kept.has(name)) await drop(join(data, 'blobs', prefix, name));
  for (const folder of ['.', 'results', 'backups'])
    for (const name of await names(join(data, folder))) if (UNFINISHED.test(name)) await drop(join(data, folder, name), alone);
  for (const name of await names(join(data, 'results')))
    if (!runs.has(name) && !UNFINISHED.test(name)) await drop(join(data, 'results', name));
  const sites = new Set((await db.query<{ id: string }>('SELECT id FROM published_sites')).map((r) => r.id));
  for (const name of await names(join(data, 'published')))
    if (!sites.has(name)) await drop(join(data, 'published', name));
    else
      for (const version of await names(join(data, 'published', name)))
        if (UNFINISHED.test(version)) await drop(join(data, 'published', name, version), alone);
  for (const name of await names(join(data, 'incoming'))) await drop(join(data, 'incoming', name), alone);
  return removed;
}

const isOld = (path: string): Promise<boolean> =>
  stat(path).then(
    (s) => Date.now() - s.mtimeMs > GRACE_MS,
    () => false,
  );
