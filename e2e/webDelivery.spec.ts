import { join, resolve } from 'node:path';
import sharp from 'sharp';
import { expect, test } from '@playwright/test';
import type { Browser, Page } from '@playwright/test';
import AxeBuilder from './axe.ts';
import { makeEditions } from './editions.ts';
import { staticHost } from './staticHost.ts';

const out = resolve('test-results/delivery');
const collect = 'http://127.0.0.1:4791/collect';
const RECIPES = {
  plain: {
    fit: 'width',
    bar: ['contents', 'overview', 'search', 'share'],
    shareAt: 'https://marrowby.example/spring',
    sharePicture: true,
  },
  narrow: { form: 'spreads', fit: 'width', sideBySide: 1000 },
  shapes: { text: 'shapes' },
  flowing: { text: 'flowing' },
  picture: { text: 'picture', resolution: 200 },
  kept: { form: 'sections', fit: 'width', bar: ['contents', 'overview', 'arrows', 'search'], app: true, offline: 'all' },
  opened: { form: 'sections', fit: 'width', app: true, offline: 'opened' },
  measured: {
    form: 'slides',
    fit: 'page',
    bar: ['arrows', 'search'],
    measureAt: collect,
    measureId: 'alm',
    measured: ['page', 'link', 'search'],
  },
  hanging: { fit: 'width', measureAt: 'http://127.0.0.1:4791/hangs', measured: ['page'], bar: ['arrows'] },
  throwing: {
    fit: 'width',
    bar: ['arrows', 'number'],
    head: '<script>throw new Error("own head")</script>',
    end: '<script>document.querySelector("nothing").remove()</script>',
  },
} as const;
type Name = keyof typeof RECIPES;
const url = (name: Name, file = 'index.html'): string => `file://${join(out, name, 'html', file)}`;
const folder = (name: Name): string => join(out, name, 'html');

test.beforeAll(() => makeEditions(out, RECIPES));

/** A page of a reader's own, who likes things calm. */
const reader = async (browser: Browser, more: object = {}): Promise<Page> =>
  (await browser.newContext({ reducedMotion: 'reduce', viewport: { width: 1280, height: 800 }, ...more })).newPage();

test('letters that are drawn look as live ones do, and can still be found, copied and heard', async ({ browser }) => {
  const shot = async (name: Name): Promise<Uint8Array> => {
    const page = await reader(browser);
    await page.goto(`${url(name)}?plain#page-3`);
    await page.evaluate(() => document.fonts.ready);
    const png = await page.locator('#page-3').screenshot();
    const text = page.getByText('weighs a little over nine tonnes');
    expect(await text.count()).toBeGreaterThan(0);
    const copied = await page.evaluate(() => {
      getSelection()!.selectAllChildren(document.querySelector('#page-3 h2')!);
      return getSelection()!.toString().trim();
    });
    expect(copied).toBe('A roof with a memory');
    await page.context().close();
    // Made small, so that half a pixel, to which browsers move live lines, does not count.
    return sharp(png).removeAlpha().greyscale().resize(198, 255, { fit: 'fill' }).raw().toBuffer();
  };
  const live = await shot('plain');
  for (const name of ['shapes', 'picture'] as const) {
    const drawn = await shot(name);
    expect(drawn.length).toBe(live.length);
    const off = live.reduce((sum, v, i) => sum + Math.abs(v - drawn[i]!), 0) / live.length;
    // Moved by four pixels, the page would differ by 7 across and by 12 down.
    expect(off).toBeLessThan(3);
  }
});

test('lines that the browser breaks begin where the layout has them, and cover nothing', async ({ browser }) => {
  const tops = async (name: Name): Promise<Record<string, number[]>> => {
    const page = await reader(browser);
    await page.goto(`${url(name)}?plain`);
    await page.evaluate(() => document.fonts.ready);
    const found = await page.evaluate(() =>
      Object.fromEntries(
        [...document.querySelectorAll('#page-3 :is(h2,p)[id],#page-7 :is(h1,h2,p)[id]')].map((e) => {
          // Letters alone: boxes around them are made otherwise.
          const boxes: DOMRect[] = [];
          const walker = document.createTreeWalker(e, NodeFilter.SHOW_TEXT);
          for (let node = walker.nextNode(); node; node = walker.nextNode()) {
            if (!node.textContent!.trim()) continue;
            const range = document.createRange();
            range.selectNodeContents(node);
            boxes.push(...range.getClientRects());
          }
          const page = e.closest('.page')!.getBoundingClientRect();
          return [
            e.id,
            [
              Math.min(...boxes.map((r) => r.left - page.left)),
              Math.min(...boxes.map((r) => r.top - page.top)),
              Math.max(...boxes.map((r) => r.bottom - page.top)),
            ],
          ];
        }),
      ),
    );
    await page.context().close();
    return found;
  };
  const [live, flowing] = [await tops('plain'), await tops('flowing')];
  expect(Object.keys(flowing)).toEqual(Object.keys(live));
  expect(Object.keys(live).length).toBeGreaterThan(12);
  // The first paragraph of every column begins within a px; lines break otherwise, so those after it may be a line or two off.
  const firsts = Object.entries(live).map(([id, [left, top]]) => [Math.abs(left! - flowing[id]![0]!), Math.abs(top! - flowing[id]![1]!)]);
  expect(firsts.filter(([dx]) => dx! > 20)).toEqual([]);
  expect(firsts.filter(([, dy]) => dy! <= 1.5).length).toBeGreaterThan(firsts.length / 2);
  expect(Math.max(...firsts.map(([, dy]) => dy!))).toBeLessThan(45);
});

test('on a host, in a sub-folder: everything that is asked for is there; a phone fetches smaller pictures than a large screen', async ({
  browser,
}) => {
  const weigh = async (width: number, deviceScaleFactor: number): Promise<number> => {
    const host = await staticHost(folder('plain'));
    const page = await reader(browser, { viewport: { width, height: 800 }, deviceScaleFactor });
    await page.goto(host.address);
    for (let n = 1; n <= 16; n++) {
      await page.locator(`#page-${n}`).scrollIntoViewIfNeeded();
      await page.waitForTimeout(60);
    }
    await page.waitForLoadState('networkidle');
    await page.context().close();
    await host.close();
    expect(host.asked.filter((a) => a.bytes === null && !a.path.endsWith('favicon.ico'))).toEqual([]);
    return host.asked.reduce((sum, a) => sum + (a.path.endsWith('.jpg') ? a.bytes! : 0), 0);
  };
  expect(await weigh(360, 1)).toBeLessThan((await weigh(1280, 2)) * 0.6);
});

test('kept on the device: with the host gone, all of it opens again, film and search included', async ({ browser }) => {
  const host = await staticHost(folder('kept'));
  const page = await reader(browser);
  await page.goto(host.address);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  await host.close();
  await page.reload();
  await expect(page.locator('#page-1')).toBeInViewport();
  await page.goto(`${host.address}diary.html`);
  await expect(page.getByRole('heading', { name: /Diary/ }).first()).toBeInViewport();
  await page.getByRole('searchbox').fill('nineteen times');
  await page.locator('.found a').click();
  await expect(page).toHaveURL(/when-the-dome-turns/);
  // Every picture is there, and parts of a film are answered as parts (RFC 9110, 15.3.7).
  expect(
    await page.evaluate(() =>
      [...document.images].every((i) => {
        i.loading = 'eager';
        return true;
      }),
    ),
  ).toBe(true);
  await expect.poll(() => page.evaluate(() => [...document.images].filter((i) => !i.complete || !i.naturalWidth).length)).toBe(0);
  const answer = await page.evaluate(async () => {
    const film = (await (await caches.open((await caches.keys())[0]!)).keys()).map((r) => r.url).find((u) => u.endsWith('.webm'))!;
    const r = await fetch(film, { headers: { range: 'bytes=10-19' } });
    return { status: r.status, length: (await r.arrayBuffer()).byteLength, range: r.headers.get('content-range') };
  });
  expect(answer).toMatchObject({ status: 206, length: 10, range: expect.stringMatching(/^bytes 10-19\/\d+$/) });
  await page.context().close();
});

test('a new version takes the place of the old one as a whole, once nobody reads that; what was opened stays', async ({ browser }) => {
  const context = await browser.newContext({ reducedMotion: 'reduce' });
  const page = await context.newPage();
  const host = await staticHost(folder('kept'));
  const port = Number(new URL(host.address).port);
  await page.goto(host.address);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  const [old] = await page.evaluate(() => caches.keys());
  await host.close();
  // The same address with another version: fewer things are fetched at first.
  const next = await staticHost(folder('opened'), undefined, port);
  await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())!.update());
  await expect.poll(() => page.evaluate(async () => !!(await navigator.serviceWorker.getRegistration())!.waiting)).toBe(true);
  expect(await page.evaluate(() => caches.keys())).toContain(old);
  await page.close();
  const again = await context.newPage();
  await again.goto(next.address);
  await expect.poll(() => again.evaluate(() => caches.keys())).not.toContain(old);
  await again.evaluate(() => document.fonts.ready);
  await again.waitForLoadState('networkidle');
  await next.close();
  await again.reload();
  await expect(again.locator('#page-1')).toBeInViewport();
  expect(await again.evaluate(() => [...document.images].filter((i) => i.loading !== 'lazy' && !i.naturalWidth).length)).toBe(0);
  await context.close();
});

test('what was opened once can be opened again without a connection, from the first visit on', async ({ browser }) => {
  const host = await staticHost(folder('opened'));
  const page = await reader(browser);
  await page.goto(host.address);
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined));
  const seen = (): Promise<string[]> =>
    page.evaluate(async () =>
      (await (await caches.open((await caches.keys())[0]!)).keys()).map((r) => new URL(r.url).pathname.split('/').slice(3).join('/')),
    );
  await expect.poll(async () => (await seen()).filter((f) => f.startsWith('fonts/')).length).toBeGreaterThan(1);
  await expect.poll(async () => (await seen()).filter((f) => f.startsWith('pictures/')).length).toBeGreaterThan(0);
  // What was not opened was not fetched.
  expect((await seen()).filter((f) => f.endsWith('.webm'))).toEqual([]);
  await host.close();
  await page.reload();
  await page.evaluate(() => document.fonts.ready);
  expect(await page.evaluate(() => [...document.images].filter((i) => i.loading !== 'lazy' && !i.naturalWidth).length)).toBe(0);
  expect(await page.evaluate(() => [...document.fonts].some((f) => f.status === 'error'))).toBe(false);
  await page.context().close();
});

test('sharing is the device’s own, with the address and the picture that the recipe names; without it the address is copied', async ({
  browser,
}) => {
  const host = await staticHost(folder('plain'));
  const page = await reader(browser);
  await page.addInitScript(() => {
    const shared: unknown[] = [];
    Object.assign(window, { shared });
    Object.assign(navigator, {
      canShare: () => true,
      share: async ({ title, url, files }: ShareData) =>
        void shared.push({ title, url, files: files?.map((f) => [f.type, f.size > 2000]) }),
    });
  });
  await page.goto(host.address);
  await page.getByRole('button', { name: 'Share' }).click();
  await expect
    .poll(() => page.evaluate(() => (window as unknown as { shared: unknown[] }).shared))
    .toEqual([{ title: 'The Marrowby Almanac', url: 'https://marrowby.example/spring', files: [['image/jpeg', true]] }]);
  await page.context().close();
  const plain = await reader(browser, { permissions: ['clipboard-read', 'clipboard-write'] });
  await plain.goto(host.address);
  await plain.getByRole('button', { name: 'Share' }).click();
  await expect(plain.locator('.told')).toHaveText('Address copied');
  expect(await plain.evaluate(() => navigator.clipboard.readText())).toBe('https://marrowby.example/spring');
  await plain.context().close();
  await host.close();
});

test('pages of a spread stand side by side from a width on, and below one another in narrower windows', async ({ browser }) => {
  for (const [width, beside] of [
    [1100, true],
    [960, false],
  ] as const) {
    const page = await reader(browser, { viewport: { width, height: 700 } });
    await page.goto(`${url('narrow')}#page-4`);
    const [a, b] = [(await page.locator('#page-4').boundingBox())!, (await page.locator('#page-5').boundingBox())!];
    expect(Math.abs(a.y - b.y) < 2).toBe(beside);
    if (!beside) expect(b.y).toBeGreaterThanOrEqual(a.y + a.height - 1);
    await page.context().close();
  }
});

test('nothing is sent before a yes; then what was said is sent, and a stop stops it', async ({ browser }) => {
  const host = await staticHost(folder('measured'), '/a/', 4791);
  const page = await reader(browser);
  await page.goto(host.address);
  expect((await new AxeBuilder(page).run()).map((v) => `${v.id}: ${v.targets[0]}`)).toEqual([]);
  await page.getByRole('button', { name: 'Next' }).click();
  await page.waitForTimeout(9000);
  expect(host.collected).toEqual([]);
  await page.getByRole('button', { name: 'Yes', exact: true }).click();
  await page.getByRole('button', { name: 'Next' }).click();
  await page.getByRole('searchbox').fill('dome');
  await page.getByRole('searchbox').press('Enter');
  await expect.poll(() => host.collected.length, { timeout: 12_000 }).toBe(1);
  const sent = JSON.parse(host.collected[0]!) as { id: string; events: { kind: string; page: number; what?: string }[] };
  expect(sent.id).toBe('alm');
  expect(sent.events.map((e) => [e.kind, e.page])).toEqual([
    ['page', 2],
    ['page', 3],
    ['search', 3],
  ]);
  expect(sent.events[2]!.what).toBe('dome');
  // Nothing that tells who it was.
  expect(Object.keys(sent).sort()).toEqual(['events', 'id', 'language', 'title', 'visit']);
  expect(await page.context().cookies()).toEqual([]);
  await page.getByRole('button', { name: 'Stop telling' }).click();
  await page.getByRole('button', { name: 'Next' }).click();
  await page.waitForTimeout(9000);
  expect(host.collected).toHaveLength(1);
  // The answer is kept, and nobody is asked again.
  await page.reload();
  await expect(page.getByRole('button', { name: 'Tell them' })).toBeVisible();
  await page.context().close();
  await host.close();
});

test('an edition inside a page turns its own pages, and not those around it', async ({ browser }) => {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await page.goto(`${url('measured')}#page-7`);
  await expect.poll(() => page.evaluate(() => location.hash)).toBe('#page-7');
  const inner = page.frames().find((f) => f.url().includes('embeds/'))!;
  await expect.poll(() => inner.evaluate(() => document.documentElement.scrollLeft), { timeout: 15_000 }).toBeGreaterThan(10);
  await page.waitForTimeout(1500);
  expect(await page.evaluate(() => location.hash)).toBe('#page-7');
  await expect(page.locator('#page-7')).toBeInViewport({ ratio: 0.9 });
  await page.context().close();
});

test('a collector that hangs hangs alone, and so do scripts of one’s own that throw', async ({ browser }) => {
  const host = await staticHost(folder('hanging'), '/a/', 4791);
  const page = await reader(browser);
  await page.goto(host.address);
  await page.getByRole('button', { name: 'Yes', exact: true }).click();
  await expect.poll(() => host.collected.length, { timeout: 12_000 }).toBe(1);
  await page.getByRole('button', { name: 'Next' }).click();
  await expect.poll(() => page.evaluate(() => location.hash)).toBe('#page-2');
  await page.context().close();
  await host.close();
  const own = await reader(browser);
  const errors: string[] = [];
  own.on('pageerror', (e) => errors.push(e.message));
  await own.goto(url('throwing'));
  await own.getByRole('button', { name: 'Next' }).click();
  await expect(own.locator('output')).toHaveText('Page 2 of 16');
  expect(errors).toHaveLength(2);
  await own.context().close();
});

test('at 400 % (320 × 256 px of room; WCAG 2.2, 1.4.10) pages are as wide as the window; printed, each is a sheet', async ({ browser }) => {
  const page = await reader(browser, { viewport: { width: 320, height: 256 } });
  await page.goto(url('plain'));
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(320);
  await page.getByText('Contents', { exact: true }).click();
  await page.getByRole('link', { name: 'Towards morning' }).click();
  await expect(page.getByRole('heading', { name: 'Towards morning' })).toBeInViewport();
  const pdf = await page.pdf({ preferCSSPageSize: true, printBackground: true, width: '220mm', height: '290mm' });
  expect(pdf.toString('latin1').match(/\/Type\s*\/Page\b/g)).toHaveLength(16);
  await page.context().close();
});

test('small pictures of all pages lead to each of them, over files, and without a program', async ({ browser }) => {
  for (const javaScriptEnabled of [true, false]) {
    const page = await reader(browser, { javaScriptEnabled });
    await page.goto(url('kept'));
    await page.getByText('Pages', { exact: true }).first().click();
    await page.getByRole('link', { name: 'Page 14 of 16' }).click();
    await expect(page).toHaveURL(/#page-14$/);
    await expect(page.locator('#page-14')).toBeInViewport();
    await page.context().close();
  }
});
