import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import AxeBuilder from './axe.ts';
import { addOutput, runOutput, scoreRow } from './scoreRows.ts';

test.describe.configure({ mode: 'serial' });

const flyer = async (page: Page): Promise<string> => {
  await page.goto('/');
  return (await page.locator('.shelf-row', { hasText: 'Open Dome Night' }).getAttribute('data-document'))!;
};
const row = (page: Page) => scoreRow(page, 'html');
const run = (page: Page): Promise<void> => runOutput(row(page));
/** Gives the edition another title, so that what was made of it is older. */
const entitle = async (page: Page, id: string, title: string): Promise<void> => {
  await page.goto(`/d/${id}/outputs`);
  await row(page).getByRole('button', { name: 'Settings' }).click();
  await page.locator('#set-title').fill(title);
  await page.getByRole('button', { name: 'Close settings' }).click();
  await expect(row(page).locator('.state')).toContainText('stale');
};
const findings = async (page: Page): Promise<string[]> => (await new AxeBuilder(page).run()).map((v) => `${v.id}: ${v.targets[0]}`);

test('the start asks what cannot be known; measuring is set up in one press; the result says where its kilobytes go', async ({ page }) => {
  const id = await flyer(page);
  await page.goto(`/d/${id}/handover`);
  await expect(page.getByText('Nothing has been made yet.')).toBeVisible();
  await page.goto(`/d/${id}/outputs`);
  await addOutput(page, /^Web edition/);
  const sheet = page.getByRole('complementary', { name: 'Settings' });
  // How long it is, the document says.
  await expect(sheet.getByText('How long is it?')).toHaveCount(0);
  for (const [ask, answer] of [
    ['How will it be read?', 'Kept on a home screen, like a program'],
    ['Must pages keep their size?', 'No, they may fit the window'],
    ['Must it work without a connection?', 'Yes, once it has been opened'],
  ] as const) {
    await sheet.getByLabel(ask).click();
    await page.locator('.ant-select-dropdown:visible').getByText(answer, { exact: true }).click();
  }
  await expect(sheet.getByText('The first visit fetches everything; later ones need no connection.')).toBeVisible();
  await sheet.getByRole('button', { name: 'Set it so' }).click();
  await sheet.getByRole('button', { name: 'Try it with the collector here' }).click();
  await sheet.getByLabel('Sent as').fill('flyer');
  await sheet.getByRole('button', { name: 'Work them out from the text' }).click();
  await expect(sheet.getByLabel('Keywords')).toHaveValue(/\b(dome|night|sky|telescope)\b.*,/i);
  await sheet
    .locator('input[type=file]')
    .setInputFiles({ name: 'own.css', mimeType: 'text/css', buffer: Buffer.from('.bar{background:#ffe}') });
  await expect(sheet.locator('.own-files')).toContainText('own.css');
  await page.getByRole('button', { name: 'Close settings' }).click();
  await run(page);
  await page.getByText('Where the kilobytes go').click();
  await expect(page.locator('.weights .recharts-bar-rectangle').first()).toBeVisible();
  await page.getByText('As figures').click();
  await expect(page.locator('.weights tbody tr').first()).toContainText('kB');
  expect(await findings(page)).toEqual([]);
  await row(page).getByRole('button', { name: 'Settings' }).click();
  await page.getByText(/files of the last result/).click();
  await expect(page.locator('.made-files')).toContainText('own/own.css');
});

test('it is published with versions, opened, measured after a yes, and seen in charts', async ({ page, browser }) => {
  const id = await flyer(page);
  await page.goto(`/d/${id}/handover`);
  await page.getByRole('button', { name: 'Publish on the trial host' }).click();
  await expect(page.getByText('shown now')).toBeVisible();
  const address = (await page.locator('.site-address a').getAttribute('href'))!;
  const reader = await (await browser.newContext({ reducedMotion: 'reduce' })).newPage();
  await reader.goto(address);
  await reader.getByRole('button', { name: 'Yes', exact: true }).click();
  await page.getByRole('button', { name: 'What readers did' }).click();
  await expect(page.locator('.reader-charts')).toContainText('1 visit', { timeout: 20_000 });
  await expect(page.locator('.reader-charts .recharts-bar-rectangle').first()).toBeVisible();
  expect(await findings(page)).toEqual([]);
  // With the server still there it is kept; that it opens without one is tested on a host of its own.
  expect(await reader.evaluate(async () => !!(await navigator.serviceWorker.ready).active)).toBe(true);
  await reader.context().close();
});

test('a result that is older than the document is not published unwarned; refreshed, it is published though the window has left', async ({
  page,
}) => {
  const id = await flyer(page);
  await entitle(page, id, 'A night in May');
  await page.goto(`/d/${id}/handover`);
  await page.getByRole('button', { name: 'Publish this version …' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('older than the document');
  expect(await findings(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.locator('.versions li')).toHaveCount(1);
  await page.getByRole('button', { name: 'Publish this version …' }).click();
  await dialog.getByRole('button', { name: 'Refresh, then publish' }).click();
  await expect(page.getByText('will be published when it is ready').or(page.getByText('Version 2')).first()).toBeVisible();
  // What was asked for is the server's now.
  await page.goto('/');
  await page.waitForTimeout(500);
  await page.goto(`/d/${id}/handover`);
  await expect(page.locator('.versions li[aria-current]')).toContainText('Version 2', { timeout: 60_000 });
  await expect(page.getByRole('button', { name: 'Published', exact: true })).toBeDisabled();
});

test('a version goes back, a phone gets a code, and it is taken down', async ({ page, browser }) => {
  const id = await flyer(page);
  await entitle(page, id, 'A night in April');
  await run(page);
  await page.goto(`/d/${id}/handover`);
  await page.getByRole('button', { name: 'Publish this version' }).click();
  await expect(page.locator('.versions li')).toHaveCount(3);
  const address = (await page.locator('.site-address a').getAttribute('href'))!;
  const title = async (): Promise<string> => {
    const reader = await (await browser.newContext()).newPage();
    await reader.goto(address);
    const found = await reader.title();
    await reader.context().close();
    return found;
  };
  expect(await title()).toBe('A night in April');
  await page.locator('.versions li', { hasText: 'Version 1' }).getByRole('button', { name: 'Show this one' }).click();
  await expect(page.locator('.versions li[aria-current]')).toContainText('Version 1');
  expect(await title()).toBe('Open Dome Night');
  await page.getByRole('button', { name: 'Open on a phone …' }).click();
  await expect(page.getByText(/Open until|in no network/).first()).toBeVisible();
  await expect(page.getByText(/Not available there/)).toContainText('reading without a connection, putting it on the home screen');
  expect(await findings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Close it' }).click();
  await page.getByRole('button', { name: 'Take down' }).click();
  await expect(page.getByText('taken down; whoever goes there is told so')).toBeVisible();
  const reader = await (await browser.newContext()).newPage();
  expect((await reader.goto(address))!.status()).toBe(410);
  await reader.context().close();
  await page.getByRole('button', { name: 'Remove it and its versions' }).click();
  await expect(page.getByRole('button', { name: 'Publish on the trial host' })).toBeVisible();
});
