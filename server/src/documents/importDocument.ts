import { createWriteStream } from 'node:fs';
import { mkdir, mkdtemp, readdir, rename, rm } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import busboy from 'busboy';
import type { Request } from 'express';
import type { FileBlobs } from '@elastic-folio/core/node';
import { FolioError } from '@elastic-folio/core/node';
import type { ConversionPool } from '../conversion/pool.ts';
import type { DocumentStore } from './documentStore.ts';

const MOST_BYTES = 2 * 2 ** 30;

/** Takes an uploaded file, reads it in a thread, and stores it only when all of it is right. */
export async function importUpload(
  req: Request,
  data: string,
  blobs: FileBlobs,
  pool: ConversionPool,
  documents: DocumentStore,
): Promise<{ id: string; title: string }> {
  const incoming = join(data, 'incoming');
  await mkdir(incoming, { recursive: true });
  const folder = await mkdtemp(join(incoming, 'up-'));
  try {
    const { file, name } = await receive(req, folder);
    return await importFile(file, name, join(folder, 'blobs'), blobs, pool, documents);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Reads a file on disk and stores it. */
export async function importFile(
  file: string,
  name: string,
  staging: string,
  blobs: FileBlobs,
  pool: ConversionPool,
  documents: DocumentStore,
): Promise<{ id: string; title: string }> {
  const outcome = await pool.read(file, name, staging);
  if (!('ok' in outcome)) {
    const f =
      'failure' in outcome ? outcome.failure : { code: 'import.stopped', message: 'Reading was stopped.', advice: 'Bring it in again.' };
    throw new FolioError(f.code, f.message, f.advice);
  }
  await adopt(staging, blobs);
  const { folio, files } = outcome.ok;
  const id = await documents.add({ folio, files: new Map(files) }, name);
  return { id, title: folio.head.metadata.title || name };
}

/** Moves what was unpacked into the blob folder; a blob that is there already is the same bytes. */
async function adopt(staging: string, blobs: FileBlobs): Promise<void> {
  for (const prefix of await readdir(staging).catch(() => [])) {
    if (prefix === 'tmp') continue;
    await mkdir(join(blobs.folder, prefix), { recursive: true });
    for (const sha of await readdir(join(staging, prefix))) await rename(join(staging, prefix, sha), blobs.path(sha));
  }
}

const broken = (): FolioError => new FolioError('upload.broken', 'The file did not arrive whole.', 'Try again.');

/** Writes the one file of a form to disk; rejects where none comes, where it is too large or where the line breaks. */
function receive(req: Request, folder: string): Promise<{ file: string; name: string }> {
  if (!req.is('multipart/form-data')) throw new FolioError('upload.empty', 'No file arrived.', 'Choose a file and try again.');
  return new Promise((resolve, reject) => {
    const parser = busboy({ headers: req.headers, limits: { files: 1, fileSize: MOST_BYTES, fields: 0 } });
    let taken: Promise<{ file: string; name: string }> | undefined;
    parser.on('file', (_field, stream, info) => {
      const file = join(folder, 'upload');
      req.once('close', () => !req.complete && stream.destroy(broken()));
      taken = pipeline(stream, createWriteStream(file)).then(() => {
        if (stream.truncated)
          throw new FolioError(
            'upload.tooLarge',
            'The file is larger than 2 GiB.',
            'Use smaller pictures or media, or split the document.',
          );
        return { file, name: basename(info.filename ?? 'document') };
      });
      taken.catch((error: unknown) => reject(req.complete ? (error as Error) : broken()));
    });
    // `pipeline` tells of a line that breaks, which the parser alone would wait for for ever.
    pipeline(req, parser).then(
      () => {
        if (taken) taken.then(resolve, reject);
        else reject(new FolioError('upload.empty', 'No file arrived.', 'Choose a file and try again.'));
      },
      // What was being written ends first, so that its folder can be removed whole.
      () => void Promise.allSettled([taken]).then(() => reject(broken())),
    );
  });
}
