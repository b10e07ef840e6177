import { Readable } from 'node:stream';
import yazl from 'yazl';
import type { Folio } from '../../folio/folio.ts';
import { partPath } from '../../folio/folio.ts';
import type { BlobStore } from '../../ports/ports.ts';
import type { LoadedFolio } from '../../intake/reader.ts';
import { PACKAGE_TYPE } from '../../read/efolio/readPackage.ts';

/** All entries carry the earliest time a zip can hold, so that equal documents make equal packages. */
const EPOCH = new Date(1980, 0, 1);

/** Writes a Folio as a `.efolio` package: parts in a fixed order, files streamed from their blobs. */
export function packFolio(folio: Folio, files: LoadedFolio['files'], blobs: Pick<BlobStore, 'stream'>): Readable {
  const zip = new yazl.ZipFile();
  const options = { mtime: EPOCH, forceDosTimestamp: true };
  const json = (path: string, value: unknown): void => zip.addBuffer(Buffer.from(JSON.stringify(value)), path, options);
  zip.addBuffer(Buffer.from(PACKAGE_TYPE), 'mimetype', { ...options, compress: false });
  json(partPath.head, folio.head);
  const sorted = <T>(record: Record<string, T>): [string, T][] => Object.entries(record).sort(([a], [b]) => (a < b ? -1 : 1));
  for (const [id, spread] of sorted(folio.spreads)) json(partPath.spread(id), spread);
  for (const [id, story] of sorted(folio.stories)) json(partPath.story(id), story);
  for (const [language, edition] of sorted(folio.editions)) json(partPath.edition(language), edition);
  for (const [id, recipe] of sorted(folio.recipes)) json(partPath.recipe(id), recipe);
  for (const [path, file] of [...files].sort(([a], [b]) => (a < b ? -1 : 1)))
    zip.addReadStreamLazy(path, { ...options, compress: !/\.(png|jpe?g|webp|woff2?|mp[34]|ogg)$/.test(path) }, (done) =>
      done(null, blobs.stream(file.sha256)),
    );
  zip.end();
  return Readable.from(zip.outputStream as AsyncIterable<Buffer>);
}
