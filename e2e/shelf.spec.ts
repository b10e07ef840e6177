import { expect, test } from '@playwright/test';
import type { APIRequestContext } from '@playwright/test';
import { ORIGIN } from './ownApplication.ts';

interface Shelved {
  id: string;
  title: string;
}
const shelved = async (request: APIRequestContext): Promise<Shelved[]> => (await request.get('/api/folios')).json() as Promise<Shelved[]>;

test('the shelf shows the samples with their first spreads', async ({ page }) => {
  await page.goto('/');
  // What was worked on last stands first: other tests may have.
  const titles = async (): Promise<string[]> => (await page.locator('.shelf-row h2').allTextContents()).sort();
  await expect.poll(titles).toEqual(['Five Worlds', 'Handbook for Volunteer Observers', 'Open Dome Night', 'The Marrowby Almanac']);
  for (const cover of await page.locator('.cover img').all())
    await expect.poll(() => cover.evaluate((i: HTMLImageElement) => i.naturalWidth)).toBeGreaterThan(100);
});

test('a package goes out and comes in by drop and by dialog, with a clear result', async ({ page }) => {
  await page.goto('/');
  await expect(page.locator('.shelf-row').first()).toBeVisible();
  const before = await shelved(page.request);
  const id = await page.locator('.shelf-row', { hasText: 'Open Dome Night' }).getAttribute('data-document');
  const bytes = await (await page.request.get(`/api/folios/${id}/package`)).body();
  await page.locator('input[type=file]').setInputFiles({ name: 'flyer.efolio', mimeType: 'application/zip', buffer: bytes });
  await expect(page.getByText('Open Dome Night is on the shelf.')).toBeVisible();
  await expect(page.locator('.shelf-row')).toHaveCount(before.length + 1);

  const data = await page.evaluateHandle((b64) => {
    const transfer = new DataTransfer();
    transfer.items.add(new File([Uint8Array.from(atob(b64), (c) => c.charCodeAt(0))], 'dropped.efolio'));
    return transfer;
  }, bytes.toString('base64'));
  await page.dispatchEvent('.bring-in', 'drop', { dataTransfer: data });
  await expect(page.locator('.shelf-row')).toHaveCount(before.length + 2);
  const own = { headers: { origin: ORIGIN } };
  for (const row of (await shelved(page.request)).filter((d) => !before.some((b) => b.id === d.id)))
    expect((await page.request.delete(`/api/folios/${row.id}`, own)).ok()).toBe(true);
});

test('a document that is brought in while the shelf is still being read stands on it', async ({ page }) => {
  const before = await shelved(page.request);
  const flyer = before.find((d) => d.title === 'Open Dome Night')!;
  const bytes = await (await page.request.get(`/api/folios/${flyer.id}/package`)).body();
  let letGo = (): void => undefined;
  const held = new Promise<void>((resolve) => (letGo = resolve));
  let first = true;
  // The first listing is made before the document arrives, and comes after it.
  await page.route('**/api/folios', async (route) => {
    if (!first || route.request().method() !== 'GET') return route.continue();
    first = false;
    const response = await route.fetch();
    await held;
    await route.fulfill({ response }).catch(() => undefined);
  });
  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles({ name: 'flyer.efolio', mimeType: 'application/zip', buffer: bytes });
  await expect(page.getByText('Open Dome Night is on the shelf.')).toBeVisible();
  letGo();
  await expect(page.locator('.shelf-row')).toHaveCount(before.length + 1);
  const brought = (await shelved(page.request)).find((d) => !before.some((b) => b.id === d.id))!;
  expect((await page.request.delete(`/api/folios/${brought.id}`, { headers: { origin: ORIGIN } })).ok()).toBe(true);
});

test('what is no package is refused with a sentence, and nothing is stored', async ({ page }) => {
  await page.goto('/');
  const before = await shelved(page.request);
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'broken.efolio', mimeType: 'application/zip', buffer: Buffer.from('not a package') });
  await expect(page.getByText('broken.efolio was not brought in.')).toBeVisible();
  await expect(page.getByText('This is not a package that can be opened')).toBeVisible();
  expect(await shelved(page.request)).toHaveLength(before.length);
});

test('other names for this machine, and posts from other pages, are turned away', async ({ request }) => {
  expect((await request.get('/api/folios', { headers: { host: 'evil.example' } })).status()).toBe(403);
  expect((await request.post('/api/folios', { headers: { origin: 'http://evil.example' }, data: {} })).status()).toBe(403);
  const doc = (await (await request.get('/api/openapi.json')).json()) as { openapi: string; paths: object };
  expect(doc.openapi).toBe('3.1.0');
  expect(Object.keys(doc.paths).length).toBeGreaterThan(12);
});
