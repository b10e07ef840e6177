import { existsSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { setFlagsFromString } from 'node:v8';
import { Worker } from 'node:worker_threads';
import { copyEmptyDatabase } from './emptyDatabase.ts';
import { encoded } from './db.ts';
import type { Db, Query } from './db.ts';
import type { Reply, Request } from './thread.ts';

type Unsent = Request extends infer R ? (R extends { id: number } ? Omit<R, 'id'> : never) : never;

/**
 * How much of a WebAssembly function is run before it is compiled a second time, for speed: tenfold what is usual (V8 counts bytes of
 * code that were executed). A start runs many functions of the database once or twice, and spent more on compiling these than on all else.
 */
const TIERING_BUDGET = 20_000_000;

/** The embedded database in a thread. One connection: transactions wait for each other. */
export class EmbeddedDb implements Db {
  private readonly waiting = new Map<number, { resolve: (rows: unknown[]) => void; reject: (e: Error) => void }>();
  private next = 1;
  private turn: Promise<unknown> = Promise.resolve();

  private constructor(private readonly worker: Worker) {
    worker.on('message', (reply: Reply) => {
      const call = this.waiting.get(reply.id);
      this.waiting.delete(reply.id);
      if ('error' in reply) call?.reject(Object.assign(new Error(reply.error.message), { code: reply.error.code }));
      else call?.resolve(reply.rows);
    });
    worker.on('error', (error) => {
      for (const call of this.waiting.values()) call.reject(error as Error);
      this.waiting.clear();
    });
  }

  static async open(folder: string): Promise<EmbeddedDb> {
    setFlagsFromString(`--wasm-tiering-budget=${TIERING_BUDGET}`);
    if (!existsSync(join(folder, 'PG_VERSION')) && !(await copyEmptyDatabase(folder))) await EmbeddedDb.layOut(folder);
    return EmbeddedDb.inThread(folder);
  }

  /** A new database. That takes half a gigabyte which the database itself never needs: a thread that ends gives it back. */
  static async layOut(folder: string): Promise<void> {
    await (await EmbeddedDb.inThread(folder)).close();
  }

  private static async inThread(folder: string): Promise<EmbeddedDb> {
    await mkdir(folder, { recursive: true });
    const worker = new Worker(join(dirname(fileURLToPath(import.meta.url)), 'database-thread.mjs'), { workerData: folder });
    const db = new EmbeddedDb(worker);
    await new Promise<unknown[]>((resolve, reject) => db.waiting.set(0, { resolve, reject }));
    return db;
  }

  private send(request: Unsent): Promise<unknown[]> {
    const id = this.next++;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      this.worker.postMessage({ ...request, id });
    });
  }

  private inTurn<T>(work: () => Promise<T>): Promise<T> {
    const mine = this.turn.then(work, work);
    this.turn = mine.catch(() => undefined);
    return mine;
  }

  query: Query = <Row>(sql: string, params: readonly unknown[] = []) =>
    this.inTurn(() => this.send({ kind: 'query', sql, params: encoded(params) })) as Promise<Row[]>;

  /** Several statements at once, for migrations. */
  exec(sql: string): Promise<void> {
    return this.inTurn(async () => void (await this.send({ kind: 'exec', sql })));
  }

  transaction<T>(work: (query: Query) => Promise<T>): Promise<T> {
    return this.inTurn(async () => {
      await this.send({ kind: 'exec', sql: 'BEGIN' });
      try {
        const result = await work(((sql: string, params: readonly unknown[] = []) =>
          this.send({ kind: 'query', sql, params: encoded(params) })) as Query);
        await this.send({ kind: 'exec', sql: 'COMMIT' });
        return result;
      } catch (error) {
        await this.send({ kind: 'exec', sql: 'ROLLBACK' });
        throw error;
      }
    });
  }

  async close(): Promise<void> {
    await this.inTurn(() => this.send({ kind: 'close' }));
    await this.worker.terminate();
  }
}
