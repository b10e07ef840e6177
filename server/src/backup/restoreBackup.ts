import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { access, mkdir, mkdtemp, readdir, readFile, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { createInterface } from 'node:readline';
import { pipeline } from 'node:stream/promises';
import { isDeepStrictEqual } from 'node:util';
import { FileBlobs, FolioError } from '@elastic-folio/core/node';
import { readArchive } from '@elastic-folio/core/read';
import type { Db, Query } from '../database/db.ts';
import { knownMigrations, migrateTo } from '../database/migrate.ts';
import { diskFault } from '../diskFaults.ts';
import { syncFolder } from '../syncToDisk.ts';
import { BackupHead, blobFile, HEAD_FILE, PUBLISHED, tableFile } from './contents.ts';
import { BACKED_UP } from './tables.ts';

/** A backup is one's own file, and may be as large as the work of years. */
const LIMITS = { entries: 5_000_000, expandedBytes: 2 ** 42, partBytes: 2 ** 40, ratio: 100_000 };
const ROWS_AT_ONCE = 200;
const MOST_CHARACTERS = 4_000_000;

const damaged = (): FolioError =>
  new FolioError(
    'backup.damaged',
    'The backup is damaged or was not copied whole. Nothing was changed.',
    'Use another copy of it, or an older backup.',
  );

/**
 * Puts a backup in the place of everything that is in a database and its data folder. Throws a FolioError where the backup is damaged or
 * was made by a newer version, and where there are documents already, unless `replace` says that these go; then nothing has changed.
 */
export async function restoreBackup(
  db: Db,
  { data, migrations, file, replace = false }: { data: string; migrations: string; file: string; replace?: boolean },
): Promise<BackupHead> {
  await mkdir(data, { recursive: true });
  const work = await mkdtemp(join(data, '.restore-'));
  try {
    const head = await unpack(file, work);
    const known = new Set(await knownMigrations(migrations));
    if (head.migrations.some((m) => !known.has(m)))
      throw new FolioError(
        'backup.newer',
        'The backup was made by a newer version of Elastic Folio. Nothing was changed.',
        'Install that version, then restore the backup.',
      );
    if (!replace && (await hasDocuments(db)))
      throw new FolioError(
        'backup.occupied',
        'There are documents here already. Nothing was changed.',
        'Set FOLIO_DATA to an empty folder, or add --replace: what is here is backed up first, then replaced.',
      );
    await takeBlobs(join(work, 'blobs'), new FileBlobs(join(data, 'blobs')));
    await db.transaction(async (query) => {
      await query('DROP SCHEMA public CASCADE');
      await query('CREATE SCHEMA public');
      await migrateTo(query, migrations, head.migrations);
      for (const table of BACKED_UP)
        if (head.tables[table] !== undefined) await fill(query, table, join(work, tableFile(table)), head.tables[table]);
      await migrateTo(query, migrations);
    });
    await rm(join(data, 'published'), { recursive: true, force: true });
    if (Object.keys(head.sums).some((path) => path.startsWith(PUBLISHED))) await rename(join(work, 'published'), join(data, 'published'));
    return head;
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

/** Whether anybody has worked with this database. */
async function hasDocuments(db: Db): Promise<boolean> {
  const [there] = await db.query<{ t: string | null }>("SELECT to_regclass('public.folios')::text AS t");
  if (!there?.t) return false;
  return (await db.query('SELECT id FROM folios LIMIT 1')).length > 0;
}

/** Unpacks a backup into a folder, and gives its head once everything that it names is there and right. */
async function unpack(file: string, work: string): Promise<BackupHead> {
  await access(file).catch(() => {
    throw new FolioError('backup.none', `There is no file ${file}.`, 'Say where the backup is.');
  });
  let blobs = 0;
  const sums: Record<string, string> = {};
  try {
    for await (const entry of readArchive(file, LIMITS)) {
      const target = join(work, entry.path);
      await mkdir(dirname(target), { recursive: true });
      const hash = createHash('sha256');
      const content = await entry.open();
      content.on('data', (chunk: Buffer) => hash.update(chunk));
      await pipeline(content, createWriteStream(target));
      const sum = hash.digest('hex');
      if (entry.path !== blobFile(sum)) sums[entry.path] = sum;
      else blobs++;
    }
  } catch (error) {
    if (diskFault(error) === 'full')
      throw new FolioError('disk.full', 'The disk is full. Nothing was changed.', 'Make room, then restore the backup again.');
    throw damaged();
  }
  const text = await readFile(join(work, HEAD_FILE), 'utf8').catch(() => null);
  if (text === null)
    throw new FolioError('backup.kind', 'This file is no backup of Elastic Folio.', 'Choose a file that “npm run backup” has written.');
  const head = BackupHead.safeParse(json(text));
  delete sums[HEAD_FILE];
  if (!head.success || head.data.blobs !== blobs || !isDeepStrictEqual(sums, head.data.sums)) throw damaged();
  syncFolder(work);
  return head.data;
}

function json(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

async function takeBlobs(from: string, blobs: FileBlobs): Promise<void> {
  await mkdir(blobs.folder, { recursive: true });
  for (const sha256 of await readdir(from).catch(() => [])) {
    await mkdir(dirname(blobs.path(sha256)), { recursive: true });
    await rename(join(from, sha256), blobs.path(sha256));
  }
  syncFolder(blobs.folder);
}

/** Fills an empty table; all the rows that the backup's head speaks of are there, or it throws. */
async function fill(query: Query, table: string, file: string, count: number): Promise<void> {
  await query(`DELETE FROM ${table}`);
  let [rows, characters, done]: [string[], number, number] = [[], 0, 0];
  const put = async (): Promise<void> => {
    if (rows.length)
      await query(`INSERT INTO ${table} SELECT * FROM jsonb_populate_recordset(NULL::${table}, $1::jsonb)`, [`[${rows.join(',')}]`]);
    done += rows.length;
    [rows, characters] = [[], 0];
  };
  for await (const line of createInterface({ input: createReadStream(file), crlfDelay: Infinity })) {
    rows.push(line);
    characters += line.length;
    if (rows.length >= ROWS_AT_ONCE || characters > MOST_CHARACTERS) await put();
  }
  await put();
  if (done !== count) throw damaged();
}
