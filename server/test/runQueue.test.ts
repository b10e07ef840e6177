import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { keptSamples as samples } from '../../core/test/support/keptSamples.ts';
import type { Sample } from '@elastic-folio/demo';
import { FileBlobs } from '@elastic-folio/core/node';
import type { Run } from '@elastic-folio/core/api';
import type { ConversionPool } from '../src/conversion/pool.ts';
import { SLOTS } from '../src/conversion/pool.ts';
import type { Conversion, Outcome } from '../src/conversion/tasks.ts';
import type { Db } from '../src/database/db.ts';
import { migrate } from '../src/database/migrate.ts';
import { DocumentStore } from '../src/documents/documentStore.ts';
import { FontLibrary } from '../src/documents/fontLibrary.ts';
import { EventHub } from '../src/events.ts';
import { TranslationMemory } from '../src/languages/translationMemory.ts';
import { outputStates } from '../src/runs/outputStates.ts';
import { Runner } from '../src/runs/runner.ts';
import { RunStore } from '../src/runs/runStore.ts';
import type { Claimed } from '../src/runs/runStore.ts';
import { waiting } from './support/editRequest.ts';
import { databaseKinds } from './support/databases.ts';

const migrations = join(dirname(dirname(fileURLToPath(import.meta.url))), 'migrations');

/** A pool that makes nothing by itself: what it was given is ended by hand, or by being stopped. */
class PoolByHand {
  readonly given: { output: string; end: (outcome: Outcome<Conversion>) => void }[] = [];
  convert({ output }: { output: string }): { outcome: Promise<Outcome<Conversion>>; stop: () => void } {
    let end!: (outcome: Outcome<Conversion>) => void;
    const outcome = new Promise<Outcome<Conversion>>((resolve) => (end = resolve));
    this.given.push({ output, end });
    return { outcome, stop: () => end({ cancelled: true }) };
  }
}
const made: Outcome<Conversion> = {
  ok: { files: [], ledger: [], counts: { kept: 1, adapted: 0, dropped: 0, excluded: 0 }, valid: true } as unknown as Conversion,
};

describe.each(databaseKinds())('the queue on the %s database', (_name, connect) => {
  let db: Db;
  let documents: DocumentStore;
  let runs: RunStore;
  let folder: string;
  let published: Run[];
  let flyer: Sample;
  const runners: Runner[] = [];
  beforeAll(async () => {
    folder = await mkdtemp(join(tmpdir(), 'folio-queue-'));
    flyer = (await samples())[1]!;
    db = await connect();
    await migrate(db, migrations);
    documents = new DocumentStore(db, new FontLibrary(db, new FileBlobs(join(folder, 'blobs'))));
    runs = new RunStore(db);
  });
  beforeEach(async () => {
    await db.query('DELETE FROM runs');
    published = [];
  });
  afterEach(async () => {
    for (const made of runners.splice(0)) await made.close();
  });
  afterAll(async () => {
    documents.close();
    await db.close();
    await rm(folder, { recursive: true, force: true });
  });

  const OUTPUTS = ['html', 'pdf', 'docx', 'odt', 'pptx'];
  const add = async (): Promise<string> => {
    const id = await documents.add({ folio: { ...flyer.folio, recipes: {} }, files: flyer.files }, 'flyer.efolio');
    const recipes = OUTPUTS.map((output) => ({
      kind: 'recipe.set' as const,
      args: { id: output, output, version: 1, name: output, settings: {} },
    }));
    await documents.edit(id, { base: 0, actor: 'a', edits: waiting(recipes) });
    return id;
  };
  const asked = (folio: string, recipe: string, by = 'anna') => ({ folio, recipe, output: recipe, by });
  const runner = (pool: PoolByHand, events = new EventHub()): Runner => {
    const made = new Runner(
      documents,
      runs,
      pool as unknown as ConversionPool,
      events,
      { blobs: '', derived: '', results: join(folder, 'results'), player: '' },
      new TranslationMemory(db),
      async (run) => void published.push(run),
    );
    runners.push(made);
    return made;
  };
  const until = async <T>(look: () => Promise<T | false> | T | false): Promise<T> => {
    for (let i = 0; i < 400; i++) {
      const seen = await look();
      if (seen !== false) return seen;
      await new Promise((r) => setTimeout(r, 25));
    }
    throw new Error('It did not come to this.');
  };
  /** As if the worker that holds a run had given no sign of life for so long. */
  const silent = (id: string, seconds: number): Promise<unknown> =>
    db.query("UPDATE runs SET heartbeat_at = now() - $2 * interval '1 second' WHERE id = $1", [id, seconds]);

  test('people and documents have their turns one after another, and the slot beyond the usual ones is for other documents', async () => {
    const [large, small] = [await add(), await add()];
    await runs.ask(OUTPUTS.map((o) => asked(large, o)));
    const first = (await runs.claim('w', true))!;
    await runs.ask([asked(small, 'pdf', 'ben'), asked(small, 'html', 'anna')]);
    // Ben has nothing in the making, then the document of which nothing is made.
    const next = [(await runs.claim('w', true))!, (await runs.claim('w', true))!].map((c) => [c.run.folio, c.run.recipe]);
    expect([first.run.folio, next]).toEqual([large, [[small, 'pdf'], expect.anything()]]);
    expect(await runs.claim('w', false)).toBeNull();
    const third = await add();
    await runs.ask([asked(third, 'odt')]);
    expect((await runs.claim('w', false))?.run.folio).toBe(third);
  });

  test('a run is in one pair of hands: whoever lost it changes nothing any more', async () => {
    const [run] = await runs.ask([asked(await add(), 'pdf')]);
    const lost = (await runs.claim('slow', true))!;
    expect(await runs.claim('other', true)).toBeNull();
    await silent(run!.id, 11);
    await runs.takeOver([], false);
    const taken = (await runs.claim('other', true))!;
    expect([taken.run.id, taken.attempt]).toEqual([run!.id, 2]);
    const result = { counts: null, valid: true, files: [] };
    for (const said of [runs.beat(lost, 1, 1), runs.finish(lost, result), runs.fail(lost, 'm', 'a'), runs.release(lost)])
      expect(await said).toBeNull();
    expect(await runs.finish(taken, result)).toMatchObject({ state: 'done' });
  });

  test('what killed workers left is taken over after ten silent seconds, twice, and then has failed with a reason', async () => {
    const [run] = await runs.ask([asked(await add(), 'pdf')]);
    const { id } = run!;
    for (let attempt = 1; attempt <= 3; attempt++) {
      expect((await runs.claim('w', true))?.attempt).toBe(attempt);
      await silent(id, 8);
      expect(await runs.takeOver([], false)).toEqual([]);
      await silent(id, 11);
      expect(await runs.takeOver([id], false)).toEqual([]);
      const [left] = await runs.takeOver([], false);
      expect(left).toMatchObject({ id, state: attempt < 3 ? 'waiting' : 'failed' });
    }
    expect((await runs.get(id))!.message).toMatch(/stopped three times/);
  });

  test('cancel ends a run wherever it is: waiting, or left by a killed worker at once, or by whoever takes that over', async () => {
    const document = await add();
    const [waits] = await runs.ask([asked(document, 'pdf')]);
    expect(await runs.cancel(waits!.id)).toMatchObject({ state: 'cancelled' });
    expect(await runs.claim('w', true)).toBeNull();
    const [left] = await runs.ask([asked(document, 'pdf')]);
    await runs.claim('w', true);
    await silent(left!.id, 60);
    expect(await runs.cancel(left!.id)).toMatchObject({ state: 'cancelled' });
    const [killed] = await runs.ask([asked(document, 'pdf')]);
    await runs.claim('w', true);
    expect(await runs.cancel(killed!.id)).toMatchObject({ state: 'running' });
    await silent(killed!.id, 11);
    expect(await runs.takeOver([], false)).toMatchObject([{ id: killed!.id, state: 'cancelled' }]);
  });

  test('one request refreshes everything that is older than the document, and nothing twice; it is made after a restart, too', async () => {
    const document = await add();
    const pool = new PoolByHand();
    const desk = runner(pool);
    await desk.start(true);
    await desk.ask(OUTPUTS.map((o) => asked(document, o)));
    for (let i = 0; i < OUTPUTS.length; i++) (await until(() => pool.given[i] ?? false)).end(made);
    await until(async () => (await runs.list(document)).every((r) => r.state === 'done') || false);
    expect(await desk.refresh(document, 'anna')).toEqual([]);
    const type = (title: string) =>
      documents.edit(document, { base: 100, actor: 'a', edits: waiting([{ kind: 'document.metadata' as const, args: { title } }]) });
    await type('Changed');
    expect(await desk.refresh(document, 'anna')).toHaveLength(OUTPUTS.length);
    expect(await desk.refresh(document, 'anna')).toEqual([]);
    await until(() => pool.given.length === OUTPUTS.length + SLOTS || false);
    await until(
      async () => (await runs.list(document)).filter((r) => r.state === 'running' && r.inputHash !== '').length === SLOTS || false,
    );
    // What is being made of an older text is asked for once more.
    await type('Changed again');
    expect(await desk.refresh(document, 'anna')).toHaveLength(SLOTS);
    await desk.close();
    const left = await runs.list(document);
    expect(left.filter((r) => r.state === 'running')).toEqual([]);
    const next = new PoolByHand();
    const again = runner(next);
    await again.start(true);
    const all = left.filter((r) => r.state === 'waiting').length;
    for (let i = 0; i < all; i++) (await until(() => next.given[i] ?? false)).end(made);
    await until(async () => (await runs.list(document)).every((r) => r.state === 'done') || false);
    expect((await outputStates(documents, runs, document)).map((o) => o.state)).toEqual(OUTPUTS.map(() => 'fresh'));
    await again.close();
  });

  test('a result is found however many runs have failed after it, those that wait as well', async () => {
    const id = await documents.add(flyer, 'flyer.efolio');
    const run = (name: string, recipe: string, state: string, minutes: number) =>
      db.query(
        "INSERT INTO runs (id, owner, folio, recipe, output, state, created_at) VALUES ($1, 'desk', $2, $3, 'pdf', $4, now() - make_interval(mins => $5))",
        [name, id, recipe, state, minutes],
      );
    await run('done', 'a', 'done', 900);
    for (let i = 0; i < 220; i++) await run(`failed${i}`, 'a', 'failed', 800 - i);
    await run('waits', 'a', 'waiting', 850);
    await run('other', 'b', 'cancelled', 5);
    expect((await runs.newestOf([id, 'none'])).map((r) => r.id)).toEqual(['other', 'failed219', 'waits', 'done']);
    expect(await runs.newestOf([])).toEqual([]);
    await documents.remove(id);
  });

  test('a run that is being made is stopped by cancel; one that asks for it is published when it is there', async () => {
    const document = await add();
    const pool = new PoolByHand();
    const told: string[] = [];
    const events = new EventHub().on('event', (e) => void (e.type === 'run' && told.push(e.run.state)));
    const desk = runner(pool, events);
    await desk.start(true);
    const [stopped] = await desk.ask([asked(document, 'pdf')]);
    await until(() => pool.given.length === 1 || false);
    await desk.cancel(stopped!.id);
    await until(async () => (await runs.get(stopped!.id))!.state === 'cancelled' || false);
    await until(() => told.at(-1) === 'cancelled' || false);
    expect([...new Set(told)]).toEqual(['waiting', 'running', 'cancelled']);
    const [run] = await desk.ask([{ ...asked(document, 'html'), publish: true }]);
    (await until(() => pool.given[1] ?? false)).end(made);
    await until(() => published.length === 1 || false);
    expect(published).toMatchObject([{ id: run!.id, state: 'done' }]);
    await desk.close();
  });

  test('several workers take every run once', async () => {
    const document = await add();
    const all = await runs.ask(OUTPUTS.map((o) => asked(document, o)));
    const claims = await Promise.all(Array.from({ length: 12 }, (_, i) => runs.claim(`w${i}`, true)));
    const first = claims.filter((c): c is Claimed => c !== null);
    const rest: Claimed[] = [];
    for (let c = await runs.claim('late', true); c; c = await runs.claim('late', true)) rest.push(c);
    expect([...first, ...rest].map((c) => c.run.id).sort()).toEqual(all.map((r) => r.id).sort());
  });
});
