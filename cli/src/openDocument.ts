import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { FileBlobs, fontsFor, mediaReader, sharpPictures } from '@elastic-folio/core/node';
import { DEFAULT_LIMITS, readFolio, recordOf } from '@elastic-folio/core/read';

/** Opens a document file for the time of `work`; what was unpacked is gone afterwards. */
export async function withDocument<T>(file: string, work: (document: Awaited<ReturnType<typeof open>>) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-'));
  try {
    return await work(await open(file, folder));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function open(file: string, folder: string) {
  const blobs = new FileBlobs(folder);
  const loaded = await readFolio(basename(file), { file, blobs, pictures: sharpPictures, limits: DEFAULT_LIMITS });
  return {
    ...loaded,
    fonts: await fontsFor(loaded, blobs),
    media: mediaReader(loaded, blobs),
    record: await recordOf(loaded, blobs),
  };
}
