import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import AxeBuilder from './axe.ts';
import { addOutput, runOutput, scoreRow } from './scoreRows.ts';

const idOf = async (page: Page, title: string): Promise<string> => {
  const list = (await (await page.request.get('/api/folios')).json()) as { id: string; title: string }[];
  return list.find((f) => f.title === title)!.id;
};
const almanac = (page: Page): Promise<string> => idOf(page, 'The Marrowby Almanac');
/** Adds an output to a document and makes it; its own words begin the entry of the menu. */
async function make(page: Page, id: string, output: string, called: RegExp): Promise<void> {
  await page.goto(`/d/${id}/outputs`);
  await addOutput(page, called);
  await page.getByRole('button', { name: 'Close settings' }).click();
  await runOutput(scoreRow(page, output), 90_000);
}
async function remove(page: Page, id: string, output: string): Promise<void> {
  await page.goto(`/d/${id}/outputs`);
  await scoreRow(page, output).getByRole('button', { name: 'Remove' }).click();
  await expect(scoreRow(page, output)).toHaveCount(0);
}
const REFLOWS = /^E-book(?! of)/;

test('an e-book is made, downloaded, and read on devices beside the layout', async ({ page }) => {
  const id = await idOf(page, 'Handbook for Volunteer Observers');
  await make(page, id, 'epub', REFLOWS);
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    scoreRow(page, 'epub').getByRole('link', { name: 'Download' }).click(),
  ]);
  expect(download.suggestedFilename()).toMatch(/\.epub$/);

  await page.goto(`/d/${id}/compare?page=14`);
  const frame = page.frameLocator('iframe[title^="Page 14"]');
  await expect(frame.getByRole('heading', { name: 'Listening to the wheels' })).toBeVisible();
  const height = (): Promise<number> => frame.locator('body').evaluate((e) => e.scrollHeight);
  const before = await height();
  await page.getByText('Tablet, turned').click();
  await expect.poll(height).toBeLessThan(before);
  await page.getByRole('switch', { name: 'Night' }).click();
  await expect.poll(() => frame.locator('body').evaluate((e) => getComputedStyle(e).backgroundColor)).toBe('rgb(20, 24, 27)');
  // What a reader has set stays when the page is loaded again.
  await page.reload();
  await expect(page.getByRole('switch', { name: 'Night' })).toBeChecked();
  expect(await new AxeBuilder(page).run()).toEqual([]);

  await remove(page, id, 'epub');
});

test('fixed pages are seen one by one on a phone, and in pairs on a device that is turned', async ({ page }) => {
  const id = await almanac(page);
  await make(page, id, 'epub-fixed', /^E-book of fixed pages/);
  await page.goto(`/d/${id}/compare?page=4&device=phone`);
  const frames = page.locator('.device iframe');
  await expect(frames).toHaveCount(1);
  await expect(page.frameLocator('.device iframe').getByText('A night in the log')).toBeVisible();
  await page.getByText('Tablet, turned').click();
  await expect(frames).toHaveCount(2);
  await expect(page.frameLocator('.device iframe >> nth=1').getByText('Before you come')).toBeVisible();
  expect(await new AxeBuilder(page).run()).toEqual([]);
  await remove(page, id, 'epub-fixed');
});

test('a pinned picture stands between its paragraphs at every size of text, on every screen', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/structure?page=4&item=map-picture`);
  await page.getByRole('button', { name: 'Pin it there' }).click();
  await expect(page.getByRole('button', { name: 'Take the pin out' })).toBeVisible();
  await make(page, id, 'epub', REFLOWS);
  const outputs = (await (await page.request.get(`/api/folios/${id}/outputs`)).json()) as { output: string; lastDone: { id: string } }[];
  const { resultPort } = (await (await page.request.get('/api/settings')).json()) as { resultPort: number };
  const book = `http://${outputs.find((o) => o.output === 'epub')!.lastDone.id}.localhost:${resultPort}/book/reading`;
  for (const width of [390, 1024])
    for (const size of [60, 100, 200, 300]) {
      await page.setViewportSize({ width, height: 800 });
      await page.goto(`${book}?size=${size}`);
      const edge = (selector: string, side: 'top' | 'bottom'): Promise<number> =>
        page.locator(selector).evaluate((e, s) => e.getBoundingClientRect()[s], side);
      const picture = '#f-map-picture';
      expect([width, size, (await edge('#t-dome-feature-15', 'bottom')) <= (await edge(picture, 'top')) + 1]).toEqual([width, size, true]);
      expect([width, size, (await edge(picture, 'bottom')) <= (await edge('#t-dome-feature-16', 'top')) + 1]).toEqual([width, size, true]);
    }
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`/d/${id}/structure?page=4&item=map-picture`);
  await page.getByRole('button', { name: 'Take the pin out' }).click();
  await expect(page.getByRole('button', { name: 'Take the pin out' })).toHaveCount(0);
  await remove(page, id, 'epub');
});

test('an article is made of one strand alone, and is seen where the page begins', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/structure?part=path`);
  await page.getByRole('button', { name: 'Make an article of “When the dome turns”' }).click();
  await runOutput(scoreRow(page, 'article'), 90_000);
  await page.goto(`/d/${id}/compare?page=5`);
  const article = page.frameLocator('.device iframe');
  await expect(article.getByRole('heading', { name: 'Before you come' })).toBeVisible();
  await expect(article.getByText('Reading the sky')).toHaveCount(0);
  // The loop is short: a change, R, and the new article is seen where the old one was.
  const quoted = article.getByText(/They go quiet; then/);
  const times = await quoted.count();
  await page.goto(`/d/${id}/structure?page=4&item=quote`);
  await page.getByRole('checkbox', { name: 'Leave out of reading' }).click();
  await expect(page.getByRole('checkbox', { name: 'Leave out of reading' })).toBeChecked();
  await page.goto(`/d/${id}/compare?page=5`);
  await expect(page.getByText('The result is stale')).toBeVisible();
  await page.keyboard.press('r');
  await expect(page.getByText(/^Refreshing \d+ outputs? …/)).toBeVisible();
  await expect.poll(() => quoted.count(), { timeout: 60_000 }).toBe(times - 1);
  await page.goto(`/d/${id}/structure?page=4&item=quote`);
  await page.getByRole('checkbox', { name: 'Leave out of reading' }).click();
  await remove(page, id, 'article');
});
