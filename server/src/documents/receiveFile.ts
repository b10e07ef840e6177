import { createWriteStream } from 'node:fs';
import { mkdir, mkdtemp, rm } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import busboy from 'busboy';
import type { Request } from 'express';
import { FolioError } from '@elastic-folio/core/node';

const MIB = 2 ** 20;
/** The most that a file of each kind may have: what is longer is refused while it arrives. */
const MOST_BYTES = {
  document: 2048 * MIB,
  media: 600 * MIB,
  corrections: 256 * MIB,
  exchange: 128 * MIB,
  memory: 128 * MIB,
  terms: 32 * MIB,
  font: 64 * MIB,
} as const;
export type UploadKind = keyof typeof MOST_BYTES;

interface Received {
  file: string;
  /** What it was called where it came from. */
  name: string;
}

/** Takes the one file of a form into a folder of its own that is gone afterwards. */
export async function withUpload<T>(
  req: Request,
  data: string,
  kind: UploadKind,
  use: (received: Received & { folder: string }) => Promise<T>,
): Promise<T> {
  const incoming = join(data, 'incoming');
  await mkdir(incoming, { recursive: true });
  const folder = await mkdtemp(join(incoming, 'up-'));
  try {
    return await use({ ...(await receive(req, folder, kind)), folder });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const broken = (): FolioError => new FolioError('upload.broken', 'The file did not arrive whole.', 'Try again.');

/** Writes the one file of a form to disk; rejects where none comes, where it is too large or where the line breaks. */
function receive(req: Request, folder: string, kind: UploadKind): Promise<Received> {
  const most = MOST_BYTES[kind];
  if (!req.is('multipart/form-data')) throw new FolioError('upload.empty', 'No file arrived.', 'Choose a file and try again.');
  return new Promise((resolve, reject) => {
    const parser = formParser(req, most);
    let taken: Promise<Received> | undefined;
    parser.on('file', (_field, stream, info) => {
      const file = join(folder, 'upload');
      req.once('close', () => !req.complete && stream.destroy(broken()));
      taken = pipeline(stream, createWriteStream(file)).then(() => {
        if (stream.truncated)
          throw new FolioError(
            'upload.tooLarge',
            `The file is larger than ${most / MIB} MiB.`,
            kind === 'document' || kind === 'media'
              ? 'Use smaller pictures or media, or split the document.'
              : 'Split it into smaller ones.',
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

/** Throws where the form does not say how its parts are told apart. */
function formParser(req: Request, most: number): busboy.Busboy {
  try {
    return busboy({ headers: req.headers, limits: { files: 1, fileSize: most, fields: 0 } });
  } catch {
    throw new FolioError('upload.form', 'What was sent is no form with a file.', 'Choose the file and try again.');
  }
}
