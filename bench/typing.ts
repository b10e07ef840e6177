import { readdir, readFile } from 'node:fs/promises';
import { buffer } from 'node:stream/consumers';
import { chromium } from '@playwright/test';
import type { Browser, CDPSession } from '@playwright/test';
import type { Folio } from '@elastic-folio/core';
import { packFolio } from '@elastic-folio/core/write';
import { CHROMIUM } from '../e2e/chromium.ts';
import { median } from './median.ts';
import { runningServer } from './runningServer.ts';

/** Keys that are typed and measured after some that are not. */
const [WARM_UP, KEYS] = [8, 40];
const REST_MS = 8000;
/** Time between two keys: what one causes is over before the next. */
const PAUSE_MS = 250;
/** Ticks of the clock that proc(5) counts CPU time in, a second. */
const TICKS = 100;

export interface TypingTimes {
  pages: number;
  /** CPU milliseconds for a key: of the window’s own thread (the median and the most), of the typesetter’s thread beside it, of the server. */
  windowMs: number;
  mostWindowMs: number;
  typesetterMs: number;
  serverMs: number;
  /** Edits that the server was sent for a key, and kB. */
  edits: number;
  kB: number;
}

/** Types into the text beside the page in a real browser, on documents of several lengths, and counts the work of each key. */
export async function typingTimes(documents: readonly Folio[]): Promise<TypingTimes[]> {
  const server = await runningServer(4795);
  const browser = await chromium.launch(CHROMIUM);
  try {
    // The first of them is typed into twice: what runs for the first time is slower, once.
    const out: TypingTimes[] = [];
    for (const folio of [documents[0]!, ...documents]) {
      out.push(await typed(browser, folio, server.origin, server.pid));
    }
    return out.slice(1);
  } finally {
    await browser.close();
    await server.stop();
  }
}

async function typed(browser: Browser, folio: Folio, origin: string, server: number): Promise<TypingTimes> {
  const noFiles = { stream: () => Promise.reject(new Error('it has no files')) };
  const form = new FormData();
  form.set('file', new Blob([await buffer(packFolio(folio, new Map(), noFiles as never))]), 'typed.efolio');
  const answer = await fetch(`${origin}/api/folios`, { method: 'POST', body: form, headers: { origin } });
  const { id } = (await answer.json()) as { id: string };
  const frame = Object.values(folio.stories)[0]!.frames[0]!.item;
  const pages = folio.head.spreadOrder.length;
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${origin}/d/${id}/intake?item=${frame}`);
  await page.waitForFunction(() => document.querySelector('.spread .glyphs'), null, { timeout: 240_000 });
  await page.getByText(`${pages} pages`, { exact: false }).first().waitFor({ timeout: 240_000 });
  const cdp = await page.context().newCDPSession(page);
  // The clock of the thread: what else the machine does is not counted.
  await cdp.send('Performance.enable', { timeDomain: 'threadTicks' });
  const renderer = await rendererOf(browser);
  const sent: { edits: number; bytes: number }[] = [];
  page.on('request', (r) => {
    const body = r.method() === 'POST' && r.url().endsWith('/edits') ? r.postData() : null;
    if (body) sent.push({ edits: (JSON.parse(body) as { edits: unknown[] }).edits.length, bytes: body.length });
  });
  await page.locator('.ProseMirror p').first().click();
  await page.keyboard.press('Home');
  // The pages behind are set in the background: it is over when nothing is worked on any more.
  await idle(renderer);
  await idle(server);
  // What the server does when nobody types: it looks for work several times a second.
  const restingPerMs = async (): Promise<number> => {
    const before = await ticks(server);
    await page.waitForTimeout(REST_MS);
    return ((await ticks(server)) - before) / REST_MS;
  };
  const before = await restingPerMs();
  const window: number[] = [];
  let [workerTicks, serverTicks, began] = [0, 0, 0];
  for (let i = 0; i < WARM_UP + KEYS; i++) {
    if (i === WARM_UP) {
      sent.length = 0;
      [workerTicks, serverTicks, began] = [await workerTicksOf(renderer), await ticks(server), performance.now()];
    }
    const worked = await taskSeconds(cdp);
    await page.keyboard.press('i');
    await page.waitForTimeout(PAUSE_MS);
    if (i >= WARM_UP) window.push(((await taskSeconds(cdp)) - worked) * 1000);
  }
  // What is written after a while belongs to the keys as well.
  await page.waitForTimeout(6000);
  const [typedTicks, typedMs] = [await ticks(server), performance.now() - began];
  const idlePerMs = Math.min(before, await restingPerMs());
  const perKey = (ticksNow: number, before: number): number => ((ticksNow - before) * 1000) / TICKS / KEYS;
  const times: TypingTimes = {
    pages,
    windowMs: median(window),
    mostWindowMs: Math.max(...window),
    typesetterMs: perKey(await workerTicksOf(renderer), workerTicks),
    serverMs: perKey(typedTicks - idlePerMs * typedMs, serverTicks),
    edits: sent.reduce((n, s) => n + s.edits, 0) / KEYS,
    kB: sent.reduce((n, s) => n + s.bytes, 0) / KEYS / 1000,
  };
  await page.close();
  return times;
}

/** CPU time of the page’s own thread, in seconds. */
async function taskSeconds(cdp: CDPSession): Promise<number> {
  const { metrics } = await cdp.send('Performance.getMetrics');
  return metrics.find((m) => m.name === 'TaskDuration')!.value;
}

/** Waits until a process has nothing to do. */
async function idle(process: number): Promise<void> {
  for (let quiet = 0, last = await ticks(process); quiet < 4;) {
    await new Promise((r) => setTimeout(r, 500));
    const now = await ticks(process);
    quiet = now - last <= 3 ? quiet + 1 : 0;
    last = now;
  }
}

/** The process that draws the page: of those there are, the one that has worked most. */
async function rendererOf(browser: Browser): Promise<number> {
  const { processInfo } = await (await browser.newBrowserCDPSession()).send('SystemInfo.getProcessInfo');
  return processInfo.filter((p) => p.type === 'renderer').sort((x, y) => y.cpuTime - x.cpuTime)[0]!.id;
}

/** CPU time of the workers of a page, in ticks: Chromium names their threads. */
async function workerTicksOf(process: number): Promise<number> {
  let all = 0;
  for (const thread of await readdir(`/proc/${process}/task`)) {
    const stat = await readFile(`/proc/${process}/task/${thread}/stat`, 'utf8');
    if (stat.includes('(DedicatedWorker')) all += ticksIn(stat);
  }
  return all;
}

/** CPU time that a process has taken, in ticks (proc(5): utime and stime). */
const ticks = async (process: number): Promise<number> => ticksIn(await readFile(`/proc/${process}/stat`, 'utf8'));

function ticksIn(stat: string): number {
  const fields = stat.split(') ')[1]!.split(' ');
  return Number(fields[11]) + Number(fields[12]);
}
