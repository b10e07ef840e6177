import { createWriteStream } from 'node:fs';
import { mkdir, rename } from 'node:fs/promises';
import { join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { packFolio } from '@elastic-folio/core/write';
import { samples } from '@elastic-folio/demo';
import type { SamplesResult } from './results.ts';

/** Writes the sample documents as packages. */
export async function writeSamples(folder: string): Promise<SamplesResult> {
  const out = resolve(folder);
  await mkdir(out, { recursive: true });
  const files: SamplesResult['files'] = [];
  for (const sample of await samples()) {
    const path = join(out, `${sample.folio.head.id}.efolio`);
    const stream = createWriteStream(`${path}.part`);
    await pipeline(packFolio(sample.folio, sample.files, sample.blobs), stream);
    await rename(`${path}.part`, path);
    files.push({ path, title: sample.folio.head.metadata.title, bytes: stream.bytesWritten });
  }
  return { files };
}
