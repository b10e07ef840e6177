import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { promisify } from 'node:util';
import type { ComingSample } from '@elastic-folio/core/api';
import { memoryUnitsOf } from '@elastic-folio/core/language';
import type { Services } from '../services.ts';
import { importFile } from './importDocument.ts';

const ALL = '*';
const ALL_OF_THEM: ComingSample = { title: 'the sample documents', page: 0, pages: 0 };

/**
 * Puts the sample documents on the shelf of a first start, through the same door as any other document, while the program is in use
 * already. One that is interrupted goes on at the next start.
 */
export class SampleLoading {
  /** Until it is known otherwise, everything. */
  private waiting: ComingSample[] = [ALL_OF_THEM];
  private going: Promise<void> | null = null;
  private readonly ending = new AbortController();

  /** What is still to come, with how far it is. */
  get coming(): readonly ComingSample[] {
    return this.waiting;
  }

  /** Whether there is nothing to wait for any more: all of it is there, or could not be brought in. */
  settled = false;

  /** Begins where there is anything to bring in; resolves when all of it is there. */
  begin(s: Services): Promise<void> {
    return (this.going ??= this.load(s).finally(() => {
      this.settled = true;
      this.waiting = [];
    }));
  }

  async close(): Promise<void> {
    this.ending.abort();
    await this.going?.catch(() => undefined);
  }

  private async load(s: Services): Promise<void> {
    const done = new Set((await s.db.query<{ what: string }>('SELECT what FROM first_start')).map((r) => r.what));
    if (done.has(ALL)) {
      this.waiting = [];
      return;
    }
    const { signal } = this.ending;
    const folder = await mkdtemp(join(tmpdir(), 'folio-samples-'));
    try {
      const drawing = promisify(execFile)(process.execPath, [join(s.config.root, 'dist', 'samples-process.mjs'), folder, 'efolio'], {
        signal,
      });
      // The shelf shows what came last at its top.
      const files = (JSON.parse((await drawing).stdout) as { path: string; title: string }[]).reverse();
      this.waiting = files.filter((f) => !done.has(basename(f.path))).map(({ title }) => ({ title, page: 0, pages: 0 }));
      for (const { path } of files) {
        const name = basename(path);
        if (done.has(name)) continue;
        signal.throwIfAborted();
        await this.bringIn(s, path, name);
        this.waiting = this.waiting.slice(1);
        s.events.tell({ type: 'shelf' });
      }
      const { SAMPLE_TERMS } = await import('@elastic-folio/demo');
      for (const { source, target, terms } of SAMPLE_TERMS) await s.terms.take(source, target, terms);
      await mark(s, ALL);
    } finally {
      this.waiting = [];
      await rm(folder, { recursive: true, force: true });
    }
  }

  private async bringIn(s: Services, path: string, name: string): Promise<void> {
    const staging = join(s.config.data, 'incoming', `sample-${name}`);
    const onPage = ({ page, total }: { page: { number: number }; total: number }): void => {
      const [first] = this.waiting;
      if (first) this.waiting = [{ ...first, page: page.number, pages: total }, ...this.waiting.slice(1)];
    };
    try {
      // It may have come in just before the last start ended.
      const [known] = await s.db.query<{ id: string }>('SELECT id FROM folios WHERE source_name = $1', [name]);
      const watch = { onPage, signal: this.ending.signal };
      const { id } = known ?? (await importFile(path, name, staging, s.blobs, s.pool, s.documents, watch));
      await remember(s, id);
      await mark(s, name);
    } finally {
      await rm(staging, { recursive: true, force: true });
    }
  }
}

const mark = (s: Services, what: string): Promise<unknown> =>
  s.db.query('INSERT INTO first_start (what) VALUES ($1) ON CONFLICT DO NOTHING', [what]);

/** What the samples are translated into is in the memory, as if it had been confirmed here. */
async function remember(s: Services, id: string): Promise<void> {
  const { head, editions } = (await s.documents.get(id)).folio;
  for (const { language, units } of Object.values(editions))
    await s.memory.add(head.metadata.language, language, memoryUnitsOf(units, head.metadata));
}
