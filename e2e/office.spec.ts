import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { unzipSync, zipSync } from 'fflate';
import AxeBuilder from './axe.ts';
import { addOutput, runOutput, scoreRow } from './scoreRows.ts';

const findings = async (page: Page): Promise<string[]> => (await new AxeBuilder(page).run()).map((v) => `${v.id}: ${v.targets[0]}`);

test('a text document is made, downloaded, brought back changed, and drawn beside the layout', async ({ page }) => {
  await page.goto('/');
  const id = await page.locator('.shelf-row', { hasText: 'Open Dome Night' }).getAttribute('data-document');
  await page.goto(`/d/${id}/outputs`);
  await addOutput(page, /^Text document/);
  const sheet = page.getByRole('complementary', { name: 'Settings' });
  await expect(sheet.getByText('A layout may give every line its own; these files know one for each paragraph.')).toBeVisible();
  await page.getByRole('button', { name: 'Close settings' }).click();
  const row = scoreRow(page, 'docx');
  await runOutput(row);
  const [download] = await Promise.all([page.waitForEvent('download'), row.getByRole('link', { name: /Download/ }).click()]);
  expect(download.suggestedFilename()).toMatch(/\.docx$/);
  // A colleague changes a word, and sends the file back.
  const files = unzipSync(new Uint8Array(await readFile((await download.path())!)));
  const xml = new TextDecoder().decode(files['word/document.xml']);
  const [, word] = /<w:t xml:space="preserve">[^<]*?\b(telescope|dome|stars)\b/.exec(xml)!;
  files['word/document.xml'] = new TextEncoder().encode(
    xml.replace(new RegExp(`(<w:t xml:space="preserve">[^<]*?)\\b${word}\\b`), '$1lantern'),
  );
  await page.goto(`/d/${id}/handover`);
  await page.getByRole('link', { name: 'Bring back what colleagues changed …' }).click();
  const came = { name: 'changed.docx', mimeType: 'application/octet-stream', buffer: Buffer.from(zipSync(files)) };
  await page.locator('input[type=file]').setInputFiles(came);
  const list = page.getByRole('list', { name: 'Corrections' });
  await expect(list.locator('del')).toHaveText(word!);
  await expect(list.locator('ins')).toHaveText('lantern');
  expect(await findings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take it', exact: true }).click();
  await expect(page.getByText('1 correction taken')).toBeVisible();
  await page.locator('input[type=file]').setInputFiles(came);
  await expect(page.getByText('no words are changed')).toBeVisible();
  await page.locator('input[type=file]').setInputFiles({ ...came, buffer: Buffer.from('none') });
  await expect(page.getByRole('alert')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.goto(`/d/${id}/compare`);
  await page.locator('.ant-segmented').getByText('Text document').click();
  const drawn = page.frameLocator('iframe[title^="Page 1 of Text document"]');
  await expect(drawn.locator('p', { hasText: 'Open Dome Night' }).first()).toBeVisible({ timeout: 20_000 });
  expect(await findings(page)).toEqual([]);
  // The same page by page, everything in its place.
  await page.goto(`/d/${id}/outputs`);
  await row.getByRole('button', { name: 'Settings' }).click();
  await sheet.getByLabel('What for').click();
  await page.locator('.ant-select-dropdown:visible').getByText('As laid out', { exact: true }).click();
  await page.getByRole('button', { name: 'Close settings' }).click();
  await expect(row.locator('.state')).toContainText('stale');
  await runOutput(row);
  await page.goto(`/d/${id}/compare`);
  await page.locator('.ant-segmented').getByText('Text document').click();
  await expect(drawn.locator('section p', { hasText: /telescope|lantern|dome|stars/ }).first()).toBeVisible({ timeout: 20_000 });
  await page.goto(`/d/${id}/outputs`);
  await row.getByRole('button', { name: /Remove/ }).click();
  await expect(row).toHaveCount(0);
});

test('slides are made, and drawn beside the layout from their own bytes; files of the open standard are made too', async ({ page }) => {
  await page.goto('/');
  const id = await page.locator('.shelf-row', { hasText: 'Open Dome Night' }).getAttribute('data-document');
  await page.goto(`/d/${id}/outputs`);
  const made = new Map<string, Uint8Array>();
  for (const [name, key] of [
    ['Slides', 'pptx'],
    ['Open slides', 'odp'],
    ['Open text document', 'odt'],
  ] as const) {
    const row = scoreRow(page, key);
    await addOutput(page, new RegExp(`^${name}`));
    await page.getByRole('button', { name: 'Close settings' }).click();
    await runOutput(row);
    const [download] = await Promise.all([page.waitForEvent('download'), row.getByRole('link', { name: /Download/ }).click()]);
    expect(download.suggestedFilename()).toMatch(new RegExp(`\\.${key}$`));
    made.set(key, new Uint8Array(await readFile((await download.path())!)));
  }
  await page.goto(`/d/${id}/compare`);
  await page.locator('.ant-segmented').getByText('Slides', { exact: true }).click();
  const drawn = page.frameLocator('iframe[title^="Page 1 of Slides"]');
  await expect(drawn.locator('section p', { hasText: /dome|telescope|stars/i }).first()).toBeVisible({ timeout: 20_000 });
  expect(await findings(page)).toEqual([]);
  for (const name of ['Open slides', 'Open text document']) {
    await page.locator('.ant-segmented').getByText(name, { exact: true }).click();
    const open = page.frameLocator(`iframe[title^="Page 1 of ${name}"]`);
    await expect(open.locator('p', { hasText: /dome|telescope|stars/i }).first()).toBeVisible({ timeout: 20_000 });
    expect(await findings(page)).toEqual([]);
  }
  // Words that a colleague changed on a slide, and in an open text, come back.
  await page.goto(`/d/${id}/corrections`);
  for (const [key, part, letters] of [
    ['pptx', 'ppt/slides/slide1.xml', /(<a:t>[^<]*?)\b(telescope|dome|stars)\b/],
    ['odt', 'content.xml', /(<text:(?:p|span)\b[^>]*>[^<]*?)\b(telescope|dome|stars)\b/],
    ['odp', 'content.xml', /(<text:(?:p|span)\b[^>]*>[^<]*?)\b(telescope|dome|stars)\b/],
  ] as const) {
    const files = unzipSync(made.get(key)!);
    files[part] = new TextEncoder().encode(new TextDecoder().decode(files[part]).replace(letters, '$1lantern'));
    const came = { name: `changed.${key}`, mimeType: 'application/octet-stream', buffer: Buffer.from(zipSync(files)) };
    await page.locator('input[type=file]').setInputFiles(came);
    await expect(page.getByText(`changed.${key}: 1 paragraph changed`)).toBeVisible();
    await expect(page.getByRole('list', { name: 'Corrections' }).locator('ins')).toHaveText('lantern');
  }
  await page.goto(`/d/${id}/outputs`);
  // The open text document page by page, everything in its place.
  const text = scoreRow(page, 'odt');
  await text.getByRole('button', { name: 'Settings' }).click();
  await page.getByRole('complementary', { name: 'Settings' }).getByLabel('What for').click();
  await page.locator('.ant-select-dropdown:visible').getByText('As laid out', { exact: true }).click();
  await page.getByRole('button', { name: 'Close settings' }).click();
  await expect(text.locator('.state')).toContainText('stale');
  await text.getByRole('button', { name: 'Run', exact: true }).click();
  await expect(text.locator('.state')).toHaveText('fresh', { timeout: 40_000 });
  await page.goto(`/d/${id}/compare`);
  await page.locator('.ant-segmented').getByText('Open text document', { exact: true }).click();
  const laid = page.frameLocator('iframe[title^="Page 1 of Open text document"]');
  await expect(laid.locator('section p', { hasText: /dome|telescope|stars/i }).first()).toBeVisible({ timeout: 20_000 });
  await page.goto(`/d/${id}/outputs`);
  for (const key of ['pptx', 'odp', 'odt']) {
    const row = scoreRow(page, key);
    await row.getByRole('button', { name: /Remove/ }).click();
    await expect(row).toHaveCount(0);
  }
});
