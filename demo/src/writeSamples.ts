import { createWriteStream } from 'node:fs';
import { mkdir, rename } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { packFolio } from '@elastic-folio/core/write';
import { samples } from './samples.ts';

/** Writes the sample documents as packages into a folder. */
export async function writeSamples(folder: string): Promise<{ path: string; title: string; bytes: number }[]> {
  await mkdir(folder, { recursive: true });
  const files = [];
  for (const sample of await samples()) {
    const path = join(folder, `${sample.folio.head.id}.efolio`);
    const stream = createWriteStream(`${path}.part`);
    await pipeline(packFolio(sample.folio, sample.files, sample.blobs), stream);
    await rename(`${path}.part`, path);
    files.push({ path, title: sample.folio.head.metadata.title, bytes: stream.bytesWritten });
  }
  return files;
}
