import { expect, test } from '@playwright/test';
import AxeBuilder from './axe.ts';

test('a text document is made, downloaded and drawn beside the layout', async ({ page }) => {
  await page.goto('/');
  const id = await page.locator('.shelf-row', { hasText: 'Open Dome Night' }).getAttribute('data-document');
  await page.goto(`/d/${id}/outputs`);
  await page.getByRole('button', { name: 'Add an output…' }).click();
  await page.getByRole('menuitem', { name: /^Text document/ }).click();
  const sheet = page.getByRole('complementary', { name: 'Settings' });
  await expect(sheet.getByText('A layout may give every line its own; these files know one for each paragraph.')).toBeVisible();
  await page.getByRole('button', { name: 'Close settings' }).click();
  const row = page.locator('tr[data-output=docx]');
  await row.getByRole('button', { name: 'Run', exact: true }).click();
  await expect(row.locator('.state')).toHaveText('fresh', { timeout: 40_000 });
  const [download] = await Promise.all([page.waitForEvent('download'), row.getByRole('link', { name: /Download/ }).click()]);
  expect(download.suggestedFilename()).toMatch(/\.docx$/);
  await page.goto(`/d/${id}/compare`);
  const drawn = page.frameLocator('iframe[title^="Page 1 of Text document"]');
  await expect(drawn.locator('p', { hasText: 'Open Dome Night' }).first()).toBeVisible({ timeout: 20_000 });
  expect((await new AxeBuilder(page).run()).map((v) => `${v.id}: ${v.targets[0]}`)).toEqual([]);
  await page.goto(`/d/${id}/outputs`);
  await row.getByRole('button', { name: /Remove/ }).click();
  await expect(row).toHaveCount(0);
});
