import { parentPort, workerData } from 'node:worker_threads';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { syncFolder } from '../syncToDisk.ts';
import { SYNCED_START, SyncedFiles } from './syncedFiles.ts';

/** A request to the embedded database: `exec` runs several statements and gives nothing back. */
export type Request =
  { id: number; kind: 'query'; sql: string; params: unknown[] } | { id: number; kind: 'exec'; sql: string } | { id: number; kind: 'close' };
export type Reply = { id: number; rows: unknown[] } | { id: number; error: { message: string; code?: string } };

// The embedded database runs in a thread of its own, so that a long query never holds up the server.
const folder = workerData as string;
const isNew = !existsSync(join(folder, 'PG_VERSION'));
const db = await PGlite.create({ fs: new SyncedFiles(folder), startParams: SYNCED_START });
// A new database is laid out without waiting for the disk.
if (isNew) syncFolder(folder);
const port = parentPort!;

port.on('message', (request: Request) => {
  void (async () => {
    try {
      let rows: unknown[] = [];
      if (request.kind === 'query') rows = (await db.query(request.sql, request.params)).rows;
      else if (request.kind === 'exec') await db.exec(request.sql);
      else await db.close();
      port.postMessage({ id: request.id, rows } satisfies Reply);
    } catch (error) {
      const e = error as { message: string; code?: string };
      port.postMessage({ id: request.id, error: { message: e.message, ...(e.code !== undefined && { code: e.code }) } } satisfies Reply);
    }
  })();
});
port.postMessage({ id: 0, rows: [] } satisfies Reply);
