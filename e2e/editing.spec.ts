import { expect, test } from '@playwright/test';
import type { Browser, Page } from '@playwright/test';
import { ORIGIN } from './ownApplication.ts';

const idOf = async (page: Page, title: string): Promise<string> => {
  await page.goto('/');
  return (await page.locator('.shelf-row', { hasText: title }).first().getAttribute('data-document'))!;
};
const headers = { origin: ORIGIN };
/** A copy of a document, for a test that leaves it otherwise than it was; to be removed at its end. */
async function copyOf(page: Page, title: string): Promise<{ id: string; remove: () => Promise<unknown> }> {
  const buffer = await (await page.request.get(`/api/folios/${await idOf(page, title)}/package`)).body();
  const file = { name: 'copy.efolio', mimeType: 'application/octet-stream', buffer };
  const { id } = (await (await page.request.post('/api/folios', { headers, multipart: { file } })).json()) as { id: string };
  return { id, remove: () => page.request.delete(`/api/folios/${id}`, { headers }) };
}
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
  await expect(page.locator('.spread .glyphs').first()).toBeAttached();
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

test('two windows in one paragraph: what both type is there; what both set is had back', async ({ browser }: { browser: Browser }) => {
  const [one, two] = [await (await browser.newContext()).newPage(), await (await browser.newContext()).newPage()];
  const { id, remove } = await copyOf(one, 'Open Dome Night');
  await one.goto(`/d/${id}/intake?item=list`);
  await two.goto(`/d/${id}/intake?item=list`);
  await startOf(one);
  await one.keyboard.type('One ');
  await expect(two.locator('.ProseMirror p').first()).toHaveText(/^One A warm coat/);
  await two.locator('.ProseMirror p').nth(1).click();
  await two.keyboard.press('Home');
  await two.keyboard.type('Two ');
  await expect(one.locator('.ProseMirror p').nth(1)).toHaveText(/^Two A red lamp/);

  // The second window hears late of what the first writes into the same paragraph.
  await two.route('**/api/folios/*/edits', async (route) => {
    await new Promise((r) => setTimeout(r, 1200));
    await route.continue().catch(() => undefined);
  });
  await two.locator('.ProseMirror p').nth(2).click();
  await two.keyboard.press('End');
  await two.keyboard.type('ZZZ');
  await one.locator('.ProseMirror p').nth(2).click();
  await one.keyboard.press('Home');
  await one.keyboard.type('YYY');
  for (const page of [one, two]) await expect(page.locator('.ProseMirror p').nth(2)).toHaveText(/^YYYSturdy.*ZZZ$/);
  await expect(two.getByRole('alert')).toHaveCount(0);

  // A paragraph that is typed into is deleted by the other: the words are offered, and put in again.
  await two.locator('.ProseMirror p').nth(1).click();
  await two.keyboard.press('End');
  await two.keyboard.type(' and some words');
  const seq = ((await (await one.request.get(`/api/folios/${id}`)).json()) as { seq: number }).seq;
  const place = (paragraphId: string, offset: number) => ({ paragraphId, offset });
  const args = { story: 'list-text', from: place('list-text-1', 1000), to: place('list-text-2', 1000), content: [[]], newIds: [] };
  await one.request.post(`/api/folios/${id}/edits`, {
    headers,
    data: { base: seq, actor: 'somebody', edits: [{ uid: crypto.randomUUID(), burst: 'cut', edit: { kind: 'text.replace', args } }] },
  });
  const aside = two.getByRole('alert', { name: 'Changes that were not saved' });
  await expect(aside).toContainText(' and some words');
  await two.unroute('**/api/folios/*/edits');
  await aside.getByRole('button', { name: 'Insert into the text' }).click();
  await expect(aside).toHaveCount(0);
  for (const page of [one, two]) await expect(page.locator('.ProseMirror')).toContainText('and some words');
  await remove();
  for (const page of [one, two]) await page.context().close();
});

test('Escape leaves the text; keys for commands type nothing there; what is selected stays in sight', async ({ page }) => {
  const id = await idOf(page, 'Open Dome Night');
  await page.goto(`/d/${id}/intake?item=list`);
  const editor = page.locator('.ProseMirror');
  await startOf(page);
  await page.keyboard.press('Shift+End');
  const selected = await page.evaluate(() => document.getSelection()!.toString());
  expect(selected.length).toBeGreaterThan(5);
  const before = await editor.innerText();
  await page.keyboard.press('Control+Enter');
  await expect(page.getByText(/out of date|Nothing is stale/).first()).toBeVisible();
  expect(await editor.innerText()).toBe(before);
  await page.keyboard.press('Escape');
  await expect(editor).not.toBeFocused();
  expect((await page.locator('.kept-selection').allInnerTexts()).join('')).toBe(selected);
  // Outside of the text the plain letter is the command, and nothing is written.
  await page.keyboard.press('r');
  await expect(page.getByText(/out of date|Nothing is stale/).first()).toBeVisible();
  expect(await editor.innerText()).toBe(before);
  await page.keyboard.press('Escape');
  await expect(editor).toHaveCount(0);
});

test('a window that ends without a word loses nothing: what it typed is there when the document is opened again', async ({ browser }) => {
  const context = await browser.newContext();
  const page = await context.newPage();
  const id = await idOf(page, 'Open Dome Night');
  await page.goto(`/d/${id}/intake?item=list`);
  await startOf(page);
  await context.route('**/api/folios/*/edits', (route) => route.abort());
  await page.keyboard.type('Unsent ');
  await expect(page.getByText('keeping …')).toBeVisible();
  // As if the browser had been killed: nothing runs on leaving.
  await page.evaluate(() => window.addEventListener('pagehide', (e) => e.stopImmediatePropagation(), { capture: true }));
  await page.close();
  await context.unroute('**/api/folios/*/edits');
  const again = await context.newPage();
  await again.goto(`/d/${id}/intake?item=list`);
  await expect(again.locator('.ProseMirror p').first()).toHaveText(/^Unsent /);
  await again.locator('.ProseMirror p').first().click();
  await again.keyboard.press('Home');
  for (let i = 0; i < 7; i++) await again.keyboard.press('Delete');
  await expect(again.getByText('every change kept')).toBeVisible();
  await context.close();
});

test('one key press is one small request, in a document of any length', async ({ page }) => {
  const id = await idOf(page, 'Handbook');
  await page.goto(`/d/${id}/intake?page=3`);
  await expect(page.locator('.spread .glyphs').first()).toBeAttached();
  await page.locator('[data-reach]').first().click({ force: true });
  await page.locator('.ProseMirror p').first().click();
  const sent: { edits: unknown[] }[] = [];
  page.on('request', (r) => r.method() === 'POST' && r.url().endsWith('/edits') && sent.push(r.postDataJSON() as { edits: unknown[] }));
  for (const key of ['a', 'b', 'c']) {
    await page.keyboard.press(key);
    await expect(page.getByText('every change kept')).toBeVisible();
  }
  expect(sent.map((s) => s.edits.length)).toEqual([1, 1, 1]);
  expect(JSON.stringify(sent).length).toBeLessThan(3000);
  await page.keyboard.press('Control+z');
});
