import { execFile } from 'node:child_process';
import { createWriteStream } from 'node:fs';
import { mkdtemp, readFile, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import { unzipSync } from 'fflate';
import { SaxesParser } from 'saxes';
import { FileBlobs, sharpPictures } from '@elastic-folio/core/node';
import { DEFAULT_LIMITS, readFolio } from '@elastic-folio/core/read';
import { largePresentation, writeOpenDocument } from '@elastic-folio/demo';
import { median } from './median.ts';

const PAGES = 100;
export interface IntakeTimes {
  mb: number;
  readMs: number;
  /** Unzipping all of it and parsing its XML, and nothing else. */
  plainMs: number;
  ratio: number;
  /** When the first and the last page were read, as shares of the whole time. */
  firstPage: number;
  lastPage: number;
  /** The most memory that a process holds that reads it and does nothing else, in MiB. */
  peakMiB: number;
}

/** Reading a large presentation, against unzipping and parsing it alone, by turns; medians of `rounds`. */
export async function intakeTimes(rounds: number): Promise<IntakeTimes> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-bench-intake-'));
  try {
    const file = join(folder, 'large.odp');
    await pipeline(writeOpenDocument(await largePresentation(PAGES), 'presentation').package, createWriteStream(file));
    const { size } = await stat(file);
    const all: { read: number; plain: number; first: number; last: number }[] = [];
    for (let i = 0; i <= rounds; i++) {
      const began = performance.now();
      let first = 0;
      let last = 0;
      const progress = (done: number, total: number): void => {
        if (total !== PAGES) return;
        last = performance.now();
        if (done === 1) first = last;
      };
      await readFolio('large.odp', {
        file,
        blobs: new FileBlobs(join(folder, `blobs${i}`)),
        pictures: sharpPictures,
        limits: DEFAULT_LIMITS,
        progress,
      });
      const read = performance.now() - began;
      const between = performance.now();
      const parts = unzipSync(new Uint8Array(await readFile(file)));
      for (const part of ['content.xml', 'styles.xml'])
        new SaxesParser({ xmlns: true }).write(new TextDecoder().decode(parts[part])).close();
      const plain = performance.now() - between;
      // The first go warms both up.
      if (i) all.push({ read, plain, first: (first - began) / read, last: (last - began) / read });
    }
    const { stdout } = await promisify(execFile)(process.execPath, ['scripts/run.mjs', 'bench/readAlone.ts', file]);
    return {
      peakMiB: (JSON.parse(stdout) as { peak: number }).peak,
      mb: size / 1e6,
      readMs: median(all.map((a) => a.read)),
      plainMs: median(all.map((a) => a.plain)),
      ratio: median(all.map((a) => a.read / a.plain)),
      firstPage: median(all.map((a) => a.first)),
      lastPage: median(all.map((a) => a.last)),
    };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
