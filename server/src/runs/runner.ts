import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { writerById } from '@elastic-folio/core/write';
import { FolioError } from '@elastic-folio/core/node';
import { SLOTS } from '../conversion/pool.ts';
import type { ConversionPool } from '../conversion/pool.ts';
import type { DocumentStore } from '../documents/documentStore.ts';
import type { EventHub } from '../events.ts';
import { inputHash, isOfEditions } from './inputHash.ts';
import type { Run } from '@elastic-folio/core/api';
import type { TranslationMemory } from '../languages/translationMemory.ts';
import { outputStates } from './outputStates.ts';
import type { Asked, Claimed, RunStore } from './runStore.ts';
import { recipeOf, runInput } from './runInput.ts';
import type { RunInput } from './runInput.ts';

/** How often progress is looked at, and at least written as a sign of life. */
const LOOK_MS = 250;
const BEAT_MS = 2000;
/** How often what killed workers left is taken over, and how often runs are looked for that others have asked for. */
const SWEEP_MS = 5000;
const POLL_MS = 1000;
/** How long a worker that ends waits for its threads to let go. */
const LET_GO_MS = 8000;

export interface RunnerPaths {
  blobs: string;
  derived: string;
  results: string;
  player: string;
}

interface Making {
  stop: () => void;
  ended: Promise<void>;
}

/**
 * Takes runs from the queue and has them made by worker threads. One slot beyond the usual ones is for documents of which nothing
 * is being made, so that a short run is not behind twenty long ones of another document.
 */
export class Runner {
  /** This process among those that take from the queue. */
  private readonly worker = randomUUID();
  private readonly making = new Map<string, Making>();
  private readonly timers: NodeJS.Timeout[] = [];
  private readonly told = new Map<string, string>();
  private filling = false;
  private asked = false;
  private ending = false;

  constructor(
    private readonly documents: DocumentStore,
    private readonly runs: RunStore,
    private readonly pool: ConversionPool,
    private readonly events: EventHub,
    private readonly paths: RunnerPaths,
    private readonly memory: TranslationMemory,
    /** Publishes the result of a run that asks for it. */
    private readonly publish: (run: Run) => Promise<void>,
  ) {}

  /** Starts to take runs; those that a stopped server left are taken up again. `alone`: no other process takes any. */
  async start(alone: boolean): Promise<void> {
    await this.runs.takeOver([], alone);
    this.every(SWEEP_MS, async () => {
      for (const run of await this.runs.takeOver([...this.making.keys()], alone)) this.tell(run);
      await this.fill();
    });
    if (!alone)
      this.every(POLL_MS, async () => {
        await this.tellOfOthers();
        await this.fill();
      });
    this.wake();
  }

  /** Asks for outputs, all of them or none. */
  async ask(asked: readonly Asked[]): Promise<Run[]> {
    const runs = await this.runs.ask(asked);
    for (const run of runs) this.tell(run);
    this.wake();
    return runs;
  }

  /** Asks for every output of a document whose result is older than the document, unless it is on its way. */
  async refresh(folio: string, by: string): Promise<Run[]> {
    const outputs = await outputStates(this.documents, this.runs, folio);
    // What was never made nobody has missed yet; what is being made of an older text is made once more.
    const stale = outputs.filter((o) => (o.state === 'stale' || o.state === 'running') && !o.upToDateSoon && writerById(o.output));
    return this.ask(stale.map(({ recipe, output }) => ({ folio, recipe, output, by })));
  }

  /** Stops a run: at once if it waits or its worker is gone, otherwise within a page, and in any case within seconds. */
  async cancel(id: string): Promise<Run | null> {
    const run = await this.runs.cancel(id);
    this.making.get(id)?.stop();
    this.tell(run);
    return run;
  }

  async close(): Promise<void> {
    this.ending = true;
    for (const timer of this.timers) clearInterval(timer);
    const all = [...this.making.values()];
    for (const { stop } of all) stop();
    let late: NodeJS.Timeout | undefined;
    await Promise.race([Promise.all(all.map((m) => m.ended)), new Promise((r) => (late = setTimeout(r, LET_GO_MS)))]);
    clearTimeout(late);
  }

  private every(ms: number, work: () => Promise<void>): void {
    let busy = false;
    const timer = setInterval(() => {
      if (busy) return;
      busy = true;
      void work()
        .catch((error: Error) => console.error(`The queue could not be looked through: ${error.message}`))
        .finally(() => (busy = false));
    }, ms);
    this.timers.push(timer.unref());
  }

  private wake(): void {
    void this.fill().catch((error: Error) => console.error(`No run could be taken: ${error.message}`));
  }

  /** Takes runs until every slot is in use or nothing waits. */
  private async fill(): Promise<void> {
    this.asked = true;
    if (this.filling) return;
    this.filling = true;
    try {
      while (this.asked) {
        this.asked = false;
        while (!this.ending && this.making.size <= SLOTS) {
          const claimed = await this.runs.claim(this.worker, this.making.size < SLOTS);
          if (!claimed) break;
          this.begin(claimed);
        }
      }
    } finally {
      this.filling = false;
    }
  }

  private begin(claimed: Claimed): void {
    const { run } = claimed;
    const stopping = new AbortController();
    const ended = this.make(claimed, stopping.signal)
      .catch((error: Error) => console.error(`How a run ended could not be written: ${error.message}`))
      .finally(() => {
        this.making.delete(run.id);
        if (!this.ending) this.wake();
      });
    this.making.set(run.id, { stop: () => stopping.abort(), ended });
    this.tell(run);
  }

  private tell(run: Run | null): void {
    if (run) this.events.tell({ type: 'run', folio: run.folio, run });
  }

  /** Tells of runs that other processes make. */
  private async tellOfOthers(): Promise<void> {
    const open = await this.runs.open();
    const now = new Map(open.filter((r) => !this.making.has(r.id)).map((r) => [r.id, r]));
    for (const id of this.told.keys())
      if (!now.has(id)) {
        this.told.delete(id);
        if (!this.making.has(id)) this.tell(await this.runs.get(id));
      }
    for (const [id, run] of now) {
      const text = JSON.stringify(run);
      if (this.told.get(id) !== text) this.tell(run);
      this.told.set(id, text);
    }
  }

  private async make(claimed: Claimed, stopping: AbortSignal): Promise<void> {
    const { run } = claimed;
    try {
      // What a result is made of is said before the document is read: at worst it counts as older than it is.
      const asked = await recipeOf(this.documents, run.folio, run.recipe);
      const { recipe } = asked;
      const content = await this.documents.contentHash(run.folio, isOfEditions(recipe));
      const input = await runInput(this.documents, this.memory, run.folio, asked);
      const begun = await this.runs.begin(claimed, inputHash(content, recipe));
      if (!begun) return;
      this.tell(begun);
      await this.convert(claimed, stopping, input);
    } catch (error) {
      const known = error instanceof FolioError ? error : null;
      if (!known) console.error(error);
      this.tell(
        await this.runs.fail(claimed, known?.message ?? 'Something went wrong while this was being made.', known?.advice ?? 'Try again.'),
      );
    }
  }

  private async convert(claimed: Claimed, stopping: AbortSignal, input: RunInput): Promise<void> {
    const { run } = claimed;
    const folder = join(this.paths.results, run.id);
    let latest = { done: 0, total: 0 };
    const { outcome, stop } = this.pool.convert(
      { ...input, blobs: this.paths.blobs, derived: this.paths.derived, player: this.paths.player, folder, at: run.createdAt },
      (p) => (latest = p),
    );
    if (stopping.aborted) stop();
    stopping.addEventListener('abort', stop);
    const beating = this.beats(claimed, () => latest, stop);
    const result = await outcome.finally(beating);
    await this.runs.beat(claimed, latest.done, latest.total);
    if ('failure' in result) return this.tell(await this.runs.fail(claimed, result.failure.message, result.failure.advice));
    if ('ok' in result) {
      const done = await this.runs.finish(claimed, { counts: result.ok.counts, valid: result.ok.valid, files: result.ok.files });
      if (done) return this.done(done);
    }
    const ended = await this.runs.cancelled(claimed);
    if (ended) await rm(folder, { recursive: true, force: true });
    // Stopped, and nobody has asked for that: the program ends, and whoever comes next makes it.
    this.tell(ended ?? (await this.runs.release(claimed)));
  }

  private async done(run: Run): Promise<void> {
    this.tell(run);
    if (!run.publish) return;
    try {
      await this.publish(run);
      this.tell(run);
    } catch (error) {
      const known = error instanceof FolioError ? error : null;
      if (!known) console.error(error);
      const [message, advice] = known ? [known.message, known.advice] : ['It is made, but could not be published.', 'Publish it by hand.'];
      this.tell(await this.runs.remark(run.id, message, advice));
    }
  }

  /** Writes progress and signs of life while a run is made, and passes on the wish to stop. Gives what ends it. */
  private beats(claimed: Claimed, latest: () => { done: number; total: number }, stop: () => void): () => void {
    let [written, at, busy] = ['', Date.now(), false];
    const beat = async (): Promise<void> => {
      const { done, total } = latest();
      const moved = `${done}/${total}`;
      if (busy || (moved === written && Date.now() - at < BEAT_MS)) return;
      busy = true;
      try {
        const state = await this.runs.beat(claimed, done, total);
        // Others have taken it over: this worker gave no sign of life for too long.
        if (!state || state.cancel) stop();
        if (moved !== written) this.tell(state?.run ?? null);
        [written, at] = [moved, Date.now()];
      } finally {
        busy = false;
      }
    };
    const timer = setInterval(() => void beat().catch(() => undefined), LOOK_MS);
    return () => clearInterval(timer);
  }
}
