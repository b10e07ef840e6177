import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { SYNCED_START, SyncedFiles } from '../src/database/syncedFiles.ts';
import { Random } from '../../campaign/random.ts';
import { LossyFiles } from './support/lossyFiles.ts';

function contentOf(folder: string): { files: Map<string, Uint8Array>; folders: string[] } {
  const files = new Map<string, Uint8Array>();
  const folders: string[] = [];
  const walk = (at: string): void => {
    for (const entry of readdirSync(at, { withFileTypes: true })) {
      const path = join(at, entry.name);
      if (entry.isDirectory()) {
        folders.push(relative(folder, path));
        walk(path);
      } else files.set(relative(folder, path), readFileSync(path));
    }
  };
  walk(folder);
  return { files, folders };
}

describe('a power cut', () => {
  let home: string;
  beforeAll(() => {
    home = mkdtempSync(join(tmpdir(), 'folio-power-'));
  });
  afterAll(() => rmSync(home, { recursive: true, force: true }));

  test('takes nothing that was confirmed, whichever unsynced writes it loses, and the database opens again', async () => {
    const base = join(home, 'base');
    const first = await PGlite.create({ fs: new SyncedFiles(base), startParams: SYNCED_START });
    await first.exec('CREATE TABLE edits (n integer PRIMARY KEY, text text)');
    await first.close();
    const { files: start, folders } = contentOf(base);
    const work = join(home, 'work');
    cpSync(base, work, { recursive: true });
    const lossy = new LossyFiles(work);
    const db = await PGlite.create({ fs: lossy, startParams: SYNCED_START });
    // Which edits were confirmed after how many steps.
    const confirmed: { steps: number; n: number }[] = [];
    for (let n = 1; n <= 60; n++) {
      await db.query('INSERT INTO edits VALUES ($1, $2)', [n, 'x'.repeat(1000)]);
      if (n % 3 === 0) await db.query('UPDATE edits SET text = $2 WHERE n = $1', [n - 1, `changed ${n}`]);
      confirmed.push({ steps: lossy.steps.length, n });
      if (n === 30) await db.exec('CHECKPOINT');
    }
    await db.close();
    expect(lossy.steps.filter((s) => s.kind === 'sync').length).toBeGreaterThan(60);
    const random = new Random(24);
    const cuts = [confirmed[4]!.steps, confirmed[29]!.steps, confirmed[30]!.steps, confirmed[59]!.steps];
    for (let i = 0; i < 2; i++) cuts.push(random.below(lossy.steps.length));
    for (const [i, cut] of cuts.entries()) {
      const folder = join(home, `cut-${i}`);
      for (const f of folders) mkdirSync(join(folder, f), { recursive: true });
      // Half of the cuts lose everything that was not synced, the others some of it.
      LossyFiles.rebuild(start, lossy.steps.slice(0, cut), folder, i % 2 ? () => random.next() < 0.5 : () => false);
      const again = await PGlite.create({ fs: new SyncedFiles(folder), startParams: SYNCED_START });
      const { rows } = await again.query<{ n: number; text: string }>('SELECT n, text FROM edits ORDER BY n');
      await again.close();
      const kept = confirmed.filter((c) => c.steps <= cut).map((c) => c.n);
      expect({ cut, rows: rows.map((r) => r.n).slice(0, kept.length) }).toEqual({ cut, rows: kept });
      // At most the edit that was on its way is there besides.
      expect(rows.length - kept.length).toBeLessThanOrEqual(1);
      for (const n of kept.filter((k) => k % 3 === 0)) expect(rows[n - 2]!.text).toBe(`changed ${n}`);
      rmSync(folder, { recursive: true });
    }
  });

  test('is noticed by this test: with the file system as it comes, edits are lost', async () => {
    const base = join(home, 'unsynced');
    await (await PGlite.create(base)).close();
    const { files: start, folders } = contentOf(base);
    class Unsynced extends LossyFiles {
      protected override prepare(files: Parameters<LossyFiles['prepare']>[0]): void {
        super.prepare(files);
        delete files.stream_ops.fsync;
      }
    }
    const lossy = new Unsynced(base);
    const db = await PGlite.create({ fs: lossy });
    await db.exec('CREATE TABLE edits (n integer PRIMARY KEY)');
    await db.exec('INSERT INTO edits VALUES (1)');
    const steps = [...lossy.steps];
    await db.close();
    const folder = join(home, 'unsynced-cut');
    for (const f of folders) mkdirSync(join(folder, f), { recursive: true });
    LossyFiles.rebuild(start, steps, folder, () => false);
    // It does not even open, or knows nothing of the edit.
    const found = PGlite.create(folder).then((again) => again.query('SELECT n FROM edits').finally(() => again.close()));
    await expect(found).rejects.toThrow(/does not exist|failed to initialize/);
  });
});
