import { mkdir, readdir, rename } from 'node:fs/promises';
import { join } from 'node:path';
import type { Request } from 'express';
import type { FileBlobs } from '@elastic-folio/core/node';
import { FolioError } from '@elastic-folio/core/node';
import type { LoadedFolio } from '@elastic-folio/core/read';
import type { ConversionPool } from '../conversion/pool.ts';
import type { DocumentStore } from './documentStore.ts';
import { syncPath } from '../syncToDisk.ts';
import { withUpload } from './receiveFile.ts';

/** Who wants to hear of pages as they are read, and may stop it. */
type Watch = NonNullable<Parameters<ConversionPool['read']>[3]>;

/** Takes an uploaded file, reads it in a thread, and stores it only when all of it is right. */
export async function importUpload(
  req: Request,
  data: string,
  blobs: FileBlobs,
  pool: ConversionPool,
  documents: DocumentStore,
  watch: Watch = {},
): Promise<{ id: string; title: string }> {
  return withUpload(req, data, 'document', ({ file, name, folder }) =>
    importFile(file, name, join(folder, 'blobs'), blobs, pool, documents, watch),
  );
}

/** Reads a file on disk and stores it. */
export async function importFile(
  file: string,
  name: string,
  staging: string,
  blobs: FileBlobs,
  pool: ConversionPool,
  documents: DocumentStore,
  watch: Watch = {},
): Promise<{ id: string; title: string }> {
  const { folio, files } = await readFile(file, name, staging, blobs, pool, watch);
  if (watch.signal?.aborted) throw stopped();
  const id = await documents.add({ folio, files }, name);
  // Whoever stopped it while it was being stored does not find it on the shelf.
  if (watch.signal?.aborted) {
    await documents.remove(id);
    throw stopped();
  }
  return { id, title: folio.head.metadata.title || name };
}

/** Reads a file on disk in a thread; its pictures are among the blobs afterwards. */
export async function readFile(
  file: string,
  name: string,
  staging: string,
  blobs: FileBlobs,
  pool: ConversionPool,
  watch: Watch = {},
): Promise<LoadedFolio> {
  const outcome = await pool.read(file, name, staging, watch);
  if (!('ok' in outcome)) {
    if ('failure' in outcome) throw new FolioError(outcome.failure.code, outcome.failure.message, outcome.failure.advice);
    throw stopped();
  }
  await adopt(staging, blobs);
  return { folio: outcome.ok.folio, files: new Map(outcome.ok.files) };
}

const stopped = (): FolioError => new FolioError('import.stopped', 'Reading was stopped.', 'Bring it in again.');

/** Moves what was unpacked into the blob folder; a blob that is there already is the same bytes. */
async function adopt(staging: string, blobs: FileBlobs): Promise<void> {
  await mkdir(blobs.folder, { recursive: true });
  for (const prefix of await readdir(staging).catch(() => [])) {
    if (prefix === 'tmp') continue;
    await mkdir(join(blobs.folder, prefix), { recursive: true });
    for (const sha of await readdir(join(staging, prefix))) await rename(join(staging, prefix, sha), blobs.path(sha));
    syncPath(join(blobs.folder, prefix));
  }
  syncPath(blobs.folder);
}
