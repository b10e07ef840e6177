import { execFile } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { Folio } from '@elastic-folio/core';
import type { Composition, FontSet } from '@elastic-folio/core/compose';
import { FileDerived, sharpPictures } from '@elastic-folio/core/node';
import { readSettings, writerById } from '@elastic-folio/core/write';
import type { WrittenFile } from '@elastic-folio/core/write';

/** Memory of a document on its way to an output, in MiB, measured in a process of its own. */
export interface PrintMemory {
  composeMs: number;
  writeMs: number;
  /** CPU time of writing, and of reading back what was written. */
  writeCpuMs: number;
  readBackCpuMs: number;
  kiB: number;
  /** With the document read, and with all of it set. */
  read: number;
  loaded: number;
  /** What writing took at its highest above that, what reading back took, and the process at its highest altogether. */
  aboveLoaded: number;
  readBackAbove: number;
  highest: number;
}

export async function printMemory(folio: Folio, output: string): Promise<PrintMemory> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-print-'));
  try {
    await writeFile(join(folder, 'folio.json'), JSON.stringify(folio));
    const file = join(folder, 'folio.json');
    const { stdout } = await promisify(execFile)(process.execPath, ['scripts/run.mjs', 'bench/printAlone.ts', file, output]);
    return JSON.parse(stdout) as PrintMemory;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Hands over the files of an output as they are written; `take` gets each piece. Resolves to what reads them back. */
export async function writeOutput(
  folio: Folio,
  composition: Composition,
  fonts: FontSet,
  output: string,
  take: (path: string, bytes: Uint8Array) => unknown,
): Promise<(files: WrittenFile[]) => Promise<number>> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-print-'));
  const writer = writerById(output)!;
  const job = {
    folio,
    composition,
    fonts,
    settings: readSettings(writer, { version: writer.version, name: writer.label, settings: {} }),
    media: () => Promise.reject(new Error('This document has no pictures.')),
    pictures: sharpPictures,
    derived: new FileDerived(folder),
    player: async () => new Uint8Array(),
    clock: () => new Date(0),
    signal: new AbortController().signal,
    progress: () => undefined,
  };
  try {
    for await (const file of writer.write(job)) for await (const chunk of file.body) await take(file.path, chunk);
    return async (files) => {
      let evidence = 0;
      for await (const e of writer.readBack(files, job)) evidence += e ? 1 : 0;
      return evidence;
    };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
