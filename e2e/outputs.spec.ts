import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import AxeBuilder from './axe.ts';
import { addOutput, runOutput, scoreRow } from './scoreRows.ts';
import { ORIGIN } from './ownApplication.ts';

test.describe.configure({ mode: 'serial' });

const almanac = async (page: Page): Promise<string> => {
  await page.goto('/');
  return (await page.locator('.shelf-row', { hasText: 'Almanac' }).getAttribute('data-document'))!;
};
const run = (page: Page, output: string): Promise<void> => runOutput(scoreRow(page, output));

test('outputs are added, set, run, and their score, ledger and files are there', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/outputs`);
  for (const name of ['Web edition', 'PDF']) {
    await addOutput(page, new RegExp(`^${name}`));
    await page.getByRole('button', { name: 'Close settings' }).click();
  }
  await run(page, 'html');
  await run(page, 'pdf');
  await expect(scoreRow(page, 'html').locator('.sum')).toContainText('2368 kept');
  await page.getByRole('button', { name: 'Web edition, page 5: adapted' }).click();
  await expect(page.locator('.ledger li').first()).toContainText('turned into RGB by the plain formula');
  for (const [output, name] of [
    ['html', 'The Marrowby Almanac (Web edition).zip'],
    ['pdf', 'The Marrowby Almanac (PDF).pdf'],
  ] as const) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      scoreRow(page, output).getByRole('link', { name: 'Download' }).click(),
    ]);
    expect(download.suggestedFilename()).toBe(name);
  }
});

test('settings change the result; the output is stale until it is refreshed with one key', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/outputs`);
  await scoreRow(page, 'pdf').getByRole('button', { name: 'Settings' }).click();
  await page.getByLabel('Pages', { exact: true }).fill('2-x');
  await expect(page.getByText('This cannot be used')).toBeVisible();
  await page.getByLabel('Pages', { exact: true }).fill('2-3');
  await expect(scoreRow(page, 'pdf').locator('.state')).toContainText('stale');
  await page.getByRole('button', { name: 'Close settings' }).click();
  await page.locator('.score h1').click();
  await page.keyboard.press('r');
  await expect(scoreRow(page, 'pdf').locator('.state')).toHaveText('fresh', { timeout: 40_000 });
  await expect(page.getByRole('button', { name: 'PDF, page 1: left out on purpose' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'PDF, page 2: kept' })).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(scoreRow(page, 'pdf').locator('.state')).toContainText('stale');
  await run(page, 'pdf');
});

test('a run is cancelled from its row while it is being made', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/outputs`);
  // A picture quality never used before, so that the run has something to do.
  await scoreRow(page, 'pdf').getByRole('button', { name: 'Settings' }).click();
  await page.locator('#set-quality').fill('37');
  await page.getByRole('button', { name: 'Close settings' }).click();
  await expect(scoreRow(page, 'pdf').locator('.state')).toContainText('stale');
  await scoreRow(page, 'pdf').getByRole('button', { name: 'Run', exact: true }).click();
  await scoreRow(page, 'pdf').getByRole('button', { name: 'Cancel' }).click();
  await expect(scoreRow(page, 'pdf').locator('.state')).toContainText('last run cancelled');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(scoreRow(page, 'pdf').locator('.state')).toContainText('fresh');
});

test('a run is cancelled and leaves the old result', async ({ page }) => {
  const id = await almanac(page);
  const headers = { origin: ORIGIN };
  const recipes = (await (await page.request.get(`/api/folios/${id}`)).json()) as {
    recipes: Record<string, { id: string; output: string }>;
  };
  const recipe = Object.values(recipes.recipes).find((r) => r.output === 'html')!.id;
  const started = (await (await page.request.post(`/api/folios/${id}/runs`, { headers, data: { recipe } })).json()) as { id: string };
  await page.request.post(`/api/runs/${started.id}/cancel`, { headers, data: {} });
  await expect
    .poll(
      async () =>
        ((await (await page.request.get('/api/runs')).json()) as { id: string; state: string }[]).find((r) => r.id === started.id)?.state,
    )
    .toBe('cancelled');
  expect((await page.request.get(`/api/runs/${started.id}/ledger`)).status()).toBe(404);
  await page.goto(`/d/${id}/outputs`);
  await expect(scoreRow(page, 'html').locator('.state')).toContainText('fresh');
});

test('layout and output lie side by side, at one scale and in step', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/compare?page=3`);
  const source = page.locator('.pair svg.paper');
  await expect(source.locator('.glyphs').first()).toBeAttached();
  const frame = page.frameLocator('.pair iframe');
  await expect(frame.locator('#page-3')).toBeVisible();
  const [left, right] = [await source.boundingBox(), await page.locator('.pair .clip').boundingBox()];
  expect(Math.abs(left!.width - right!.width)).toBeLessThan(1);
  expect(Math.abs(left!.y - right!.y)).toBeLessThan(1);
  await page.keyboard.press('PageDown');
  await expect(page.getByText('Page 4 of 16')).toBeVisible();
  await expect(source).toHaveAttribute('aria-label', 'Page 4 of the layout');
  await expect(frame.locator('#page-4')).toBeInViewport();
  await page.getByText('PDF', { exact: true }).click();
  await expect(page.locator('canvas[data-drawn="page-4"]')).toBeVisible();
  const canvas = await page.locator('.pair canvas').boundingBox();
  expect(Math.abs(canvas!.width - left!.width)).toBeLessThan(1);
});

test('the application has nothing serious against it', async ({ page }) => {
  const id = await almanac(page);
  for (const path of ['/', `/d/${id}/intake`, `/d/${id}/outputs`, `/d/${id}/compare`]) {
    await page.goto(path);
    await page.waitForTimeout(2500);
    // Fields are faint until what they show has come.
    await expect(page.locator('.ant-input-number-disabled .ant-input-number-suffix')).toHaveCount(0);
    expect((await new AxeBuilder(page).run()).filter((v) => v.impact === 'serious' || v.impact === 'critical')).toEqual([]);
  }
});

test('a recipe is kept, compared, taken over in another output, and goes out and comes in as a file', async ({ page }) => {
  const id = await almanac(page);
  const wall = scoreRow(page, 'html').filter({ hasText: 'For the wall' });
  await page.goto(`/d/${id}/outputs`);
  const sheet = page.getByRole('complementary', { name: 'Settings' });
  try {
    await addOutput(page, /^Web edition/);
    await sheet.getByLabel('Name of this output').fill('For the wall');
    await sheet.locator('#set-form').click();
    await page.getByTitle('One page at a time, sideways').click();
    await sheet.getByText('Contents', { exact: true }).click();
    await sheet.getByText('Kept recipes').click();
    await sheet.getByRole('button', { name: 'Keep this for other documents' }).click();
    await sheet.getByRole('button', { name: 'Keep', exact: true }).click();
    const kept = sheet.locator('[data-recipe="For the wall"]');
    await expect(kept.getByRole('button', { name: 'The same' })).toBeVisible();
    const [download] = await Promise.all([page.waitForEvent('download'), sheet.getByText('As a file').click()]);
    expect(download.suggestedFilename()).toBe('For-the-wall.recipe.json');
    const file = JSON.parse(await readFile(await download.path(), 'utf8')) as { output: string; settings: Record<string, unknown> };
    expect([file.output, file.settings['form'], file.settings['bar']]).toEqual(['html', 'slides', ['contents']]);

    // Another setting: what is different is said, and the kept one taken over again.
    await sheet.locator('#set-form').click();
    await page.getByTitle('Spreads whose leaves turn').click();
    await kept.getByRole('button', { name: 'What is different in “For the wall”' }).click();
    await expect(kept.getByRole('row', { name: 'Form Spreads whose leaves turn One page at a time, sideways' })).toBeVisible();
    await kept.getByRole('button', { name: 'Apply' }).click();
    await expect(sheet.locator('.ant-select', { has: page.locator('#set-form') })).toContainText('One page at a time, sideways');
    await sheet.getByRole('button', { name: 'Close settings' }).click();

    // From the kept recipe, and from the file.
    await addOutput(page, /^For the wall/);
    await expect(sheet.getByLabel('Name of this output')).toHaveValue('For the wall 2');
    await sheet.getByRole('button', { name: 'Close settings' }).click();
    await page
      .getByLabel('A recipe’s file')
      .setInputFiles({ name: 'wall.json', mimeType: 'application/json', buffer: Buffer.from(JSON.stringify(file)) });
    await expect(sheet.getByLabel('Name of this output')).toHaveValue('For the wall 3');
    await sheet.getByRole('button', { name: 'Close settings' }).click();
    await page.getByLabel('A recipe’s file').setInputFiles({ name: 'none.json', mimeType: 'application/json', buffer: Buffer.from('{}') });
    await expect(page.getByText('“none.json” is no recipe.', { exact: false })).toBeVisible();
  } finally {
    const { origin } = new URL(page.url());
    const recipes = (await (await page.request.get('/api/recipes')).json()) as { id: string }[];
    for (const r of recipes) await page.request.delete(`/api/recipes/${r.id}`, { headers: { origin } });
    await page.goto(`/d/${id}/outputs`);
    await expect(page.locator('.score')).toBeVisible();
    while (await wall.count()) await wall.first().getByRole('button', { name: 'Remove' }).click();
  }
});

test('settings show their effect beside them, before anything is run', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/outputs`);
  await addOutput(page, /^Web edition/);
  const sheet = page.getByRole('complementary', { name: 'Settings' });
  try {
    await sheet.getByLabel('Name of this output').fill('Looked at');
    const own = scoreRow(page, 'html').filter({ hasText: 'Looked at' });
    await own.getByRole('button', { name: /page 4:/ }).click();
    const frame = page.frameLocator('.live-room iframe');
    await expect(frame.locator('#page-4')).toBeVisible({ timeout: 30_000 });
    await expect(frame.locator('.bar')).toHaveCount(0);
    await sheet.getByLabel('How will it be read?').click();
    await page.getByTitle('Leafed through, like paper').click();
    await sheet.getByLabel('Must pages keep their size?').click();
    await page.getByTitle('No, they may fit the window').click();
    await sheet.getByLabel('Must it work without a connection?').click();
    await page.getByTitle('No, or from a folder only').click();
    await expect(sheet.getByText('a leaf is turned', { exact: false })).toBeVisible();
    await sheet.getByRole('button', { name: 'Set it so' }).click();
    await expect(frame.locator('output')).toHaveText('Page 3 of 5', { timeout: 30_000 });
    await expect(frame.locator('#page-5')).toBeInViewport();
    await page.getByText('Phone', { exact: true }).click();
    await expect.poll(() => page.locator('.live-room iframe').evaluate((e) => e.clientWidth)).toBe(390);
  } finally {
    await page.goto(`/d/${id}/outputs`);
    await page.locator('tr', { hasText: 'Looked at' }).getByRole('button', { name: 'Remove' }).click();
    await expect(page.locator('tr', { hasText: 'Looked at' })).toHaveCount(0);
  }
});
