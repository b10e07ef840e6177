import { join, resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import AxeBuilder from './axe.ts';
import { makeEditions } from './editions.ts';

const out = resolve('test-results/forms');
const bar = ['contents', 'arrows', 'slider', 'number', 'search', 'enlarge', 'sound', 'share', 'fullScreen'];
const RECIPES = {
  stacked: { form: 'stacked', fit: 'width', bar, progress: true },
  slides: { form: 'slides', fit: 'page', bar, turnsBy: ['keys', 'swipe', 'wheel'] },
  slidesDown: { form: 'slidesDown', fit: 'between', least: 20, bar },
  spreads: { form: 'spreads', fit: 'page', bar, barAt: 'bottom' },
  sections: { form: 'sections', fit: 'between', bar },
  banner: { form: 'banner', seconds: 1 },
} as const;
type Name = keyof typeof RECIPES;
const url = (name: Name, file = 'index.html'): string => `file://${join(out, name, 'html', file)}`;
const hash = (page: Page): Promise<string> => page.evaluate(() => location.hash);

test.beforeAll(() => makeEditions(out, RECIPES, (name) => (name === 'banner' ? 'five-worlds' : 'marrowby-almanac')));

/** The text of all pages as Chromium tells it to assistive technology. */
const spoken = async (page: Page): Promise<string> =>
  (await page.locator('main').ariaSnapshot())
    .split('\n')
    .flatMap(
      (line) =>
        /(?:heading|paragraph|listitem|text|cell|columnheader|rowheader|link)\b[^":]*(?:"([^"]*)")?(?:[^:]*: (.*))?$/
          .exec(line)
          ?.slice(1) ?? [],
    )
    .filter((t) => t)
    .join(' ')
    .replace(/\s+/g, ' ');

test('every form tells the same text in the same order, with its program and without', async ({ browser }) => {
  const texts = new Map<string, string>();
  for (const javaScriptEnabled of [true, false])
    for (const name of ['stacked', 'slides', 'slidesDown', 'spreads'] as const) {
      const page = await (await browser.newContext({ javaScriptEnabled, reducedMotion: 'reduce' })).newPage();
      await page.goto(url(name));
      if (javaScriptEnabled) await expect(page.locator('html')).toHaveClass(/played/);
      texts.set(`${name} ${javaScriptEnabled}`, (await spoken(page)).slice(0, 4000));
      await page.context().close();
    }
  const [first] = texts.values();
  expect(first).toContain('There is a sound that everyone who has worked a night on Marrowby Hill knows');
  expect(new Set(texts.values()).size).toBe(1);
});

for (const name of Object.keys(RECIPES) as Name[])
  test(`${name}: axe-core finds nothing`, async ({ browser }) => {
    const page = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
    await page.goto(url(name));
    expect((await new AxeBuilder(page).run()).map((v) => `${v.id}: ${v.targets[0]}`)).toEqual([]);
    await page.context().close();
  });

test('slides: keys, the wheel, the slider and the arrows turn pages; the address follows, and the way back is kept', async ({
  browser,
}) => {
  const page = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await page.goto(url('slides'));
  await page.keyboard.press('PageDown');
  await expect.poll(() => hash(page)).toBe('#page-2');
  await page.mouse.move(640, 400);
  await page.mouse.wheel(0, 120);
  await expect.poll(() => hash(page)).toBe('#page-3');
  await page.getByRole('button', { name: 'Next' }).click();
  await expect.poll(() => hash(page)).toBe('#page-4');
  await expect(page.locator('output')).toHaveText('Page 4 of 16');
  await page.getByRole('slider', { name: 'Pages' }).fill('9');
  await expect.poll(() => hash(page)).toBe('#page-9');
  await page.getByText('Contents', { exact: true }).click();
  await page.getByRole('link', { name: 'Make a star dial' }).click();
  await expect(page.getByRole('heading', { name: 'Make a star dial' })).toBeInViewport();
  await page.goBack();
  await expect.poll(() => hash(page)).toBe('#page-9');
  // A page can be kept, and is come back to.
  await page.goto(`${url('slides')}#page-5`);
  await expect(page.locator('#page-5')).toBeInViewport({ ratio: 0.9 });
  await page.context().close();
});

test('pages fit the window by the browser alone: whole, as wide, within limits; enlarging comes on top', async ({ browser }) => {
  // Without a program: the sizes are worked out by the style sheet.
  const box = async (name: Name, width: number, height: number): Promise<{ width: number; height: number }> => {
    const page = await (await browser.newContext({ javaScriptEnabled: false, viewport: { width, height } })).newPage();
    await page.goto(url(name));
    const found = (await page.locator('#page-1').boundingBox())!;
    await page.context().close();
    return found;
  };
  const [W, H] = [793.7013, 1020.472];
  const whole = await box('slides', 1280, 800);
  // 44 px of the bar, 16 px above and below.
  expect(whole.height).toBeCloseTo(800 - 44 - 32, 0);
  expect(whole.width / whole.height).toBeCloseTo(W / H, 2);
  expect((await box('stacked', 500, 800)).width).toBeCloseTo(500 - 32, 0);
  expect((await box('slidesDown', 3000, 3000)).width).toBeCloseTo(W * 1.5, 0);
  expect((await box('slidesDown', 150, 150)).width).toBeCloseTo(W * 0.2, 0);
  // Two pages beside one another, each as high as the window allows.
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
  await page.goto(`${url('spreads')}#page-4`);
  const [left, right] = [await page.locator('#page-4').boundingBox(), await page.locator('#page-5').boundingBox()];
  expect(Math.abs(left!.x + left!.width - right!.x)).toBeLessThan(1);
  expect([left!.y, left!.x + left!.width]).toEqual([expect.closeTo(16, 0), expect.closeTo(640, 0)]);
  await page.getByRole('button', { name: 'Larger' }).click();
  expect((await page.locator('#page-4').boundingBox())!.height).toBeCloseTo(left!.height * 1.25, 0);
  await page.close();
});

test('a leaf turns over its spread and leaves nothing behind; keys go from spread to spread', async ({ page }) => {
  await page.goto(url('spreads'));
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('.leaf').first()).toBeAttached();
  await expect(page.locator('.leaf')).toHaveCount(0);
  await expect.poll(() => hash(page)).toBe('#page-2');
  await page.keyboard.press('ArrowRight');
  await expect.poll(() => hash(page)).toBe('#page-4');
  await page.keyboard.press('ArrowLeft');
  await expect.poll(() => hash(page)).toMatch(/#page-[23]/);
  await expect(page.locator('.leaf')).toHaveCount(0);
});

test('the search finds words over lines and marks them; it says how many', async ({ page }) => {
  await page.goto(url('stacked'));
  const search = page.getByRole('searchbox', { name: 'Search' });
  await search.fill('it was turned all the way round nineteen times');
  await expect(page.locator('.found').getByText('1 found')).toBeVisible();
  await page.locator('.found a').click();
  await expect(page.locator('#page-3')).toBeInViewport();
  const marked = await page.evaluate(() => {
    const [range] = [...(CSS as unknown as { highlights: Map<string, Iterable<Range>> }).highlights.get('found')!];
    return range!.toString().replace(/\s+/g, ' ').trim();
  });
  expect(marked).toMatch(/^it was turned all the way ?round nineteen times$/);
  await search.fill('zzzz');
  await expect(page.locator('.found').getByText('Nothing found')).toBeVisible();
});

test('a site leads from file to file: by its arrows, its links, its contents, and without a program', async ({ browser }) => {
  const page = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await page.goto(url('sections'));
  await page.getByRole('button', { name: 'Next' }).click();
  await expect(page).toHaveURL(/when-the-dome-turns\.html/);
  await expect(page).toHaveTitle('When the dome turns – The Marrowby Almanac');
  await expect(page.locator('output')).toHaveText('Page 2 of 16');
  await page.getByText('Contents', { exact: true }).click();
  await page.getByRole('link', { name: 'Towards morning' }).click();
  await expect(page).toHaveURL(/reading-the-sky-in-march\.html#/);
  await expect(page.getByRole('heading', { name: 'Towards morning' })).toBeInViewport();
  await page.context().close();
  const still = await (await browser.newContext({ javaScriptEnabled: false })).newPage();
  await still.goto(url('sections', 'diary.html'));
  await still.getByRole('navigation', { name: 'Pages' }).getByRole('link').first().click();
  await expect(still).not.toHaveURL(/diary/);
  await still.context().close();
});

test('a banner plays by itself and can be stopped; asked for plainly, pages lie as they were designed', async ({ page }) => {
  await page.goto(url('banner'));
  const seen = (): Promise<number> =>
    page.evaluate(() => Math.round(document.querySelector('main')!.scrollLeft / document.querySelector('.page')!.clientWidth));
  await expect.poll(seen, { timeout: 20_000 }).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'Pause' }).click();
  const stopped = await seen();
  await page.waitForTimeout(2200);
  expect(await seen()).toBeLessThanOrEqual(stopped + 1);
  await page.goto(`${url('slides')}?plain#page-3`);
  const box = (await page.locator('#page-3').boundingBox())!;
  expect([box.width, box.height]).toEqual([expect.closeTo(793.7, 0), expect.closeTo(1020.5, 0)]);
  await expect(page.locator('.bar')).toBeHidden();
});
