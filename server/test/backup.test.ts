import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { cp, mkdtemp, readdir, readFile, rm, stat, truncate, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { keptSamples as samples } from '../../core/test/support/keptSamples.ts';
import type { Sample } from '@elastic-folio/demo';
import { FileBlobs } from '@elastic-folio/core/node';
import { backUpDaily, backupsFolder } from '../src/backup/dailyBackup.ts';
import { restoreBackup } from '../src/backup/restoreBackup.ts';
import { BACKED_UP, LEFT_OUT } from '../src/backup/tables.ts';
import { writeBackup } from '../src/backup/writeBackup.ts';
import type { Db } from '../src/database/db.ts';
import { migrate } from '../src/database/migrate.ts';
import { DocumentStore } from '../src/documents/documentStore.ts';
import { hashOf } from '../src/documents/parts.ts';
import { FontLibrary } from '../src/documents/fontLibrary.ts';
import { Terms } from '../src/languages/terms.ts';
import { TranslationMemory } from '../src/languages/translationMemory.ts';
import { databaseKinds } from './support/databases.ts';
import { waiting } from './support/editRequest.ts';

const migrations = join(dirname(dirname(fileURLToPath(import.meta.url))), 'migrations');

describe.each(databaseKinds())('a backup of the %s database', (_name, connect) => {
  let home: string;
  let data: string;
  let db: Db;
  let almanac: Sample;
  let id: string;
  const open: Db[] = [];
  const opened = async (): Promise<Db> => {
    const made = await connect();
    open.push(made);
    return made;
  };
  /** How many rows each table has, and the hash of them all. */
  const everything = async (of: Db): Promise<Record<string, string>> => {
    const all: Record<string, string> = {};
    for (const table of BACKED_UP) {
      const rows = await of.query<{ r: string }>(`SELECT row_to_json(t)::text AS r FROM ${table} t ORDER BY 1`);
      all[table] = `${rows.length} ${hashOf(rows)}`;
    }
    return all;
  };

  beforeAll(async () => {
    home = await mkdtemp(join(tmpdir(), 'folio-backup-'));
    data = join(home, 'data');
    db = await opened();
    await migrate(db, migrations);
    almanac = (await samples())[0]!;
    const blobs = new FileBlobs(join(data, 'blobs'));
    const documents = new DocumentStore(db, new FontLibrary(db, blobs));
    // The sample's pictures lie in a folder of their own; here it is enough that there are bytes under their names.
    const files: Sample['files'] = new Map();
    for (const path of [...almanac.files.keys()].slice(0, 3)) files.set(path, await blobs.put(Buffer.from(`bytes of ${path}`)));
    id = await documents.add({ folio: almanac.folio, files }, 'almanac.efolio');
    await documents.edit(id, {
      base: 0,
      actor: 'anna',
      edits: waiting([{ kind: 'document.metadata' as const, args: { title: 'Quotes “’ and \u{1f319}\t\\ "' } }]),
    });
    documents.close();
    await new TranslationMemory(db).add('en', 'de', []);
    await new Terms(db).take('en', 'de', [{ source: 'dome', target: 'Kuppel' } as never]);
    await writeFile(join(home, 'page'), 'x');
    await cp(join(home, 'page'), join(data, 'published', 'site-1', '1', 'index.html'), { recursive: true });
  });
  afterAll(async () => {
    for (const d of open) await d.close();
    await rm(home, { recursive: true, force: true });
  });

  test('has every table that there is, or says which it leaves out', async () => {
    const tables = await db.query<{ t: string }>("SELECT table_name AS t FROM information_schema.tables WHERE table_schema = 'public'");
    expect(tables.map((r) => r.t).sort()).toEqual([...BACKED_UP, ...LEFT_OUT].sort());
  });

  test('is restored into an empty folder: the same rows, pictures and published pages; the document opens with its history', async () => {
    const file = join(home, 'all.zip');
    const head = await writeBackup(db, data, file);
    expect([head.tables['folios'], head.tables['edits'], head.blobs, head.sums['published/site-1/1/index.html']]).toEqual([
      1,
      1,
      3,
      expect.stringMatching(/^[0-9a-f]{64}$/),
    ]);
    const [there, empty] = [await opened(), join(home, 'empty')];
    await restoreBackup(there, { data: empty, migrations, file });
    expect(await everything(there)).toEqual(await everything(db));
    const blobs = new FileBlobs(join(empty, 'blobs'));
    const documents = new DocumentStore(there, new FontLibrary(there, blobs));
    expect((await documents.get(id)).folio.head.metadata.title).toContain('\u{1f319}');
    for (const { sha256 } of (await documents.files(id)).values())
      expect(await readFile(blobs.path(sha256))).toEqual(await readFile(new FileBlobs(join(data, 'blobs')).path(sha256)));
    await documents.undo(id, { actor: 'anna', rows: [1] });
    expect((await documents.get(id)).folio.head.metadata.title).toBe(almanac.folio.head.metadata.title);
    documents.close();
    expect(await readFile(join(empty, 'published', 'site-1', '1', 'index.html'), 'utf8')).toBe('x');
    // What is there is not replaced unless that is asked for.
    await expect(restoreBackup(there, { data: empty, migrations, file })).rejects.toThrow(/documents here already/);
    await restoreBackup(there, { data: empty, migrations, file, replace: true });
    expect(await everything(there)).toEqual(await everything(db));
    expect((await readdir(empty)).filter((n) => n.startsWith('.'))).toEqual([]);
  });

  test('that was cut off anywhere, or is something else, changes nothing and says so', async () => {
    const file = join(home, 'whole.zip');
    await writeBackup(db, data, file);
    const before = await everything(db);
    const { size } = await stat(file);
    const bytes = await readFile(file);
    for (const part of [0, 0.1, 0.5, 0.9, 0.999]) {
      const cut = join(home, 'cut.zip');
      await cp(file, cut);
      await truncate(cut, Math.floor(size * part));
      await expect(restoreBackup(db, { data, migrations, file: cut, replace: true })).rejects.toThrow(/damaged|no backup/);
    }
    for (let i = 1; i < 12; i++) {
      const bent = Buffer.from(bytes);
      const at = Math.floor((size * i) / 12);
      bent[at] = bent[at]! ^ 0xff;
      await writeFile(join(home, 'bent.zip'), bent);
      await restoreBackup(db, { data, migrations, file: join(home, 'bent.zip'), replace: true }).then(
        // A byte that says nothing: of a date, or of a name in the local header.
        async () => expect(await everything(db)).toEqual(before),
        (e: Error) => expect(e.message).toMatch(/damaged|no backup|lie outside/),
      );
      expect(await everything(db)).toEqual(before);
    }
    await writeFile(join(home, 'note.zip'), 'hello');
    await expect(restoreBackup(db, { data, migrations, file: join(home, 'note.zip'), replace: true })).rejects.toThrow(/damaged|no backup/);
    await expect(restoreBackup(db, { data, migrations, file: join(home, 'none.zip') })).rejects.toThrow(/There is no file/);
    expect(await everything(db)).toEqual(before);
  });

  test('is written once a day and kept for seven; with a picture missing it says so instead', async () => {
    const written: (string | null)[] = [];
    for (let day = 1; day <= 9; day++)
      for (const hour of [8, 17]) written.push(await backUpDaily(db, data, new Date(Date.UTC(2026, 2, day, hour))));
    expect(written.map((w) => w !== null)).toEqual(Array.from({ length: 18 }, (_, i) => i % 2 === 0));
    expect((await readdir(backupsFolder(data))).sort()).toEqual([3, 4, 5, 6, 7, 8, 9].map((d) => `day-2026-03-0${d}.zip`));
    const [row] = await db.query<{ sha256: string }>('SELECT sha256 FROM files ORDER BY sha256 LIMIT 1');
    await rm(new FileBlobs(join(data, 'blobs')).path(row!.sha256));
    await expect(backUpDaily(db, data, new Date(Date.UTC(2026, 2, 10)))).rejects.toThrow(/missing from the data folder/);
    expect(await readdir(backupsFolder(data))).toHaveLength(7);
  });
});
