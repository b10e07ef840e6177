import { createWriteStream } from 'node:fs';
import { mkdir, mkdtemp, rm } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import busboy from 'busboy';
import type { Request } from 'express';
import { FolioError } from '@elastic-folio/core/node';

const MOST_BYTES = 2 * 2 ** 30;

interface Received {
  file: string;
  /** What it was called where it came from. */
  name: string;
}

/** Takes the one file of a form into a folder of its own that is gone afterwards. */
export async function withUpload<T>(req: Request, data: string, use: (received: Received & { folder: string }) => Promise<T>): Promise<T> {
  const incoming = join(data, 'incoming');
  await mkdir(incoming, { recursive: true });
  const folder = await mkdtemp(join(incoming, 'up-'));
  try {
    return await use({ ...(await receive(req, folder)), folder });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const broken = (): FolioError => new FolioError('upload.broken', 'The file did not arrive whole.', 'Try again.');

/** Writes the one file of a form to disk; rejects where none comes, where it is too large or where the line breaks. */
function receive(req: Request, folder: string): Promise<Received> {
  if (!req.is('multipart/form-data')) throw new FolioError('upload.empty', 'No file arrived.', 'Choose a file and try again.');
  return new Promise((resolve, reject) => {
    const parser = busboy({ headers: req.headers, limits: { files: 1, fileSize: MOST_BYTES, fields: 0 } });
    let taken: Promise<Received> | undefined;
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
