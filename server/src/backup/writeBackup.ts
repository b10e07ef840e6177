import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { access, mkdir, mkdtemp, open, readdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join, relative, resolve, sep } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { FileBlobs, FolioError } from '@elastic-folio/core/node';
import { zipFiles } from '@elastic-folio/core/write';
import type { Db, Query } from '../database/db.ts';
import { diskFault } from '../diskFaults.ts';
import { syncPath } from '../syncToDisk.ts';
import { blobFile, HEAD_FILE, PUBLISHED, tableFile } from './contents.ts';
import type { BackupHead } from './contents.ts';
import { BACKED_UP } from './tables.ts';

const ROWS_AT_ONCE = 200;

/**
 * Writes everything that people have made into one file: documents with their pictures and history, memories, terms, jobs, fonts,
 * what was published. The file is there whole or not at all. Throws a FolioError where a picture is missing or the disk is full.
 */
export async function writeBackup(db: Db, data: string, file: string): Promise<BackupHead> {
  const target = resolve(file);
  await mkdir(dirname(target), { recursive: true });
  const work = await mkdtemp(join(dirname(target), '.backup-'));
  try {
    const tables: Record<string, number> = {};
    const migrations: string[] = [];
    await mkdir(join(work, 'tables'));
    // One look at the database, so that what it holds belongs together.
    await db.transaction(async (query) => {
      await query('SET TRANSACTION ISOLATION LEVEL REPEATABLE READ');
      for (const { name } of await query<{ name: string }>('SELECT name FROM migrations ORDER BY name')) migrations.push(name);
      for (const table of BACKED_UP) tables[table] = await writeTable(query, table, join(work, tableFile(table)));
    });
    const blobs = await blobsOf(db, data);
    const rest = [
      ...BACKED_UP.map((t) => ({ path: tableFile(t), file: join(work, tableFile(t)) })),
      ...(await filesIn(join(data, 'published'))).map((file) => ({
        path: PUBLISHED + relative(join(data, 'published'), file).split(sep).join('/'),
        file,
      })),
    ];
    const sums: Record<string, string> = {};
    for (const { path, file: from } of rest) sums[path] = await sumOf(from);
    const head: BackupHead = {
      format: 'elastic-folio-backup',
      version: 1,
      at: new Date().toISOString(),
      migrations,
      tables,
      blobs: blobs.length,
      sums,
    };
    await writeFile(join(work, HEAD_FILE), JSON.stringify(head, null, 2));
    const zip = zipFiles([{ path: HEAD_FILE, file: join(work, HEAD_FILE) }, ...rest, ...blobs]);
    const whole = join(work, 'whole');
    await pipeline(zip, createWriteStream(whole));
    syncPath(whole);
    await rename(whole, target);
    syncPath(dirname(target));
    return head;
  } catch (error) {
    if (diskFault(error) === 'full')
      throw new FolioError('disk.full', 'The disk is full; no backup was written.', 'Make room, or write it to another disk.');
    throw error;
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

/** Writes a table as a row of JSON a line; gives how many there are. */
async function writeTable(query: Query, table: string, file: string): Promise<number> {
  const out = await open(file, 'w');
  let count = 0;
  try {
    await query(`DECLARE rows CURSOR FOR SELECT row_to_json(t)::text AS row FROM ${table} t`);
    for (;;) {
      const rows = await query<{ row: string }>(`FETCH ${ROWS_AT_ONCE} FROM rows`);
      if (!rows.length) break;
      await out.write(rows.map((r) => `${r.row}\n`).join(''));
      count += rows.length;
    }
    await query('CLOSE rows');
  } finally {
    await out.close();
  }
  return count;
}

/** The pictures, media and fonts that documents refer to. */
async function blobsOf(db: Db, data: string): Promise<{ path: string; file: string }[]> {
  const blobs = new FileBlobs(join(data, 'blobs'));
  const rows = await db.query<{ sha256: string }>('SELECT sha256 FROM files UNION SELECT sha256 FROM fonts');
  const files = rows.map(({ sha256 }) => ({ path: blobFile(sha256), file: blobs.path(sha256) }));
  for (const { file } of files)
    await access(file).catch(() => {
      throw new FolioError(
        'backup.blob',
        'A picture or font that a document uses is missing from the data folder.',
        'Bring that file in again, then make the backup.',
      );
    });
  return files;
}

async function sumOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

async function filesIn(folder: string): Promise<string[]> {
  const entries = await readdir(folder, { withFileTypes: true, recursive: true }).catch(() => []);
  return entries
    .filter((e) => e.isFile())
    .map((e) => join(e.parentPath, e.name))
    .filter((path) => !path.includes('.arriving'));
}
