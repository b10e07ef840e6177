import { createRequire } from 'node:module';
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';

/** Threads end when they have had nothing to do for this long, in milliseconds. */
const IDLE = 5000;
const MOST = Math.max(1, Math.min(4, availableParallelism()));

/** Packs fonts one after another: the packer is a synchronous program that takes a tenth of a second and more for each. */
const PROGRAM = `
const { parentPort, workerData } = require('node:worker_threads');
const packer = require(workerData);
parentPort.on('message', async (bytes) => {
  try {
    const packed = Uint8Array.from(await packer.compress(Buffer.from(bytes)));
    parentPort.postMessage({ packed }, [packed.buffer]);
  } catch (error) {
    parentPort.postMessage({ failure: String(error && error.message || error) });
  }
});
`;

interface Job {
  bytes: Uint8Array;
  resolve: (packed: Uint8Array) => void;
  reject: (reason: Error) => void;
}

interface Thread {
  worker: Worker;
  job: Job | null;
  idle: NodeJS.Timeout | undefined;
}

const threads: Thread[] = [];
const waiting: Job[] = [];

/** A font as WOFF2 (W3C), made in threads of their own: several at once, while the thread that writes goes on. */
export const packWoff2 = (bytes: Uint8Array): Promise<Uint8Array> =>
  new Promise((resolve, reject) => {
    waiting.push({ bytes, resolve, reject });
    const free = threads.find((t) => !t.job) ?? (threads.length < MOST ? begin() : undefined);
    if (free) next(free);
  });

function next(thread: Thread): void {
  clearTimeout(thread.idle);
  thread.job = waiting.shift() ?? null;
  if (thread.job) {
    thread.worker.ref();
    thread.worker.postMessage(thread.job.bytes);
    return;
  }
  thread.worker.unref();
  thread.idle = setTimeout(() => void thread.worker.terminate(), IDLE);
  thread.idle.unref();
}

function begin(): Thread {
  const worker = new Worker(PROGRAM, { eval: true, workerData: createRequire(import.meta.url).resolve('wawoff2') });
  const thread: Thread = { worker, job: null, idle: undefined };
  threads.push(thread);
  worker.on('message', (said: { packed: Uint8Array } | { failure: string }) => {
    if ('packed' in said) thread.job?.resolve(said.packed);
    else thread.job?.reject(new Error(`The font could not be packed: ${said.failure}`));
    next(thread);
  });
  // A font on which the thread itself breaks is told so; the next gets another thread.
  const gone = (reason: Error): void => {
    const at = threads.indexOf(thread);
    if (at >= 0) threads.splice(at, 1);
    clearTimeout(thread.idle);
    thread.job?.reject(reason);
    thread.job = null;
    if (waiting.length && threads.length < MOST) next(begin());
  };
  worker.on('error', gone);
  worker.on('exit', () => gone(new Error('The font could not be packed.')));
  return thread;
}
