import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import PgBoss from 'pg-boss';
import { readSettings, writerById } from '@elastic-folio/core/write';
import { inEdition } from '@elastic-folio/core/language';
import { FolioError } from '@elastic-folio/core/node';
import type { LoadedFolio } from '@elastic-folio/core/read';
import type { ConversionPool } from '../conversion/pool.ts';
import type { EmbeddedDb } from '../database/embedded.ts';
import type { Db } from '../database/db.ts';
import type { DocumentStore } from '../documents/documentStore.ts';
import type { EventHub } from '../events.ts';
import { inputHash, isOfEditions } from './inputHash.ts';
import type { Run } from '@elastic-folio/core/api';
import type { TranslationMemory } from '../languages/translationMemory.ts';
import type { RunStore } from './runStore.ts';

const QUEUE = 'convert';
/** How often progress is written and a request to stop is looked for. */
const BEAT_MS = 250;

/** The embedded database as pg-boss wants it: its set-up scripts hold several statements, its queries give rows. */
const queueOn = (db: EmbeddedDb) => ({
  async executeSql(text: string, values: unknown[] = []): Promise<{ rows: unknown[] }> {
    const script = !values.length && !/^\s*(select|with|update|insert|delete)\b/i.test(text);
    if (!script) return { rows: await db.query(text, values) };
    await db.exec(text);
    return { rows: [] };
  },
});

export interface RunnerPaths {
  blobs: string;
  derived: string;
  results: string;
  player: string;
}

/** Documents as they can be sent to a thread. */
export const sent = (others: ReadonlyMap<string, LoadedFolio>): Parameters<ConversionPool['convert']>[0]['others'] =>
  [...others].map(([id, { folio, files, library = [] }]) => [id, { folio, files: [...files], library }] as const);

/** Takes runs from the queue and has them made by worker threads. */
export class Runner {
  private boss: PgBoss | null = null;
  private readonly going = new Map<string, () => void>();

  constructor(
    private readonly documents: DocumentStore,
    private readonly runs: RunStore,
    private readonly pool: ConversionPool,
    private readonly events: EventHub,
    private readonly paths: RunnerPaths,
    private readonly memory: TranslationMemory,
  ) {}

  /** Starts the queue; runs that a stopped server left are taken up again. */
  async start(db: Db, databaseUrl: string | undefined): Promise<void> {
    this.boss = databaseUrl
      ? new PgBoss({ connectionString: databaseUrl, schedule: false })
      : new PgBoss({ db: queueOn(db as EmbeddedDb), schedule: false });
    this.boss.on('error', (error) => console.error(`The job queue reports: ${error.message}`));
    await this.boss.start();
    await this.boss.createQueue(QUEUE);
    for (const id of await this.runs.recover(!databaseUrl)) await this.enqueue(id);
    for (let i = 0; i < 2; i++)
      await this.boss.work<{ run: string }>(QUEUE, { pollingIntervalSeconds: 0.5, batchSize: 1 }, async (jobs) => {
        for (const job of jobs) await this.make(job.data.run);
      });
  }

  async enqueue(run: string): Promise<void> {
    await this.boss!.send(QUEUE, { run }, { retryLimit: 0, expireInSeconds: 3600 });
  }

  /** Stops a run: at once if it waits, within a page if it is being made. */
  async cancel(id: string): Promise<Run | null> {
    const run = await this.runs.cancel(id);
    this.going.get(id)?.();
    if (run) this.tell(run);
    return run;
  }

  private tell(run: Run | null): void {
    if (run) this.events.tell({ type: 'run', folio: run.folio, run });
  }

  private async make(id: string): Promise<void> {
    const waiting = await this.runs.get(id);
    if (waiting?.state !== 'waiting') return;
    try {
      const { folio: document, files, library = [], others = new Map<string, LoadedFolio>() } = await this.documents.loaded(waiting.folio);
      const recipe = document.recipes[waiting.recipe];
      const writer = recipe && writerById(recipe.output);
      if (!recipe || !writer) throw new FolioError('recipe.none', 'The recipe of this output has been removed.', 'Add the output again.');
      const settings = readSettings(writer, recipe);
      const folio = recipe.edition === undefined ? document : inEdition(document, recipe.edition);
      const memory =
        writer.view === 'texts' ? await this.memory.of(folio.head.metadata.language, settings as { source: string; target: string }) : [];
      const run = await this.runs.claim(id, inputHash(await this.documents.contentHash(waiting.folio, isOfEditions(recipe)), recipe));
      if (!run) return;
      this.tell(run);
      await this.convert(run, { folio, files: [...files], library, others: sent(others), output: writer.id, settings, memory });
    } catch (error) {
      const known = error instanceof FolioError ? error : null;
      if (!known) console.error(error);
      this.tell(
        await this.runs.fail(id, known?.message ?? 'Something went wrong while this was being made.', known?.advice ?? 'Try again.'),
      );
    }
  }

  private async convert(
    run: Run,
    input: Pick<Parameters<ConversionPool['convert']>[0], 'folio' | 'files' | 'library' | 'others' | 'output' | 'settings' | 'memory'>,
  ): Promise<void> {
    const folder = join(this.paths.results, run.id);
    let latest = { done: 0, total: 0 };
    const { outcome, stop } = this.pool.convert(
      { ...input, blobs: this.paths.blobs, derived: this.paths.derived, player: this.paths.player, folder, at: run.createdAt },
      (p) => (latest = p),
    );
    this.going.set(run.id, stop);
    // Progress and the wish to stop go through the database, so that any process may show and stop it.
    const beat = async (): Promise<void> => {
      const state = await this.runs.beat(run.id, latest.done, latest.total);
      if (state?.cancel) stop();
      if (state) this.tell(state.run);
    };
    const timer = setInterval(() => void beat().catch(() => undefined), BEAT_MS);
    const result = await outcome.finally(() => {
      clearInterval(timer);
      this.going.delete(run.id);
    });
    await this.runs.beat(run.id, latest.done, latest.total);
    if ('failure' in result) return this.tell(await this.runs.fail(run.id, result.failure.message, result.failure.advice));
    const done =
      'ok' in result ? await this.runs.finish(run.id, { counts: result.ok.counts, valid: result.ok.valid, files: result.ok.files }) : null;
    if (done) return this.tell(done);
    await rm(folder, { recursive: true, force: true });
    this.tell(await this.runs.cancelled(run.id));
  }

  async close(): Promise<void> {
    for (const stop of this.going.values()) stop();
    await this.boss?.stop({ graceful: false });
  }
}
