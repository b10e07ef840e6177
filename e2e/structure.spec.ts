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

test('a group becomes one figure, with words of its own', async ({ page }) => {
  await page.goto(`/d/${await almanac(page)}/structure?page=4&item=moon-a`);
  const one = page.getByRole('checkbox', { name: 'The whole group is one figure in running text' });
  await one.check();
  const words = page.locator('.group-figure textarea');
  await words.fill('Three moons over the hill.');
  await words.blur();
  await page.goto(page.url().replace('item=moon-a', 'part=pictures'));
  await expect(page.locator('[data-picture=moons] textarea')).toHaveValue('Three moons over the hill.');
  await page.locator('[data-picture=moons] .thumbnail').click();
  await expect(one).toBeChecked();
  await one.uncheck();
  await expect(page.locator('.group-figure textarea')).toHaveCount(0);
  // What does not stand in a group is not asked about.
  await page.goto(page.url().replace('item=moons', 'item=map-picture'));
  await expect(page.getByRole('textbox', { name: 'Alt text', exact: true })).toBeVisible();
  await expect(one).toHaveCount(0);
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
  // In the line, it stands behind some words.
  await page.getByLabel('How it stands there').click();
  await page.getByTitle('In its line').click();
  const words = page.getByLabel('Behind the words');
  await words.fill('no such words');
  await expect(page.getByText('These words do not stand in it.')).toBeVisible();
  await words.fill('The copper');
  await words.press('Enter');
  await page.reload();
  await expect(words).toHaveValue('The copper');
  await page.getByRole('button', { name: 'Take the pin out' }).click();
  await expect(page.getByRole('button', { name: 'Take the pin out' })).toHaveCount(0);
});

test('a stop is dragged on the page and in the list, a pin onto a paragraph', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/structure?page=4&item=map-picture`);
  await expect(page.locator('[data-pin=map-picture]')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Pin it there' })).toBeVisible();
  const drag = async (from: string, to: { x: number; y: number }): Promise<void> => {
    const box = (await page.locator(from).boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(to.x, to.y, { steps: 6 });
    await page.waitForTimeout(150);
    await page.mouse.up();
  };
  const middle = async (selector: string): Promise<{ x: number; y: number }> => {
    const box = (await page.locator(selector).boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  };
  const before = await order(page);
  await drag('[data-stop=feature-3] .grip', await middle('[data-reach=quote]'));
  await expect.poll(() => order(page)).toEqual([before[0], before[8], ...before.slice(1, 8)]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => order(page)).toEqual(before);
  await drag('.path-list li:nth-child(3) .grip', await middle('.path-list li:nth-child(1) .grip'));
  await expect.poll(() => order(page)).toEqual([before[2], before[0], before[1], ...before.slice(3)]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => order(page)).toEqual(before);
  // By keys alone: the grip takes and puts down with space.
  await page.locator('.path-list li:nth-child(1) .grip').focus();
  await page.keyboard.press('Space');
  await expect(page.locator('.path-list li.dragged')).toBeVisible();
  // The list measures itself first: until it has, an arrow does nothing, and is pressed again.
  const second = page.locator('.path-list li:nth-child(2)');
  await expect(async () => {
    if (!(await second.getAttribute('style'))?.includes('-')) await page.keyboard.press('ArrowDown');
    await expect(second).toHaveAttribute('style', /translate\(0px, -/, { timeout: 1000 });
  }).toPass();
  await page.keyboard.press('Space');
  await expect.poll(() => order(page)).toEqual([before[1], before[0], ...before.slice(2)]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => order(page)).toEqual(before);
  const frame = (await page.locator('[data-reach=feature-2]').boundingBox())!;
  await drag('[data-pin=map-picture] circle', { x: frame.x + 40, y: frame.y + 8 });
  await expect(page.locator('.pin')).toContainText('It would be simpler');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Take the pin out' })).toHaveCount(0);
});

test('strands are named, split, joined and read in one go', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/structure?part=path`);
  const strands = page.locator('.strand');
  await expect(strands.first()).toBeVisible();
  const count = await strands.count();
  const first = strands.nth(1).getByRole('textbox');
  const before = await first.inputValue();
  await first.fill('The big story');
  await first.press('Enter');
  await page.reload();
  await expect(strands.nth(1).getByRole('textbox')).toHaveValue('The big story');
  await strands.nth(1).getByRole('switch').click();
  await expect(strands.nth(1).getByRole('switch')).toBeChecked();
  await page.goto(`/d/${id}/structure?page=4&item=map-picture`);
  await page.getByRole('button', { name: 'Begin a strand here' }).click();
  await expect(page.getByRole('button', { name: 'Begin a strand here' })).toBeDisabled();
  await page.goto(`/d/${id}/structure?part=path`);
  await expect(strands).toHaveCount(count + 1);
  await page.getByRole('button', { name: /Join “Picture “Hill map””/ }).click();
  await expect(strands).toHaveCount(count);
  await strands.nth(1).getByRole('switch').click();
  await first.fill(before);
  await first.press('Enter');
  await expect(first).toHaveValue(before);
  expect((await new AxeBuilder(page).run()).filter((v) => v.impact === 'serious' || v.impact === 'critical')).toEqual([]);
});

test('meanings are kept for other documents, and taken over where styles are called the same', async ({ page }) => {
  await page.goto(`/d/${await almanac(page)}/structure`);
  await page.getByText('Kept meanings').click();
  await page.getByRole('button', { name: 'Keep these for other documents' }).click();
  await page.getByRole('searchbox', { name: 'Name to keep them under' }).fill('House style');
  await page.keyboard.press('Enter');
  const set = page.locator('[data-set="House style"]');
  await expect(set.getByRole('button', { name: 'Nothing to apply' })).toBeDisabled();
  // A class of its own, and back again by what was kept.
  const row = page.locator('tr[data-style=caption]');
  await row.locator('.unfold').click();
  const own = page.getByLabel(/^Class of/);
  await own.fill('1 wrong');
  await own.press('Enter');
  await expect(page.getByText('A letter first')).toBeVisible();
  await own.fill('plate-note');
  await own.press('Enter');
  await set.getByRole('button', { name: 'Apply to 1 style' }).click();
  await expect(own).toHaveValue('');
  await set.getByRole('button', { name: /^Take away/ }).click();
  await page.getByRole('button', { name: 'Take away', exact: true }).click();
  await expect(set).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(own).toHaveValue('');
});

test('the outline says other words, and leaves out', async ({ page }) => {
  await page.goto(`/d/${await almanac(page)}/structure?part=outline`);
  const heading = page.locator('[data-heading=dome-feature-18]');
  const words = heading.getByRole('textbox');
  await words.fill('What to wear');
  await words.press('Enter');
  await page.reload();
  await expect(words).toHaveValue('What to wear');
  await heading.getByRole('button', { name: /is listed/ }).click();
  await expect(words).toBeDisabled();
  await heading.getByRole('button', { name: /is listed/ }).click();
  await words.fill('');
  await words.press('Enter');
  await expect(words).toHaveValue('Before you come');
});

test('a passage gets its language', async ({ page }) => {
  await page.goto(`/d/${await almanac(page)}/structure?page=4&item=quote`);
  await page.getByText('Languages of its paragraphs').click();
  const language = page.locator('[data-paragraph=quote-text-1]').getByRole('combobox');
  await language.fill('fr');
  await language.press('Enter');
  await language.blur();
  await page.reload();
  await page.getByText('Languages of its paragraphs').click();
  await expect(language).toHaveValue('fr');
  await language.fill('');
  await language.blur();
  await expect(language).toHaveValue('');
  // Some words of it alone.
  const passage = page.locator('.languages li').first();
  await passage.getByRole('button', { name: 'Some words in another' }).click();
  const words = passage.getByLabel('Words as they stand in the paragraph');
  await words.fill('nothing of that');
  await expect(passage.getByText('These words do not stand in it.')).toBeVisible();
  await words.fill('much better');
  await passage.getByRole('combobox', { name: 'Language of these words' }).fill('la');
  await page.keyboard.press('Enter');
  const said = passage.getByRole('combobox', { name: 'Language of the words “much better”' });
  await expect(said).toHaveValue('la');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(said).toHaveCount(0);
});
