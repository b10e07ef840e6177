import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { readConfig } from '../src/config.ts';
import { FileBlobs } from '@elastic-folio/core/node';
import type { ConversionPool } from '../src/conversion/pool.ts';
import { readFile } from '../src/documents/importDocument.ts';
import type { Db, Query } from '../src/database/db.ts';
import { sweep } from '../src/documents/sweep.ts';
import { inputHash } from '../src/runs/inputHash.ts';

describe('settings from the environment', () => {
  test('have the documented defaults, and results on the next port', () => {
    const config = readConfig({});
    expect([config.port, config.resultPort, config.databaseUrl]).toEqual([4610, 4611, undefined]);
    expect(config.data).toBe(join(config.root, 'data'));
  });
  test('PORT, FOLIO_DATA and DATABASE_URL are honoured', () => {
    const config = readConfig({ PORT: '8000', FOLIO_DATA: '/srv/folio', DATABASE_URL: 'postgres://a/b' });
    expect([config.port, config.resultPort, config.data, config.databaseUrl]).toEqual([8000, 8001, '/srv/folio', 'postgres://a/b']);
    expect(readConfig({ DATABASE_URL: '' }).databaseUrl).toBeUndefined();
  });
  test.each(['0', '65535', '-1', '80.5', 'http', ''])('PORT %j is refused with a sentence', (port) => {
    expect(() => readConfig({ PORT: port })).toThrow(/PORT must be a number/);
  });
});

describe('whether a result is fresh', () => {
  const recipe = { output: 'pdf', settings: { quality: 80, pages: '1-2' } };
  test('depends on document, output and settings, not on how these are ordered or named', () => {
    const hash = inputHash('content', recipe);
    expect(inputHash('content', { output: 'pdf', settings: { ...recipe.settings } })).toBe(hash);
    expect(inputHash('other', recipe)).not.toBe(hash);
    expect(inputHash('content', { ...recipe, output: 'html' })).not.toBe(hash);
    expect(inputHash('content', { ...recipe, settings: { quality: 81, pages: '1-2' } })).not.toBe(hash);
  });
});

test('a document without a picture comes into a data folder that holds nothing yet', async () => {
  const data = await mkdtemp(join(tmpdir(), 'folio-empty-'));
  const pool = { read: async () => ({ ok: { folio: {}, files: [] } }) } as unknown as ConversionPool;
  const blobs = new FileBlobs(join(data, 'blobs'));
  expect((await readFile('a.odg', 'a.odg', join(data, 'staging'), blobs, pool)).files.size).toBe(0);
  await rm(data, { recursive: true });
});

describe('what nothing refers to any more', () => {
  let data: string;
  beforeAll(async () => {
    data = await mkdtemp(join(tmpdir(), 'folio-sweep-'));
  });
  afterAll(() => rm(data, { recursive: true, force: true }));

  test('goes after a day of grace; what is referred to, and what is new, stays', async () => {
    const old = new Date(Date.now() - 25 * 3600_000);
    const make = async (path: string, when?: Date): Promise<void> => {
      await mkdir(join(data, path, '..'), { recursive: true });
      await writeFile(join(data, path), 'x');
      if (when) await utimes(join(data, path), when, when);
    };
    await make('blobs/aa/aa-kept', old);
    await make('blobs/aa/aa-lost', old);
    await make('blobs/bb/bb-new');
    for (const run of ['run-kept', 'run-lost']) {
      await make(`results/${run}/document.pdf`);
      await utimes(join(data, 'results', run), old, old);
    }
    await make('incoming/up-broken/upload');
    await utimes(join(data, 'incoming', 'up-broken'), old, old);
    const query = (async (sql: string) => (sql.includes('files') ? [{ sha256: 'aa-kept' }] : [{ id: 'run-kept' }])) as Query;
    const db = { query } as unknown as Db;
    expect(await sweep(db, data)).toBe(3);
    const there = ['blobs/aa/aa-kept', 'blobs/aa/aa-lost', 'blobs/bb/bb-new', 'results/run-kept', 'results/run-lost', 'incoming/up-broken'];
    expect(there.map((p) => existsSync(join(data, p)))).toEqual([true, false, true, true, false, false]);
    expect(await sweep(db, join(data, 'not-there'))).toBe(0);
    // Nobody else is there: what was left half done goes at once, and nothing else does.
    const half = ['incoming/sample-a', 'sample-x1', '.restore-1', 'results/run-kept.part', 'backups/.backup-1', 'blobs/tmp/half'];
    for (const path of [...half, 'backups/day-2026-03-01.zip']) await make(`${path}/file`);
    expect(await sweep(db, data)).toBe(0);
    expect(await sweep(db, data, { alone: true })).toBe(half.length);
    expect([...half, 'backups/day-2026-03-01.zip', 'results/run-kept'].filter((p) => existsSync(join(data, p)))).toEqual([
      'backups/day-2026-03-01.zip',
      'results/run-kept',
    ]);
  });
});
