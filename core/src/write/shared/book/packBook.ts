import { Readable } from 'node:stream';
import yazl from 'yazl';

export interface BookFile {
  path: string;
  bytes: Uint8Array | string;
  /** Files that are packed already are stored. */
  stored?: boolean;
}

/** A book as one file (EPUB 3.3, 4.3): the media type first, stored and without anything extra; equal books make equal files. */
export function packBook(files: readonly BookFile[]): AsyncIterable<Uint8Array> {
  const zip = new yazl.ZipFile();
  const time = { mtime: new Date(1980, 0, 1), forceDosTimestamp: true };
  zip.addBuffer(Buffer.from('application/epub+zip'), 'mimetype', { ...time, compress: false });
  for (const { path, bytes, stored } of files)
    zip.addBuffer(typeof bytes === 'string' ? Buffer.from(bytes) : Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength), path, {
      ...time,
      compress: !stored,
    });
  zip.end();
  return Readable.from(zip.outputStream as AsyncIterable<Buffer>);
}
