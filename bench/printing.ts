import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { Browser } from '@playwright/test';
import type { Folio } from '@elastic-folio/core';
import { Composer } from '@elastic-folio/core/compose';
import type { Composition, FontSet } from '@elastic-folio/core/compose';
import { FileDerived, sharpPictures } from '@elastic-folio/core/node';
import { readSettings, writerById } from '@elastic-folio/core/write';

export interface Printed {
  pages: number;
  /** Setting the document and writing its PDF, and writing it from a document that is set. */
  composeAndWriteMs: number;
  writeMs: number;
  kiB: number;
  /** Memory that writing took at its highest, above the loaded and set document. */
  aboveLoadedMiB: number;
  /** A warm Chromium printing the same pages from static HTML. */
  chromium: { ms: number; kiB: number } | null;
}

/** Hands over the files of an output as they are written; `take` gets each piece. */
async function write(
  folio: Folio,
  composition: Composition,
  fonts: FontSet,
  output: string,
  folder: string,
  take: (path: string, bytes: Uint8Array) => unknown,
): Promise<void> {
  const writer = writerById(output)!;
  const job = {
    folio,
    composition,
    fonts,
    settings: readSettings(writer, { version: writer.version, name: writer.label, settings: {} }),
    media: () => Promise.reject(new Error('This document has no pictures.')),
    pictures: sharpPictures,
    derived: new FileDerived(join(folder, 'derived')),
    player: async () => new Uint8Array(),
    clock: () => new Date(0),
    signal: new AbortController().signal,
    progress: () => undefined,
  };
  for await (const file of writer.write(job)) for await (const chunk of file.body) await take(file.path, chunk);
}

/** Writes a document's PDF, and has a browser print the same pages where one is given. */
export async function printed(folio: Folio, fonts: FontSet, browser: Browser | null): Promise<Printed> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-print-'));
  try {
    const began = performance.now();
    const composition = new Composer(fonts).compose(folio);
    const composed = performance.now();
    let bytes = 0;
    globalThis.gc?.();
    const loaded = process.memoryUsage.rss();
    let peak = loaded;
    const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage.rss())), 5);
    const writing = performance.now();
    await write(folio, composition, fonts, 'pdf', folder, (_, chunk) => (bytes += chunk.length));
    const writeMs = performance.now() - writing;
    clearInterval(watch);
    const out: Printed = {
      pages: Object.keys(folio.spreads).length,
      composeAndWriteMs: composed - began + writeMs,
      writeMs,
      kiB: bytes / 1024,
      aboveLoadedMiB: (peak - loaded) / 2 ** 20,
      chromium: null,
    };
    if (browser) out.chromium = await printInBrowser(folio, composition, fonts, folder, browser);
    return out;
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function printInBrowser(
  folio: Folio,
  composition: Composition,
  fonts: FontSet,
  folder: string,
  browser: Browser,
): Promise<{ ms: number; kiB: number }> {
  const files = new Map<string, Uint8Array[]>();
  await write(folio, composition, fonts, 'html', folder, (path, chunk) => void files.set(path, [...(files.get(path) ?? []), chunk]));
  for (const [path, chunks] of files) {
    await mkdir(dirname(join(folder, path)), { recursive: true });
    await writeFile(join(folder, path), Buffer.concat(chunks));
  }
  const { box } = Object.values(folio.spreads)[0]!.pages[0]!;
  const page = await browser.newPage();
  // Warm: the browser has started, has read the fonts and has printed these very pages once.
  let ms = 0;
  let bytes = 0;
  for (let round = 0; round < 2; round++) {
    const began = performance.now();
    await page.goto(`file://${join(folder, 'index.html')}`);
    await page.evaluate(() => document.fonts.ready);
    const pdf = await page.pdf({ width: `${box.width / 72}in`, height: `${box.height / 72}in`, printBackground: true, tagged: true });
    ms = performance.now() - began;
    bytes = pdf.length;
  }
  await page.close();
  return { ms, kiB: bytes / 1024 };
}
