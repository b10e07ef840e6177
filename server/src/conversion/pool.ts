import { availableParallelism } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { MessageChannel } from 'node:worker_threads';
import type { MessagePort } from 'node:worker_threads';
import { Piscina } from 'piscina';
import type { LettersReport } from '@elastic-folio/core/language';
import type {
  BackHome,
  CountedTexts,
  Conversion,
  Foreign,
  ForeignRead,
  Newer,
  Outcome,
  Pictures,
  Progress,
  ReadOutcome,
  ReadProgress,
  Survey,
  Task,
} from './tasks.ts';
import type { LedgerEntry } from '@elastic-folio/core/ledger';

/** Conversions at once; threads beyond these are for a short one of another document, and for what somebody waits for at the screen. */
export const SLOTS = Math.max(2, Math.min(4, availableParallelism()));
const MINUTE_MS = 60_000;
/** A task may take so many minutes before its thread is given up; what comes from elsewhere and is no document, fewer: somebody waits for it. */
const LIMITS = { task: 15, foreign: 3 } as const;
/** A thread that has been asked to stop and goes on with what it is at is ended after so long. */
const GRACE_MS = 4000;

type ConvertTask = Omit<Extract<Task, { kind: 'convert' }>, 'kind' | 'stop' | 'port'>;

/** Worker threads for everything heavy or hostile, with limits on memory and time. */
export class ConversionPool {
  private closed = false;
  private readonly pool = new Piscina({
    filename: join(dirname(fileURLToPath(import.meta.url)), 'conversion-thread.mjs'),
    minThreads: 0,
    maxThreads: SLOTS + 2,
    idleTimeout: 20_000,
    resourceLimits: { maxOldGenerationSizeMb: 1536 },
  });

  /** `derived`: the folder of what all tasks keep for each other. */
  constructor(private readonly derived: string) {}

  /** `ending`: whoever asked has given it up, and the thread has not let go of it. */
  private async run<T>(task: Task, transferList: MessagePort[] = [], ending?: AbortSignal): Promise<Outcome<T>> {
    const minutes = task.kind === 'foreign' ? LIMITS.foreign : LIMITS.task;
    const smaller = task.kind === 'foreign' ? 'Divide the file, and bring in its parts.' : 'Try fewer pages or smaller pictures.';
    try {
      const limit = AbortSignal.timeout(minutes * MINUTE_MS);
      const signal = ending ? AbortSignal.any([limit, ending]) : limit;
      return (await this.pool.run(task, { transferList: transferList as never, signal })) as Outcome<T>;
    } catch (error) {
      if (ending?.aborted || this.closed) return { cancelled: true };
      const e = error as { name?: string; code?: string; message: string };
      if (e.name === 'AbortError' || e.name === 'TimeoutError')
        return {
          failure: {
            code: 'thread.time',
            message: `It took longer than ${minutes} minutes and was stopped.`,
            advice: smaller,
          },
        };
      if (e.code === 'ERR_WORKER_OUT_OF_MEMORY')
        return {
          failure: {
            code: 'thread.memory',
            message: 'It needed more memory than there is.',
            advice: smaller,
          },
        };
      if (e.message.startsWith('worker exited'))
        return {
          failure: {
            code: 'thread.ended',
            message: 'The part of the program that works on documents ran into a fault, and was started anew.',
            advice: 'Try again; if it happens once more, leave out fonts or pages to find the one it stops at.',
          },
        };
      console.error(error);
      return {
        failure: {
          code: 'thread.failed',
          message: 'Something went wrong while the program worked on this.',
          advice: 'Try again; if it happens once more, leave out pages to find the one it stops at.',
        },
      };
    }
  }

  /** Reads a file; `signal` ends it within a page. */
  read(
    file: string,
    name: string,
    staging: string,
    { onPage, signal }: { onPage?: (p: ReadProgress) => void; signal?: AbortSignal } = {},
  ): Promise<Outcome<ReadOutcome>> {
    const { flag, port, close } = watched(onPage ?? (() => undefined));
    const stop = (): void => void Atomics.store(flag, 0, 1);
    if (signal?.aborted) stop();
    signal?.addEventListener('abort', stop);
    return this.run<ReadOutcome>({ kind: 'read', file, name, staging, derived: this.derived, stop: flag, port }, [port]).finally(() => {
      signal?.removeEventListener('abort', stop);
      close();
    });
  }

  /** Reads a file by others that is no document. */
  foreign<A extends Foreign>(asked: A): Promise<Outcome<ForeignRead[A['what']]>> {
    return this.run({ kind: 'foreign', asked });
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

  plan(task: Omit<Extract<Task, { kind: 'plan' }>, 'kind'>): Promise<Outcome<LedgerEntry[]>> {
    return this.run({ kind: 'plan', ...task });
  }

  count(task: Omit<Extract<Task, { kind: 'count' }>, 'kind'>): Promise<Outcome<CountedTexts>> {
    return this.run({ kind: 'count', ...task });
  }

  /** The file that the simulated service sends. */
  serve(task: Omit<Extract<Task, { kind: 'serve' }>, 'kind'>): Promise<Outcome<string>> {
    return this.run({ kind: 'serve', ...task });
  }

  letters(task: Omit<Extract<Task, { kind: 'letters' }>, 'kind'>): Promise<Outcome<LettersReport>> {
    return this.run({ kind: 'letters', ...task });
  }

  bringBack(task: Omit<Extract<Task, { kind: 'return' }>, 'kind'>): Promise<Outcome<BackHome>> {
    return this.run({ kind: 'return', ...task });
  }

  /** Converts; `stop` ends it within a page, and the thread itself where it does not get there. */
  convert(task: ConvertTask, onProgress: (p: Progress) => void): { outcome: Promise<Outcome<Conversion>>; stop: () => void } {
    const { flag, port, close } = watched(onProgress);
    const ending = new AbortController();
    let grace: NodeJS.Timeout | undefined;
    const outcome = this.run<Conversion>({ kind: 'convert', ...task, stop: flag, port }, [port], ending.signal).finally(() => {
      clearTimeout(grace);
      close();
    });
    const stop = (): void => {
      Atomics.store(flag, 0, 1);
      grace ??= setTimeout(() => ending.abort(), GRACE_MS);
    };
    return { outcome, stop };
  }

  close(): Promise<void> {
    this.closed = true;
    return this.pool.destroy();
  }
}

/** A flag that stops a thread, and the port on which it tells how far it is. */
function watched<P>(onMessage: (message: P) => void) {
  const flag = new Int32Array(new SharedArrayBuffer(4));
  const { port1, port2 } = new MessageChannel();
  port1.on('message', onMessage);
  port1.unref();
  return { flag, port: port2, close: () => port1.close() };
}
