import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Browser } from '@playwright/test';
import type { Sample } from '@elastic-folio/demo';
import type { Folio } from '@elastic-folio/core';
import type { FontSet } from '@elastic-folio/core/compose';
import { FileDerived, sharpPictures } from '@elastic-folio/core/node';
import { convert, readSettings, writerById } from '@elastic-folio/core/write';
import { staticHost } from '../e2e/staticHost.ts';
import { bytesOf } from '../core/test/support/samples.ts';
import { median } from './median.ts';

/** A phone on a slow line: a quarter of this machine's speed, 1.6 Mbit/s, 150 ms to the host and back. */
const SLOWER = 4;
const LINE = { offline: false, downloadThroughput: 200_000, uploadThroughput: 94_000, latency: 150 };
const TURNS = 15;

/** How an edition comes and how its pages turn. */
export interface WebReadingTimes {
  /** Bytes that had come over the line when the largest thing of the first page was painted (W3C Largest Contentful Paint). */
  kBToFirstPage: number;
  firstPaintMs: number;
  largestPaintMs: number;
  /** W3C Layout Instability, the sum of all shifts while coming and turning. */
  shift: number;
  /** W3C Long Tasks: the longest of them while pages are turned, and how many there were over 100 ms; 0: none over 50 ms. */
  longestTurnTaskMs: number;
  turnTasksOver100: number;
  /** From the key to the next frame that is painted, median of the turns. */
  turnMs: number;
}

/** Writes an edition, serves it as a host does, opens it on a slow phone and turns its pages by keys. */
export async function webReadingTimes(
  browser: Browser,
  { sample, folio = sample.folio, fonts, settings }: { sample: Sample; folio?: Folio; fonts: FontSet; settings: Record<string, unknown> },
): Promise<WebReadingTimes> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-bench-'));
  const writer = writerById('html')!;
  const player = new Uint8Array(await readFile('dist/player.js'));
  await convert(folio, writer, readSettings(writer, { version: writer.version, name: '', settings }), join(folder, 'out'), {
    fonts,
    media: (id) => bytesOf(sample, id),
    pictures: sharpPictures,
    derived: new FileDerived(join(folder, 'derived')),
    player: async () => player,
    clock: () => new Date(0),
    signal: new AbortController().signal,
    progress: () => undefined,
  });
  const host = await staticHost(join(folder, 'out'), '/a/', 0, true);
  const tab = await browser.newPage({ viewport: { width: 390, height: 844 }, deviceScaleFactor: 2 });
  try {
    const session = await tab.context().newCDPSession(tab);
    await session.send('Network.enable');
    await session.send('Network.emulateNetworkConditions', LINE);
    await session.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
    const came: { at: number; bytes: number }[] = [];
    let began = 0;
    session.on('Network.requestWillBeSent', (e) => void (began ||= e.timestamp));
    session.on('Network.dataReceived', (e) => void came.push({ at: (e.timestamp - began) * 1000, bytes: e.encodedDataLength }));
    await tab.addInitScript(() => {
      const seen = { lcp: 0, fcp: 0, shift: 0, tasks: [] as number[] };
      (window as unknown as { seen: typeof seen }).seen = seen;
      const watch = (type: string, take: (e: PerformanceEntry) => void): void =>
        new PerformanceObserver((list) => list.getEntries().forEach(take)).observe({ type, buffered: true });
      watch('largest-contentful-paint', (e) => (seen.lcp = e.startTime));
      watch('paint', (e) => e.name === 'first-contentful-paint' && (seen.fcp = e.startTime));
      watch('layout-shift', (e) => (seen.shift += (e as unknown as { value: number }).value));
      watch('longtask', (e) => void seen.tasks.push(e.duration));
    });
    await tab.goto(`${host.address}index.html`, { waitUntil: 'load' });
    await tab.waitForTimeout(1500);
    const seen = () =>
      tab.evaluate(() => (window as unknown as { seen: { lcp: number; fcp: number; shift: number; tasks: number[] } }).seen);
    const first = await seen();
    const before = first.tasks.length;
    const turns: number[] = [];
    for (let i = 0; i < TURNS; i++) {
      turns.push(
        await tab.evaluate(
          () =>
            new Promise<number>((resolve) => {
              const at = performance.now();
              document.body.dispatchEvent(new KeyboardEvent('keydown', { key: 'PageDown', bubbles: true, cancelable: true }));
              requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - at)));
            }),
        ),
      );
      await tab.waitForTimeout(700);
    }
    const last = await seen();
    const tasks = last.tasks.slice(before);
    return {
      kBToFirstPage: came.filter((c) => c.at <= first.lcp).reduce((sum, c) => sum + c.bytes, 0) / 1000,
      firstPaintMs: first.fcp,
      largestPaintMs: first.lcp,
      shift: last.shift,
      longestTurnTaskMs: Math.max(0, ...tasks),
      turnTasksOver100: tasks.filter((t) => t > 100).length,
      turnMs: median(turns),
    };
  } finally {
    await tab.close();
    await host.close();
    await rm(folder, { recursive: true, force: true });
  }
}
