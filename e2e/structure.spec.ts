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
  await page.getByRole('checkbox', { name: /^Decoration/ }).click();
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

test('pictures get their words, and the outline its sections', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/structure?part=pictures`);
  const row = page.locator('[data-picture=telescope-picture]');
  const words = row.getByRole('textbox');
  const before = await words.inputValue();
  await words.fill('');
  await words.blur();
  await expect(page.getByText(/1 of \d+ pictures say nothing/)).toBeVisible();
  // What is missing comes first.
  await expect(page.locator('.picture-list li').first()).toHaveAttribute('data-picture', 'telescope-picture');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(words).toHaveValue(before);

  await page.goto(`/d/${id}/structure?part=outline`);
  const heading = page.locator('[data-heading=dome-feature-3]');
  await heading.getByRole('switch').click();
  await expect(heading.getByRole('switch')).toBeChecked();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(heading.getByRole('switch')).not.toBeChecked();
});

test('a picture is pinned to a paragraph, and let go', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/structure?page=4&item=map-picture`);
  await page.getByLabel('Paragraph').click();
  await page.keyboard.type('copper will be');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Take the pin out' })).toBeVisible();
  await page.reload();
  await expect(page.locator('.pin')).toContainText('The copper will be');
  await page.getByRole('button', { name: 'Take the pin out' }).click();
  await expect(page.getByRole('button', { name: 'Take the pin out' })).toHaveCount(0);
});
