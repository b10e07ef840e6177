import { execFile } from 'node:child_process';
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { promisify } from 'node:util';
import type { Browser } from '@playwright/test';
import type { Folio } from '@elastic-folio/core';
import { Composer } from '@elastic-folio/core/compose';
import type { Composition, FontSet } from '@elastic-folio/core/compose';
import { FileDerived, sharpPictures } from '@elastic-folio/core/node';
import { readSettings, writerById } from '@elastic-folio/core/write';
import type { WrittenFile } from '@elastic-folio/core/write';
import { median } from './median.ts';

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

/** One document printed by turns, milliseconds by the median of the rounds; `times` is the median of how often our time goes into the browser's. */
export interface Printed {
  composeMs: number;
  writeMs: number;
  browserMs: number;
  timesFaster: number;
  timesFasterWithComposition: number;
  kiB: number;
  browserKiB: number;
}
const ROUNDS = 5;

/**
 * A document's PDF by us and by a browser that prints the same pages from static HTML, by turns: a machine that is slower
 * for some seconds is slower for both. The first round warms all of it and is not counted.
 */
export async function printed(folio: Folio, fonts: FontSet, browser: Browser): Promise<Printed> {
  let composition = new Composer(fonts).compose(folio);
  const folder = await mkdtemp(join(tmpdir(), 'folio-print-'));
  const page = await browser.newPage();
  try {
    await writeStaticHtml(folio, composition, fonts, folder);
    const { box } = Object.values(folio.spreads)[0]!.pages[0]!;
    const size = { width: `${box.width / 72}in`, height: `${box.height / 72}in` };
    const rounds: { compose: number; write: number; browser: number }[] = [];
    let bytes = 0;
    let browserBytes = 0;
    for (let round = 0; round <= ROUNDS; round++) {
      const began = performance.now();
      composition = new Composer(fonts).compose(folio);
      const set = performance.now();
      bytes = 0;
      await writeOutput(folio, composition, fonts, 'pdf', (_, chunk) => (bytes += chunk.length));
      const written = performance.now();
      await page.goto(`file://${join(folder, 'index.html')}`);
      await page.evaluate(() => document.fonts.ready);
      browserBytes = (await page.pdf({ ...size, printBackground: true, tagged: true })).length;
      if (round) rounds.push({ compose: set - began, write: written - set, browser: performance.now() - written });
    }
    const of = (value: (r: (typeof rounds)[number]) => number): number => median(rounds.map(value));
    return {
      composeMs: of((r) => r.compose),
      writeMs: of((r) => r.write),
      browserMs: of((r) => r.browser),
      timesFaster: of((r) => r.browser / r.write),
      timesFasterWithComposition: of((r) => r.browser / (r.compose + r.write)),
      kiB: bytes / 1024,
      browserKiB: browserBytes / 1024,
    };
  } finally {
    await page.close();
    await rm(folder, { recursive: true, force: true });
  }
}

/** The document's web edition as files, which need no program to be seen. */
async function writeStaticHtml(folio: Folio, composition: Composition, fonts: FontSet, folder: string): Promise<void> {
  const files = new Map<string, Uint8Array[]>();
  await writeOutput(folio, composition, fonts, 'html', (path, chunk) => void files.set(path, [...(files.get(path) ?? []), chunk]));
  for (const [path, chunks] of files) {
    await mkdir(dirname(join(folder, path)), { recursive: true });
    await writeFile(join(folder, path), Buffer.concat(chunks));
  }
}
