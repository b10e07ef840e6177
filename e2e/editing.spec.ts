import { expect, test } from '@playwright/test';
import type { Browser, Page } from '@playwright/test';

const idOf = async (page: Page, title: string): Promise<string> => {
  await page.goto('/');
  return (await page.locator('.shelf-row', { hasText: title }).first().getAttribute('data-document'))!;
};
/** What an item's letters look like: changes whenever the page is set anew. */
const painted = (page: Page, item: string): Promise<string> => page.locator(`.spread [data-item="${item}"]`).first().innerHTML();
const startOf = async (page: Page): Promise<void> => {
  await expect(page.locator('.ProseMirror')).toBeVisible();
  await page.locator('.ProseMirror p').first().click();
  await page.keyboard.press('Control+Home');
};

test('spreads are set by the typesetter, selected, zoomed and stepped through', async ({ page }) => {
  const id = await idOf(page, 'Almanac');
  await page.getByRole('link', { name: 'The Marrowby Almanac', exact: true }).click();
  await expect(page.locator('.spread use').first()).toBeAttached();
  await page.goto(`/d/${id}/intake?page=2`);
  await expect(page.getByText('Pages 2–3')).toBeVisible();
  const width = (): Promise<number> => page.locator('section[data-spread=s2] .spread').evaluate((e) => e.getBoundingClientRect().width);
  await expect.poll(width).toBeGreaterThan(300);
  const before = await width();
  await page.locator('.table').focus();
  await page.keyboard.press('+');
  await expect.poll(width).toBeGreaterThan(before * 1.2);
  await page.keyboard.press('0');
  await expect.poll(width).toBeCloseTo(before, 0);
  await page.mouse.move(500, 400);
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, 200);
  await page.keyboard.up('Control');
  await expect.poll(width).toBeLessThan(before * 0.8);
  await page.keyboard.press('0');
  await page.locator('section[data-spread=s2] [data-reach="telescope-picture"]').click();
  await expect(page.locator('.sheet-head h2')).toHaveText('Picture “Telescope”');
  await expect(page.locator('.sheet')).toContainText('177.5 × 81.8 mm');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'What to look at' })).toBeVisible();
  await page.locator('.table').focus();
  await page.keyboard.press('PageDown');
  await expect(page.getByText('Pages 4–5')).toBeInViewport();
  await page
    .locator('.ruler')
    .getByRole('button', { name: /^Page 15/ })
    .click();
  await expect(page.locator('section[data-spread=s5]')).toBeInViewport();
});

test('what changes the address at once adds up: something chosen while the pages are enlarged stays chosen', async ({ page }) => {
  await page.goto(`/d/${await idOf(page, 'Almanac')}/intake?page=2`);
  const picture = page.locator('section[data-spread=s2] [data-reach="telescope-picture"]');
  await expect(picture).toBeVisible();
  await page.locator('.table').focus();
  await picture.evaluate((element) => {
    element.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true }));
    document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key: '+', bubbles: true }));
  });
  await expect(page).toHaveURL(/item=telescope-picture/);
  await expect(page).toHaveURL(/zoom=/);
  await expect(page.locator('.sheet-head h2')).toHaveText('Picture “Telescope”');
});

test('a text is edited beside the page; the page is set anew at every keystroke; undo, redo and reopening keep it', async ({ page }) => {
  const id = await idOf(page, 'Open Dome Night');
  await page.goto(`/d/${id}/intake?item=when`);
  await startOf(page);
  let last = await painted(page, 'when');
  for (const letter of 'Soon') {
    await page.keyboard.type(letter);
    await expect.poll(() => painted(page, 'when')).not.toBe(last);
    last = await painted(page, 'when');
  }
  await expect(page.getByText('every change kept')).toBeVisible();
  await page.keyboard.press('Control+z');
  await expect(page.locator('.ProseMirror p').first()).toHaveText(/^Friday/);
  await page.reload();
  await expect(page.locator('.ProseMirror p').first()).toHaveText(/^Friday/);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect(page.locator('.ProseMirror p').first()).toHaveText(/^SoonFriday/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.ProseMirror p').first()).toHaveText(/^Friday/);

  await page.locator('.ProseMirror p').first().click();
  await expect(page.locator('.ProseMirror-focused')).toBeVisible();
  await page.waitForTimeout(200);
  await page.keyboard.press('End');
  await page.waitForTimeout(200);
  await page.keyboard.press('Enter');
  await page.keyboard.type('In any weather.');
  await expect(page.locator('.ProseMirror p')).toHaveCount(3);
  await expect(page.getByText('every change kept')).toBeVisible();
  await page.reload();
  await expect(page.locator('.ProseMirror p').nth(1)).toHaveText('In any weather.');
  while (await page.getByRole('button', { name: 'Undo' }).isEnabled()) {
    const n = await page.locator('.ProseMirror p').count();
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText('every change kept')).toBeVisible();
    if (n === 2) break;
    await page.waitForTimeout(300);
  }
  await expect(page.locator('.ProseMirror p')).toHaveCount(2);
});

test('a text that no longer fits is said at once', async ({ page }) => {
  const id = await idOf(page, 'Open Dome Night');
  await page.goto(`/d/${id}/intake?item=bring`);
  await startOf(page);
  await page.keyboard.type('A rather long heading that will certainly not fit on one line of this flyer. ');
  await expect(page.locator('.sheet .warn')).toContainText('do not fit');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.sheet .warn')).toHaveCount(0);
});

test('two windows: different things merge, the same thing is refused with what changed', async ({ browser }: { browser: Browser }) => {
  const [one, two] = [await (await browser.newContext()).newPage(), await (await browser.newContext()).newPage()];
  const id = await idOf(one, 'Open Dome Night');
  await one.goto(`/d/${id}/intake?item=list`);
  await two.goto(`/d/${id}/intake?item=list`);
  await startOf(one);
  await one.keyboard.type('One ');
  await expect(two.locator('.ProseMirror p').first()).toHaveText(/^One A warm coat/);
  await two.locator('.ProseMirror p').nth(1).click();
  await two.keyboard.press('Home');
  await two.keyboard.type('Two ');
  await expect(one.locator('.ProseMirror p').nth(1)).toHaveText(/^Two A red lamp/);

  // The second window is cut off from the news while both write in one paragraph.
  await two.route('**/api/folios/*/edits', async (route) => {
    await new Promise((r) => setTimeout(r, 1200));
    await route.continue();
  });
  await two.locator('.ProseMirror p').nth(2).click();
  await two.keyboard.press('Home');
  await two.keyboard.type('Z');
  await one.locator('.ProseMirror p').nth(2).click();
  await one.keyboard.press('Home');
  await one.keyboard.type('Y');
  await expect(two.getByText('Your last change was not taken over')).toBeVisible();
  await expect(two.locator('.ProseMirror p').nth(2)).toHaveText(/^YSturdy/);
  await expect(one.locator('.ProseMirror p').nth(2)).toHaveText(/^YSturdy/);
  for (const page of [one, two]) await page.context().close();
});
