import { createWriteStream } from 'node:fs';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { packFolio } from '@elastic-folio/core/write';
import { writeOpenDocument } from './writeOpenDocument.ts';
import type { Sample } from './sampleAssembly.ts';
import { samples } from './samples.ts';

export interface SampleFile {
  path: string;
  title: string;
  bytes: number;
  /** What the sample has and this format cannot hold; the program's own holds all. */
  notHeld: string[];
}

/** Samples that are shown page by page; the others are drawings. */
const PRESENTATIONS = new Set(['five-worlds']);

/** Writes the sample documents into a folder: as packages of the program, and as OpenDocument files for trying intake. */
export async function writeSamples(
  folder: string,
  formats: readonly ('efolio' | 'openDocument')[] = ['efolio', 'openDocument'],
): Promise<SampleFile[]> {
  await mkdir(folder, { recursive: true });
  const files: SampleFile[] = [];
  for (const sample of await samples()) {
    const { id, metadata } = sample.folio.head;
    const file = async (ending: string, content: Readable, notHeld: string[]): Promise<void> => {
      const path = join(folder, `${id}.${ending}`);
      files.push({ path, title: metadata.title, bytes: await written(path, content), notHeld });
    };
    if (formats.includes('efolio')) await file('efolio', packFolio(sample.folio, sample.files, sample.blobs), []);
    if (formats.includes('openDocument')) {
      const { ending, package: content, notHeld } = asOpenDocument(sample);
      await file(ending, content, notHeld);
      await writeFile(join(folder, `${id}.${ending}.not-held.txt`), notHeld.map((line) => `${line}\n`).join(''));
    }
  }
  return files;
}

/** A sample as the OpenDocument file that it is written as. */
export function asOpenDocument(sample: Sample): { ending: 'odg' | 'odp'; package: Readable; notHeld: string[] } {
  const kind = PRESENTATIONS.has(sample.folio.head.id) ? 'presentation' : 'drawing';
  return { ending: kind === 'presentation' ? 'odp' : 'odg', ...writeOpenDocument(sample, kind) };
}

async function written(path: string, content: Readable): Promise<number> {
  const stream = createWriteStream(`${path}.part`);
  await pipeline(content, stream);
  await rename(`${path}.part`, path);
  return stream.bytesWritten;
}
