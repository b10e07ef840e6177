import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { keptSamples as samples } from '../../core/test/support/keptSamples.ts';
import { FileBlobs } from '@elastic-folio/core/node';
import { PostgresDb } from '../src/database/postgres.ts';
import { migrate } from '../src/database/migrate.ts';
import { DocumentStore } from '../src/documents/documentStore.ts';
import { FontLibrary } from '../src/documents/fontLibrary.ts';
import { RunStore } from '../src/runs/runStore.ts';
import { emptyDatabase, testServer } from './support/databases.ts';
import { waiting } from './support/editRequest.ts';

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
const onServer = testServer() === null ? describe.skip : describe;

onServer('workers of one queue, in processes of their own', () => {
  let data: string;
  let url: string;
  let db: PostgresDb;
  let documents: DocumentStore;
  const workers: ChildProcess[] = [];
  const worker = (): Promise<ChildProcess> =>
    new Promise((resolve, reject) => {
      const child = spawn(process.execPath, [join(root, 'dist', 'worker-process.mjs')], {
        env: { ...process.env, FOLIO_DATA: data, DATABASE_URL: url },
        stdio: ['ignore', 'pipe', 'inherit'],
      });
      workers.push(child);
      child.stdout.once('data', () => resolve(child));
      child.once('exit', (code) => reject(new Error(`the worker ended with ${code}`)));
    });
  beforeAll(async () => {
    data = await mkdtemp(join(tmpdir(), 'folio-workers-'));
    url = await emptyDatabase();
    db = new PostgresDb(url);
    await migrate(db, join(root, 'server', 'migrations'));
    documents = new DocumentStore(db, new FontLibrary(db, new FileBlobs(join(data, 'blobs'))));
  });
  afterAll(async () => {
    for (const child of workers) child.kill('SIGKILL');
    documents.close();
    await db.close();
    await rm(data, { recursive: true, force: true });
  });

  test('what one that is killed was making, another finishes: taken over within 15 s', async () => {
    const handbook = (await samples())[2]!;
    const { folio } = handbook;
    const blobs = new FileBlobs(join(data, 'blobs'));
    for (const { sha256 } of handbook.files.values()) await blobs.put(handbook.blobs.stream(sha256));
    const id = await documents.add({ folio: { ...folio, recipes: {} }, files: handbook.files }, 'handbook.efolio');
    const args = { id: 'pdf', output: 'pdf', version: 1, name: 'PDF', settings: {} };
    await documents.edit(id, { base: 0, actor: 'a', edits: waiting([{ kind: 'recipe.set' as const, args }]) });
    const runs = new RunStore(db);
    const [run] = await runs.ask([{ folio: id, recipe: 'pdf', output: 'pdf', by: 'anna' }]);
    const first = await worker();
    const state = async (): Promise<{ state: string; worker: string | null; attempts: number }> =>
      (
        await db.query<{ state: string; worker: string | null; attempts: number }>(
          'SELECT state, worker, attempts FROM runs WHERE id = $1',
          [run!.id],
        )
      )[0]!;
    const until = async (ok: (s: Awaited<ReturnType<typeof state>>) => boolean, seconds: number): Promise<number> => {
      const began = Date.now();
      for (;;) {
        const now = await state();
        if (ok(now)) return Date.now() - began;
        if (Date.now() - began > seconds * 1000) throw new Error(`It did not come to this: ${JSON.stringify(now)}`);
        await new Promise((r) => setTimeout(r, 50));
      }
    };
    await until((s) => s.state === 'running', 20);
    const { worker: had } = await state();
    const gone = new Promise((resolve) => first.once('exit', resolve));
    first.kill('SIGKILL');
    await gone;
    await worker();
    // Ten silent seconds and five between looks, and what a busy machine adds.
    expect(await until((s) => s.worker !== null && s.worker !== had, 30)).toBeLessThan(20_000);
    await until((s) => s.state !== 'running' && s.state !== 'waiting', 120);
    expect(await state()).toMatchObject({ state: 'done', attempts: 2 });
  });
});
