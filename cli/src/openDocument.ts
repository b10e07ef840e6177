import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { existsSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { FileBlobs, FileDerived, fontsFor, mediaReader, othersFor, othersShownBy, sharpPictures } from '@elastic-folio/core/node';
import type { Folio } from '@elastic-folio/core';
import type { DerivedStore } from '@elastic-folio/core/node';
import { DEFAULT_LIMITS, readFolio, originOf, recordOf } from '@elastic-folio/core/read';
import type { LoadedFolio } from '@elastic-folio/core/read';

export type OpenDocument = Awaited<ReturnType<typeof open>>;

/** What commands keep for each other, in the machine's folder for such things. */
const keptByCommands = (): DerivedStore => new FileDerived(join(tmpdir(), 'elastic-folio-derived'));

/** Opens a document file for the time of `work`; what was unpacked is gone afterwards. */
export async function withDocument<T>(file: string, work: (document: OpenDocument) => Promise<T>, derived = keptByCommands()): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-'));
  try {
    return await work(await open(file, folder, derived));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function open(file: string, folder: string, derived: DerivedStore) {
  const blobs = new FileBlobs(folder);
  const read = (path: string) => readFolio(basename(path), { file: path, blobs, pictures: sharpPictures, derived, limits: DEFAULT_LIMITS });
  const loaded = await read(file);
  // Documents that it shows are looked for beside it, under the names that they call themselves.
  const others = new Map<string, LoadedFolio>();
  for (const id of othersShownBy(loaded.folio)) {
    const beside = join(dirname(file), `${id}.efolio`);
    if (existsSync(beside)) others.set(id, await read(beside));
  }
  return {
    ...loaded,
    blobs,
    derived,
    /** The fonts that a document, or an edition of it, is set with. */
    fontsOf: (folio: Folio) => fontsFor({ ...loaded, folio }, blobs),
    media: mediaReader(loaded, blobs),
    others: othersFor(others, blobs),
    record: await recordOf(loaded, blobs),
    origin: await originOf(loaded, blobs),
  };
}
