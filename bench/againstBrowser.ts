import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import type { Browser } from '@playwright/test';
import { FileDerived, sharpPictures } from '@elastic-folio/core/node';
import { convert, readSettings, writerById } from '@elastic-folio/core/write';
import { withDocument } from '../cli/src/openDocument.ts';
import type { OpenDocument } from '../cli/src/openDocument.ts';
import { CHROMIUM } from '../e2e/chromium.ts';
import { median } from './median.ts';

const ROUNDS = 5;
const COLD_ROUNDS = 3;

/** What both have spent on one PDF of the same pages, in milliseconds of CPU in all their threads and processes. */
export interface WorkOfBoth {
  /** In programs that are running: the document read, set, written, read back and accounted for; the page loaded and printed. */
  oursMs: number;
  browserMs: number;
  /** Ours in the browser's, as the median of the rounds: they go by turns. */
  timesBrowser: number;
  /** The same from the start of each program to its end. */
  oursFromStartMs: number;
  browserFromStartMs: number;
  timesBrowserFromStart: number;
  kiB: number;
  browserKiB: number;
}

/**
 * A PDF of a document's pages, all our work against all of a browser's: we read the document, encode its pictures, set, write,
 * read back and make the ledger; the browser loads the web edition, whose places and pictures are worked out already, and prints.
 */
export async function workOfBoth(document: string): Promise<WorkOfBoth> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-print-'));
  let browser = await chromium.launch(CHROMIUM);
  try {
    const size = await written(document, 'html', join(folder, 'html'));
    const address = `file://${join(folder, 'html', 'index.html')}`;
    const warm: { ours: number; browser: number }[] = [];
    let browserBytes = 0;
    for (let round = 0; round <= ROUNDS; round++) {
      const began = cpuOfThis();
      await written(document, 'pdf', join(folder, 'pdf'));
      const ours = cpuOfThis() - began;
      const before = await cpuOf(browser);
      browserBytes = await printedBy(browser, address, size);
      if (round) warm.push({ ours, browser: (await cpuOf(browser)) - before });
    }
    const cold: { ours: number; browser: number }[] = [];
    for (let round = 0; round < COLD_ROUNDS; round++) {
      const ours = await ofCommand(document, join(folder, 'command'));
      await browser.close();
      browser = await chromium.launch(CHROMIUM);
      await printedBy(browser, address, size);
      cold.push({ ours, browser: await cpuOf(browser) });
    }
    const of = <T>(rounds: readonly T[], value: (r: T) => number): number => median(rounds.map(value));
    return {
      oursMs: of(warm, (r) => r.ours),
      browserMs: of(warm, (r) => r.browser),
      timesBrowser: of(warm, (r) => r.ours / r.browser),
      oursFromStartMs: of(cold, (r) => r.ours),
      browserFromStartMs: of(cold, (r) => r.browser),
      timesBrowserFromStart: of(cold, (r) => r.ours / r.browser),
      kiB: (await stat(join(folder, 'pdf', 'document.pdf'))).size / 1024,
      browserKiB: browserBytes / 1024,
    };
  } finally {
    await browser.close();
    await rm(folder, { recursive: true, force: true });
  }
}

interface PageSize {
  width: string;
  height: string;
}

/** Makes an output as a run does, with nothing kept from one before; the size of the first page, in inches. */
async function written(document: string, output: string, to: string): Promise<PageSize> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-print-'));
  const writer = writerById(output)!;
  const write = async ({ folio, fontsOf, media, others, origin, derived }: OpenDocument): Promise<PageSize> => {
    await convert(folio, writer, readSettings(writer, { version: writer.version, name: writer.label, settings: {} }), to, {
      fonts: await fontsOf(folio),
      media,
      others,
      origin,
      pictures: sharpPictures,
      derived,
      player: async () => new Uint8Array(),
      clock: () => new Date(0),
      signal: new AbortController().signal,
      progress: () => undefined,
    });
    const { box } = Object.values(folio.spreads)[0]!.pages[0]!;
    return { width: `${box.width / 72}in`, height: `${box.height / 72}in` };
  };
  try {
    return await withDocument(document, write, new FileDerived(folder));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function printedBy(browser: Browser, address: string, size: PageSize): Promise<number> {
  const page = await browser.newPage();
  await page.goto(address);
  await page.evaluate(() => document.fonts.ready);
  // The page stays, so that the work of its process is counted.
  return (await page.pdf({ ...size, printBackground: true, tagged: true })).length;
}

function cpuOfThis(): number {
  const { user, system } = process.cpuUsage();
  return (user + system) / 1000;
}

/** Milliseconds of CPU of all processes of a browser that are there, pages and helpers. */
async function cpuOf(browser: Browser): Promise<number> {
  const { processInfo } = await (await browser.newBrowserCDPSession()).send('SystemInfo.getProcessInfo');
  return processInfo.reduce((sum, p) => sum + p.cpuTime * 1000, 0);
}

/** Milliseconds of CPU of the command that makes the PDF, in a process that has kept nothing. */
async function ofCommand(document: string, to: string): Promise<number> {
  const temporary = await mkdtemp(join(tmpdir(), 'folio-print-'));
  const before = cpuOfChildren();
  try {
    const command = spawn(process.execPath, ['dist/folio.mjs', 'convert', document, '--to', 'pdf', '--out', to, '--json'], {
      env: { ...process.env, TMPDIR: temporary },
      stdio: 'ignore',
    });
    const [code] = (await once(command, 'exit')) as [number | null];
    if (code !== 0) throw new Error('The command has failed.');
    return cpuOfChildren() - before;
  } finally {
    await rm(temporary, { recursive: true, force: true });
  }
}

/** Milliseconds of CPU of the processes that this one began and that have ended (proc(5): cutime and cstime, of 100 a second). */
function cpuOfChildren(): number {
  const fields = readFileSync('/proc/self/stat', 'utf8').split(') ')[1]!.split(' ');
  return (Number(fields[13]) + Number(fields[14])) * 10;
}
