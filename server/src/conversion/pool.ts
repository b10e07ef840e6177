import { availableParallelism } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { MessageChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { Conversion, Newer, Outcome, Pictures, Progress, ReadOutcome, Survey, Task } from './tasks.ts';

/** A task may take this long before its thread is given up. */
const TIME_LIMIT_MS = 15 * 60_000;

type ConvertTask = Omit<Extract<Task, { kind: 'convert' }>, 'kind' | 'stop' | 'port'>;

/** Worker threads for everything heavy or hostile, with limits on memory and time. */
export class ConversionPool {
  private readonly pool = new Piscina({
    filename: join(dirname(fileURLToPath(import.meta.url)), 'conversion-thread.mjs'),
    minThreads: 0,
    maxThreads: Math.max(2, Math.min(4, availableParallelism())),
    idleTimeout: 20_000,
    resourceLimits: { maxOldGenerationSizeMb: 1536 },
  });

  private async run<T>(task: Task, transferList: MessagePort[] = []): Promise<Outcome<T>> {
    try {
      return (await this.pool.run(task, { transferList: transferList as never, signal: AbortSignal.timeout(TIME_LIMIT_MS) })) as Outcome<T>;
    } catch (error) {
      const e = error as { name?: string; code?: string; message: string };
      if (e.name === 'AbortError' || e.name === 'TimeoutError')
        return {
          failure: {
            code: 'thread.time',
            message: 'It took longer than a quarter of an hour and was stopped.',
            advice: 'Try fewer pages or smaller pictures.',
          },
        };
      if (e.code === 'ERR_WORKER_OUT_OF_MEMORY')
        return {
          failure: {
            code: 'thread.memory',
            message: 'It needed more memory than there is.',
            advice: 'Try fewer pages or smaller pictures.',
          },
        };
      console.error(error);
      return {
        failure: {
          code: 'thread.failed',
          message: `Something went wrong: ${e.message}`,
          advice: 'Try again; if it happens once more, leave out pages to find the one it stops at.',
        },
      };
    }
  }

  read(file: string, name: string, staging: string): Promise<Outcome<ReadOutcome>> {
    return this.run({ kind: 'read', file, name, staging });
  }

  newer(task: Omit<Extract<Task, { kind: 'newer' }>, 'kind'>): Promise<Outcome<Newer>> {
    return this.run({ kind: 'newer', ...task });
  }

  pictures(task: Omit<Extract<Task, { kind: 'pictures' }>, 'kind'>): Promise<Outcome<Pictures>> {
    return this.run({ kind: 'pictures', ...task });
  }

  survey(task: Omit<Extract<Task, { kind: 'survey' }>, 'kind'>): Promise<Outcome<Survey>> {
    return this.run({ kind: 'survey', ...task });
  }

  /** Converts; `stop` ends it within a page, even while the thread is busy. */
  convert(task: ConvertTask, onProgress: (p: Progress) => void): { outcome: Promise<Outcome<Conversion>>; stop: () => void } {
    const flag = new Int32Array(new SharedArrayBuffer(4));
    const { port1, port2 } = new MessageChannel();
    port1.on('message', onProgress);
    port1.unref();
    const outcome = this.run<Conversion>({ kind: 'convert', ...task, stop: flag, port: port2 }, [port2 as unknown as MessagePort]).finally(
      () => port1.close(),
    );
    return { outcome, stop: () => void Atomics.store(flag, 0, 1) };
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}
