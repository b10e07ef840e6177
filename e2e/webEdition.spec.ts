import { expect, test } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import AxeBuilder from './axe.ts';
import { farthest, placedIn, seen, writePlaced } from './wordsInPlace.ts';

const out = resolve('test-results/web');
const url = (id: string): string => `file://${join(out, id, 'html', 'index.html')}`;
const SAMPLES = ['marrowby-almanac', 'open-dome-night'] as const;
/** The samples as they are written, and in the languages that they are translated into. */
const EDITIONS = ['marrowby-almanac', 'open-dome-night', 'marrowby-almanac.de', 'marrowby-almanac.ja', 'open-dome-night.ja'];

test.beforeAll(() => {
  const folio = (...args: string[]) =>
    expect(spawnSync(process.execPath, ['dist/folio.mjs', ...args], { encoding: 'utf8' }).status).toBe(0);
  folio('samples', '--out', out);
  for (const name of EDITIONS) {
    const [id, language] = name.split('.');
    folio('convert', join(out, `${id}.efolio`), '--to', 'html', '--out', join(out, name), ...(language ? ['--edition', language] : []));
  }
  writePlaced(join(out, 'placed.json'));
});

for (const scale of [1, 2])
  for (const id of EDITIONS)
    test(`${id} at device scale ${scale}: every word and line stands where the typesetter put it`, async ({ browser }) => {
      const context = await browser.newContext({ deviceScaleFactor: scale, viewport: { width: 1000, height: 900 } });
      const page = await context.newPage();
      const requests: string[] = [];
      const complaints: string[] = [];
      page.on('request', (r) => void (r.url().startsWith('file:') || r.url().startsWith('data:') || requests.push(r.url())));
      page.on('console', (m) => void (m.type() === 'error' && complaints.push(m.text())));
      page.on('pageerror', (e) => void complaints.push(e.message));
      // Plainly: else pages that are far away are not drawn before they come near, nor their typefaces asked for.
      await page.goto(`${url(id)}?plain`);
      await page.evaluate(() => document.fonts.ready);
      const faces = await page.evaluate(() => [...document.fonts].map((f) => `${f.family} ${f.status}`));
      expect(faces.length).toBeGreaterThan(2);
      expect(faces.filter((f) => !f.endsWith(' loaded'))).toEqual([]);
      const { count, worst, where } = farthest(placedIn(join(out, 'placed.json'), id), await seen(page));
      test.info().annotations.push({ type: 'measured', description: `${count} words, worst ${worst.toFixed(3)} px` });
      console.log(`${id} at ${scale}: ${count} words, worst ${worst.toFixed(3)} px at ${where}`);
      // Japanese has no spaces: its words are whole lines.
      expect(count).toBeGreaterThan(id.endsWith('.ja') ? 10 : 50);
      // Browsers round the width of every letter; a line of German has most of them.
      expect(worst).toBeLessThan(0.8);
      expect([requests, complaints]).toEqual([[], []]);
      await context.close();
    });

for (const id of SAMPLES)
  test(`${id}: axe-core finds nothing serious; keys lead from page to page; it reads without its script`, async ({ browser }) => {
    const page = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
    await page.goto(url(id));
    expect((await new AxeBuilder(page).run()).filter((v) => v.impact === 'serious' || v.impact === 'critical')).toEqual([]);
    if (id === 'marrowby-almanac') {
      await page.keyboard.press('ArrowRight');
      await expect.poll(() => page.evaluate(() => Math.round(document.getElementById('page-2')!.getBoundingClientRect().top))).toBe(0);
      await page.keyboard.press('End');
      await expect(page.locator('#page-16')).toBeInViewport();
      await page.goto(`${url(id)}#page-5`);
      await expect(page.locator('#page-5')).toBeInViewport();
      const heading = page.getByRole('heading', { level: 1, name: /When the dome turns/ });
      await expect(heading).toHaveCount(1);
      await expect(page.getByRole('link', { name: /end of this issue/ })).toHaveAttribute('href', '#page-15');
      await expect(page.locator('[lang=de]')).toContainText('Liebe Freunde');
      // A table is told as one to assistive technology, each part with its headings.
      const tables = page.getByRole('table');
      expect(await tables.count()).toBeGreaterThan(1);
      for (const table of await tables.all()) await expect(table.getByRole('columnheader').first()).toHaveText(/\S/);
    }
    await page.context().close();
    const plain = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
    await plain.goto(url(id));
    await expect(plain.locator('main')).toContainText(id === 'open-dome-night' ? 'A warm coat.' : 'There is a sound that everyone');
    await plain.context().close();
  });

for (const scale of [0.83, 1, 2])
  test(`effects and straight lines are whole at device scale ${scale}: the star dial`, async ({ browser }) => {
    const context = await browser.newContext({ deviceScaleFactor: scale, viewport: { width: 1000, height: 1100 } });
    const page = await context.newPage();
    await page.goto(url('marrowby-almanac'));
    await page.locator('#page-12 [data-item="dial-disc"]').scrollIntoViewIfNeeded();
    const sheet = (await page.locator('#page-12').boundingBox())!;
    const shot = (await page.screenshot()).toString('base64');
    /** The colours of a pixel and its neighbours above and below, at a place of the page in points. */
    const at = (x: number, y: number): Promise<number[][]> =>
      page.evaluate(
        async ([data, px, py]) => {
          const image = await createImageBitmap(new Blob([Uint8Array.from(atob(data), (c) => c.charCodeAt(0))]));
          const context = new OffscreenCanvas(1, 5).getContext('2d')!;
          context.drawImage(image, -px, 2 - py);
          const { data: rgba } = context.getImageData(0, 0, 1, 5);
          return [0, 1, 2, 3, 4].map((i) => [...rgba.subarray(i * 4, i * 4 + 3)]);
        },
        [shot, Math.floor((sheet.x + (x * 96) / 72) * scale), Math.floor((sheet.y + (y * 96) / 72) * scale)] as const,
      );
    const near = (a: number[], b: number[]): boolean => a.every((v, i) => Math.abs(v - b[i]!) < 26);
    // The disc is green (#1E5B4B) on every side of its middle; a filter that is cut off would leave night there.
    for (const [x, y] of [
      [-70, -70],
      [70, -70],
      [-70, 70],
      [70, 70],
    ] as const)
      expect([x, y, (await at(297.6 + x, 400 + y)).every((c) => near(c, [30, 91, 75]))]).toEqual([x, y, true]);
    // Hours three and nine are level lines without any height of their own, in the colour of the rim.
    for (const x of [-159, 159]) expect([x, (await at(297.6 + x, 400)).some((c) => near(c, [240, 179, 106]))]).toEqual([x, true]);
    await context.close();
  });
