import { createReadStream } from 'node:fs';
import { Readable } from 'node:stream';
import yazl from 'yazl';

const STORED = /\.(png|jpe?g|webp|woff2?|mp[34]|pdf|epub|zip)$/;

/** The files of a result as one zip; equal files make an equal zip. */
export function zipFiles(files: readonly { path: string; file: string }[]): Readable {
  const zip = new yazl.ZipFile();
  for (const { path, file } of [...files].sort((a, b) => (a.path < b.path ? -1 : 1)))
    zip.addReadStreamLazy(path, { mtime: new Date(1980, 0, 1), forceDosTimestamp: true, compress: !STORED.test(path) }, (done) =>
      done(null, createReadStream(file)),
    );
  zip.end();
  return Readable.from(zip.outputStream as AsyncIterable<Buffer>);
}
