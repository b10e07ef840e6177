import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import AxeBuilder from './axe.ts';

const almanac = async (page: Page): Promise<string> => {
  const list = (await (await page.request.get('/api/folios')).json()) as { id: string; title: string }[];
  return list.find((f) => f.title === 'The Marrowby Almanac')!.id;
};
const order = (page: Page): Promise<string[]> => page.locator('.path-list li').allTextContents();

test('the reading path is seen on the pages, and corrected by keys', async ({ page }) => {
  await page.goto(`/d/${await almanac(page)}/structure?page=2`);
  await expect(page.locator('[data-spread=s2] .path-rule text')).toHaveText(['1', '2', '3', '4', '5']);
  await page.locator('[data-reach="telescope-picture"]').click();
  await expect(page.locator('.path-list li')).toHaveCount(5);
  const before = await order(page);
  expect(before[2]).toMatch(/Telescope/);
  await page.keyboard.press('Alt+ArrowDown');
  await expect.poll(() => order(page)).toEqual([before[0], before[1], before[3], before[2], before[4]]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => order(page)).toEqual(before);
  await page.getByRole('switch', { name: /^Decoration/ }).click();
  await expect(page.locator('.path-list li')).toHaveCount(4);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.path-list li')).toHaveCount(5);
});

test('styles get their meaning from a list of suggestions', async ({ page }) => {
  await page.goto(`/d/${await almanac(page)}/structure`);
  const row = page.locator('tr[data-style=caption]');
  await expect(row).toBeVisible();
  await row.getByRole('switch', { name: /starts a section/ }).click();
  await expect(row.getByRole('switch')).toBeChecked();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row.getByRole('switch')).not.toBeChecked();
  expect((await new AxeBuilder(page).run()).filter((v) => v.impact === 'serious' || v.impact === 'critical')).toEqual([]);
});
