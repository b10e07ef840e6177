import type { Outcome } from '../conversion/tasks.ts';
import type { ConversionPool } from '../conversion/pool.ts';
import type { DocumentStore } from '../documents/documentStore.ts';
import type { Notices } from './notices.ts';
import type { TranslationJobs } from './translationJobs.ts';
import type { TranslationMemory } from './translationMemory.ts';

/**
 * A translation service that is not there: it takes jobs, lets some time pass, and sends a file back, as an agency does. What it sends is
 * a pseudo-translation with what the memory has, in XLIFF; told so, it loses codes. A server that is started anew goes on waiting.
 */
export class SimulatedService {
  private readonly timers = new Map<string, NodeJS.Timeout>();

  constructor(
    private readonly jobs: TranslationJobs,
    private readonly documents: DocumentStore,
    private readonly memory: TranslationMemory,
    private readonly pool: ConversionPool,
    private readonly notices: Notices,
    private readonly blobs: string,
  ) {}

  /** Takes up what it was asked before. */
  async start(): Promise<void> {
    for (const { id, at } of await this.jobs.waiting()) this.at(id, at);
  }

  /** Delivers a job when its time has come. */
  at(job: string, when: Date): void {
    clearTimeout(this.timers.get(job));
    const timer = setTimeout(() => void this.deliver(job).catch((e: Error) => console.error(e)), Math.max(0, when.getTime() - Date.now()));
    timer.unref();
    this.timers.set(job, timer);
  }

  private async deliver(id: string): Promise<void> {
    this.timers.delete(id);
    const { job } = await this.jobs.get(id);
    if (job.state !== 'accepted' || job.for.kind !== 'service') return;
    const { folio, files, library = [] } = await this.documents.loaded(job.folio);
    const made: Outcome<string> = await this.pool.serve({
      folio,
      files: [...files],
      library,
      blobs: this.blobs,
      chosen: job.chosen,
      language: job.language,
      memory: await this.memory.of(folio.head.metadata.language, { target: job.language }),
      breaksCodes: job.for.breaksCodes,
    });
    if (!('ok' in made)) {
      const why = 'failure' in made ? `${made.failure.message} ${made.failure.advice}` : 'It was stopped.';
      await this.notices.add({ folio: job.folio, job: id, kind: 'failed', says: `The simulated service could not do its work. ${why}` });
      return;
    }
    await this.jobs.deliver(id, { name: `delivered.${job.language}.xlf`, text: made.ok });
    await this.notices.add({ folio: job.folio, job: id, kind: 'delivered', says: 'The simulated service has sent its file.' });
  }

  close(): void {
    for (const timer of this.timers.values()) clearTimeout(timer);
  }
}
