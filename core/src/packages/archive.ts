import { Transform } from 'node:stream';
import type { Readable } from 'node:stream';
import yauzl from 'yauzl';
import { FolioError } from '../ports/ports.ts';
import type { ArchiveLimits } from './limits.ts';

export interface ArchiveEntry {
  path: string;
  /** How large it says it is; what is longer fails when it is read. */
  size: number;
  /** The entry's content; fails as soon as it outgrows a limit, whatever the archive claims. */
  open(): Promise<Readable>;
}

const damaged = (): FolioError =>
  new FolioError(
    'archive.damaged',
    'The file is damaged or was not copied whole.',
    'Copy or download it again, then bring it in once more.',
  );

/**
 * Walks the entries of a zip archive one after another. Refuses what is not an archive, is encrypted,
 * points outside itself or expands beyond the limits. Reads by the central directory.
 */
export async function* readArchive(file: string, limits: ArchiveLimits): AsyncGenerator<ArchiveEntry> {
  const archive = await openArchive(file, limits);
  try {
    yield* archive.entries;
  } finally {
    archive.close();
  }
}

export interface Archive {
  entries: AsyncGenerator<ArchiveEntry>;
  /** Entries can be opened until this is called. */
  close(): void;
}

/** The same, with entries that can be opened in any order later. */
export async function openArchive(file: string, limits: ArchiveLimits): Promise<Archive> {
  const zip = await new Promise<yauzl.ZipFile>((resolve, reject) =>
    yauzl.open(file, { lazyEntries: true, autoClose: false, strictFileNames: true, validateEntrySizes: true }, (error, z) =>
      error ? reject(asFolioError(error)) : resolve(z),
    ),
  );
  return { entries: entriesOf(zip, limits), close: () => zip.close() };
}

async function* entriesOf(zip: yauzl.ZipFile, limits: ArchiveLimits): AsyncGenerator<ArchiveEntry> {
  let expanded = 0;
  let count = 0;
  if (zip.entryCount > limits.entries)
    throw new FolioError(
      'archive.tooMany',
      `The file holds ${zip.entryCount} parts; at most ${limits.entries} are allowed.`,
      'Split the document, or ask for a higher limit.',
    );
  for (;;) {
    const entry = await nextEntry(zip);
    if (!entry) return;
    if (++count > limits.entries)
      throw new FolioError('archive.tooMany', `The file holds more than ${limits.entries} parts.`, 'Split the document.');
    if (entry.fileName.endsWith('/')) continue;
    if (/(^|\/)\.\.?(\/|$)|^\/|\\|\0|^[A-Za-z]:/.test(entry.fileName)) throw escapes(entry.fileName);
    if ((entry.generalPurposeBitFlag & 1) !== 0)
      throw new FolioError(
        'archive.encrypted',
        'The file is protected by a password.',
        'Save it without a password and bring it in again.',
      );
    yield {
      path: entry.fileName,
      size: entry.uncompressedSize,
      open: async () => {
        const source = await openEntry(zip, entry);
        let own = 0;
        const guard = new Transform({
          transform(chunk: Buffer, _encoding, done) {
            own += chunk.length;
            expanded += chunk.length;
            if (expanded > limits.expandedBytes)
              done(
                new FolioError(
                  'archive.tooLarge',
                  `The file expands to more than ${Math.round(limits.expandedBytes / 2 ** 20)} MiB.`,
                  'Use smaller pictures or media, or split the document.',
                ),
              );
            else if (own > 2 ** 20 && own > entry.compressedSize * limits.ratio)
              done(
                new FolioError(
                  'archive.bomb',
                  `"${entry.fileName}" expands to more than ${limits.ratio} times its packed size.`,
                  'Such a file is not opened. Make it again with the program it came from.',
                ),
              );
            else done(null, chunk);
          },
        });
        source.on('error', (e: Error) => guard.destroy(asFolioError(e)));
        // Damage may be found before anybody reads: whoever does is told then, and it is no error that nobody expected.
        guard.on('error', () => undefined);
        return source.pipe(guard);
      },
    };
  }
}

const escapes = (name: string): FolioError =>
  new FolioError(
    'archive.escape',
    `The file holds a part named "${name}", which would lie outside it.`,
    'Such a file is not opened. Make it again with the program it came from.',
  );

function asFolioError(error: Error): Error {
  // A file that is not there is not a damaged one.
  if (error instanceof FolioError || (error as NodeJS.ErrnoException).code === 'ENOENT') return error;
  if (/relative path|absolute path|invalid characters/.test(error.message)) return escapes(error.message.split(': ').pop() ?? '');
  if (/end of central directory|signature/i.test(error.message))
    return new FolioError(
      'archive.unreadable',
      'This is not a package that can be opened, or only its beginning is there.',
      'Choose a file ending in .efolio; if it is one, copy it again.',
    );
  return damaged();
}

function nextEntry(zip: yauzl.ZipFile): Promise<yauzl.Entry | null> {
  return new Promise((resolve, reject) => {
    const settle = (then: () => void): void => {
      zip.removeAllListeners('entry').removeAllListeners('end').removeAllListeners('error');
      then();
    };
    zip.on('entry', (e: yauzl.Entry) => settle(() => resolve(e)));
    zip.on('end', () => settle(() => resolve(null)));
    zip.on('error', (e: Error) => settle(() => reject(asFolioError(e))));
    zip.readEntry();
  });
}

const openEntry = (zip: yauzl.ZipFile, entry: yauzl.Entry): Promise<Readable> =>
  new Promise((resolve, reject) => zip.openReadStream(entry, (error, stream) => (error ? reject(asFolioError(error)) : resolve(stream))));

/** All bytes of a part; refuses it as soon as it outgrows the limit, whatever was claimed of its size. */
export async function collect(stream: Readable, limit: number, part: string): Promise<Buffer> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > limit)
      throw new FolioError('archive.partTooLarge', `${part} is larger than ${Math.round(limit / 2 ** 20)} MiB.`, 'Split the document.');
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}
