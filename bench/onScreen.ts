import { spawn } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { chromium } from '@playwright/test';
import type { Page } from '@playwright/test';
import type { Folio } from '@elastic-folio/core';
import { packFolio } from '@elastic-folio/core/write';
import { CHROMIUM } from '../e2e/chromium.ts';

const PORT = 4790;
const ORIGIN = `http://127.0.0.1:${PORT}`;
/** Turns of the wheel through the whole document. */
const TURNS = 60;

export interface OnScreen {
  /** From opening the Almanac to its first page, and from keystrokes to the changed page. */
  almanac: { firstPageMs: number; strokesMs: number[] };
  /**
   * A long document: from opening it to its first page and to its last, and the time to scroll all through it; the most
   * memory that the pages' process and the server's took (Linux, proc(5), VmHWM).
   */
  long: { firstPageMs: number; lastPageMs: number; scrolledMs: number; browserMiB: number; serverMiB: number };
}

/** Measures the program as it is seen, in a warm browser. */
export async function onScreen(long: Folio, time: (work: () => Promise<void>) => Promise<number>): Promise<OnScreen> {
  const data = await mkdtemp(join(tmpdir(), 'folio-bench-data-'));
  const server = spawn(process.execPath, ['dist/server.mjs'], {
    env: { ...process.env, PORT: String(PORT), FOLIO_DATA: data },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    await new Promise<void>((resolve, reject) => {
      server.stdout.on('data', (d: Buffer) => d.includes('Everything is on the shelf') && resolve());
      server.on('exit', () => reject(new Error('the server did not start')));
    });
    const browser = await chromium.launch(CHROMIUM);
    try {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
      await page.goto(ORIGIN);
      const almanac = await almanacIn(page, time);
      await page.close();
      return { almanac, long: await longIn(await browser.newPage({ viewport: { width: 1280, height: 800 } }), long, server.pid!) };
    } finally {
      await browser.close();
    }
  } finally {
    server.kill('SIGTERM');
    await new Promise((r) => server.once('exit', r));
    await rm(data, { recursive: true, force: true });
  }
}

async function almanacIn(page: Page, time: (work: () => Promise<void>) => Promise<number>): Promise<OnScreen['almanac']> {
  const id = await page.locator('.shelf-row', { hasText: 'Almanac' }).getAttribute('data-document');
  const firstPageMs = await time(async () => {
    await page.goto(`${ORIGIN}/d/${id}/intake`);
    await page.waitForFunction(() => document.querySelector('.spread .glyphs') && [...document.querySelectorAll('.spread image')].length);
  });
  await page.goto(`${ORIGIN}/d/${id}/intake?item=feature-1&page=3`);
  await page.locator('.ProseMirror p').first().click();
  await page.waitForTimeout(1000);
  const strokesMs: number[] = [];
  for (let i = 0; i < 12; i++) strokesMs.push(await keystroke(page));
  return { firstPageMs, strokesMs };
}

const keystroke = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const frame = document.querySelector('.spread [data-item="feature-1"]')!.closest('.spread')!;
        const began = performance.now();
        new MutationObserver((_, o) => {
          o.disconnect();
          requestAnimationFrame(() => resolve(performance.now() - began));
        }).observe(frame, { childList: true, subtree: true });
        document.execCommand('insertText', false, 'x');
      }),
  );

async function longIn(page: Page, folio: Folio, server: number): Promise<OnScreen['long']> {
  const noFiles = { stream: () => Promise.reject(new Error('it has no files')) };
  const form = new FormData();
  form.set('file', new Blob([await buffer(packFolio(folio, new Map(), noFiles as never))]), 'long.efolio');
  const answer = await fetch(`${ORIGIN}/api/folios`, { method: 'POST', body: form, headers: { origin: ORIGIN } });
  const { id } = (await answer.json()) as { id: string };
  const began = performance.now();
  await page.goto(`${ORIGIN}/d/${id}/intake`);
  await page.waitForFunction(() => document.querySelector('.spread .glyphs'), null, { timeout: 120_000 });
  const firstPageMs = performance.now() - began;
  await scrollTo(page, 1);
  const lastPageMs = performance.now() - began;
  const scrolling = performance.now();
  for (let turn = TURNS - 1; turn >= 0; turn--) await scrollTo(page, turn / TURNS);
  const scrolledMs = performance.now() - scrolling;
  return { firstPageMs, lastPageMs, scrolledMs, browserMiB: await browserMemory(), serverMiB: await highestMemory(server) };
}

/** Scrolls to a place, as a share of the document, and waits until what stands there is drawn. */
async function scrollTo(page: Page, share: number): Promise<void> {
  await page.waitForFunction(
    (at) => {
      const table = document.querySelector('.table')!;
      const top = at * (table.scrollHeight - table.clientHeight);
      // Pages come in one after another: the end moves away while they do.
      if (Math.abs(table.scrollTop - top) > 2) table.scrollTop = top;
      const box = table.getBoundingClientRect();
      const seen = [...table.querySelectorAll('.on-table')].filter((s) => {
        const own = s.getBoundingClientRect();
        return own.bottom > box.top + 40 && own.top < box.bottom - 40;
      });
      const numbers = document.querySelectorAll('.on-table').length;
      const all = table.scrollHeight > 3000 * 100;
      return all && numbers > 0 && seen.length > 0 && seen.every((s) => s.querySelector('.glyphs'));
    },
    share,
    { timeout: 120_000, polling: 20 },
  );
}

/** The most memory a process has taken, in MiB. */
async function highestMemory(process: number | string): Promise<number> {
  const status = await readFile(`/proc/${process}/status`, 'utf8');
  return Number(/VmHWM:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024;
}

/** The most memory of the process that holds the pages: the largest of Chromium's renderers. */
async function browserMemory(): Promise<number> {
  let most = 0;
  for (const id of await readdir('/proc')) {
    if (!/^\d+$/.test(id)) continue;
    const command = await readFile(`/proc/${id}/cmdline`, 'utf8').catch(() => '');
    if (command.includes('--type=renderer')) most = Math.max(most, await highestMemory(id).catch(() => 0));
  }
  return most;
}
