import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import AxeBuilder from './axe.ts';

test.describe.configure({ mode: 'serial' });

const almanac = async (page: Page): Promise<string> => {
  await page.goto('/');
  return (await page.locator('.shelf-row', { hasText: 'The Marrowby Almanac' }).getAttribute('data-document'))!;
};
const findings = async (page: Page): Promise<string[]> => (await new AxeBuilder(page).run()).map((v) => `${v.id}: ${v.targets[0]}`);
let link = '';

test('the shelf shows how far each language is; a translator is asked by mail', async ({ page }) => {
  const id = await almanac(page);
  await expect(page.locator(`[data-document="${id}"]`).getByRole('progressbar', { name: /German: \d+ of \d+ texts/ })).toBeVisible();
  await page.goto(`/d/${id}/languages?language=de&part=people`);
  await page.getByLabel('Name', { exact: true }).fill('Ilse Brandt');
  await page.getByRole('button', { name: 'Send the mail' }).click();
  await expect(page.getByRole('alert')).toContainText('an address of mail');
  await page.getByLabel('Mail', { exact: true }).fill('ilse@wortwerk.example');
  await page.getByLabel('A word with it').fill('Please say Sie.');
  await page.getByRole('textbox', { name: 'Pages' }).fill('2-3');
  await page.getByLabel('Needed by').fill('12 Jan 2999');
  await page.getByLabel('Needed by').press('Enter');
  // The calendar is taken off the page only when it has faded away.
  await expect(page.locator('.ant-picker-dropdown')).toBeHidden();
  expect(await findings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Send the mail' }).click();
  const job = page.getByLabel('Jobs').locator('li').first();
  await expect(job).toContainText('Ilse Brandt');
  await expect(job).toContainText('pages 2-3, needed by 12 Jan 2999');
  await page.getByRole('link', { name: 'simulated outbox' }).click();
  const mail = page.getByLabel('Mail', { exact: true });
  await expect(mail).toContainText('Please say Sie.');
  expect(await findings(page)).toEqual([]);
  link = (await mail.getByRole('link', { name: /^http/ }).getAttribute('href'))!;
});

test('the link opens a desk with this job only: matches by key, terms, a comment, a question, delivery', async ({ page }) => {
  const programs: string[] = [];
  page.on('request', (r) => void (r.resourceType() === 'script' && programs.push(new URL(r.url()).pathname)));
  await page.goto(link);
  await expect(page.getByRole('heading', { name: 'The Marrowby Almanac' })).toBeVisible();
  // Nothing of the designer's screens comes with the desk.
  expect(programs.some((p) => p.includes('/GuestDesk-'))).toBe(true);
  expect(programs.filter((p) => /\/(Shelf|Intake|Structure|Motion|Outputs|Compare|Handover|Languages|DocumentShell)-/.test(p))).toEqual([]);
  expect(await findings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Take it on' }).click();
  await expect(page.locator('.desk-row').first()).toBeVisible({ timeout: 40_000 });
  await expect(page.getByRole('link')).toHaveCount(0);
  await page.getByLabel('Find', { exact: true }).fill('great tube at rest');
  await expect(page.locator('.desk-row')).toHaveCount(1);
  await page.locator('.desk-target').click();
  const editor = page.getByLabel('Translation');
  const before = await editor.inputValue();
  await editor.fill('Das Rohr.');
  const matches = page.getByLabel('From the memory');
  await expect(matches).toContainText('100 %');
  await editor.press('Alt+Shift+Digit1');
  await expect(editor).toHaveValue(before);
  await editor.fill('Das große Rohr ruht.');
  await page.getByLabel('Comment').fill('Is it brass?');
  await page.getByLabel('Comment').press('Enter');
  await expect(page.locator('.segment-notes')).toContainText('Is it brass?');
  await expect(page.locator('.segment-notes')).toContainText('Ilse Brandt');
  expect(await findings(page)).toEqual([]);
  // A term is underlined, and it is told where a translation does without it.
  await page.getByLabel('Find', { exact: true }).fill('brass telescope');
  await expect(page.locator('.desk-source .term').first()).toHaveText('telescope');
  await page.locator('.desk-target').first().click();
  await page.getByLabel('Translation').fill('Das lange Messingrohr in der Kuppel.');
  await expect(page.locator('.desk-editor')).toContainText('“telescope” is “Fernrohr” among the terms.');
  await page.getByLabel('Translation').fill('Das lange Fernrohr aus Messing zeigt durch den offenen Spalt der Kuppel.');
  await page.getByLabel('Translation').press('Control+Enter');
  await page.getByRole('button', { name: 'Ask a question' }).click();
  await page.getByLabel('Your question').fill('Who is the reader?');
  await page.getByRole('button', { name: 'Send the question' }).click();
  await expect(page.getByText('Your question was sent.')).toBeVisible();
  await expect(page.locator('.doc-name')).toContainText('every change kept');
  await page.getByRole('button', { name: 'Deliver' }).click();
  await expect(page.locator('.top')).toContainText('Delivered; thank you, Ilse Brandt');
  await expect(page.locator('.desk-target').first()).toBeDisabled();
});

test('the designer is told, and sees what was written by whom; the link dies with the job', async ({ page }) => {
  const id = await almanac(page);
  await page.getByRole('button', { name: /^Notices, \d+ new/ }).click();
  const notices = page.locator('.notices');
  await expect(notices).toContainText('Ilse Brandt has finished.');
  await expect(notices).toContainText('Ilse Brandt asks: Who is the reader?');
  await notices.getByRole('link', { name: /has finished/ }).click();
  await expect(page.getByLabel('Jobs')).toContainText('delivered');
  await page.goto(`/d/${id}/languages?language=de&part=desk`);
  await page.getByLabel('Find', { exact: true }).fill('great tube at rest');
  await expect(page.locator('.desk-target')).toContainText('Das große Rohr ruht.');
  await page.locator('.desk-target').click();
  await page.getByText(/What it was before/).click();
  await expect(page.locator('.segment-notes details')).toContainText('Das große Rohr in Ruhe');
  await page.goto(`/d/${id}/languages?language=de&part=people`);
  await page.getByRole('button', { name: 'Forget', exact: true }).first().click();
  await page.getByRole('button', { name: 'Forget it' }).click();
  await expect(page.getByLabel('Jobs')).toHaveCount(0);
  await page.goto(link);
  await expect(page.getByRole('heading')).toContainText('not there any more');
});

test('the simulated service sends a file with codes lost, which is told when it is looked at', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/languages?language=de&part=people`);
  await page.getByText('Simulated service', { exact: true }).click();
  await page.getByLabel('Seconds until it delivers').fill('0');
  await page.getByText('Lose some codes').click();
  await page.getByRole('button', { name: 'Give it the job' }).click();
  await page.getByRole('button', { name: 'Look at what came' }).click({ timeout: 40_000 });
  await expect(page.getByText(/segments new or changed/)).toBeVisible({ timeout: 60_000 });
  await page.getByLabel('Shown').click();
  await page.locator('.ant-select-dropdown:visible').getByText('With something to look at').click();
  await expect(page.locator('.returned')).toContainText('is missing.');
});

test('at the desk a text is parted into sentences and joined again, words are replaced, and what the memory knows is brought', async ({
  page,
}) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/languages?language=de&part=desk`);
  await page.getByLabel('Find', { exact: true }).fill('weighs a little over nine tonnes');
  await page.locator('.desk-target').first().click();
  await page.getByRole('button', { name: 'Part into sentences' }).click();
  await page.getByLabel('Find', { exact: true }).fill('hundredzwölf');
  await page.getByLabel('Find', { exact: true }).fill('twenty-four wheels');
  await expect(page.locator('.desk-source').first()).toContainText('2 of 4');
  await page.locator('.desk-target').first().click();
  await page.getByRole('button', { name: 'Join with the next' }).click();
  await expect(page.locator('.desk-source').first()).toContainText('2 of 3');
  await page.locator('.desk-target').first().click();
  await page.getByRole('button', { name: 'Part before a word' }).click();
  await page.getByRole('group', { name: 'Part before a word' }).getByRole('button', { name: 'stands', exact: true }).click();
  await expect(page.locator('.desk-source').first()).toContainText('of 4');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.desk-source').first()).toContainText('2 of 3');
  await page.getByLabel('Find', { exact: true }).fill('');
  await page.getByRole('button', { name: 'Replace words' }).click();
  await page.getByLabel('Words in translations').fill('Sternwarte');
  await page.getByLabel('Other words').fill('Warte');
  await page.getByRole('button', { name: /^Replace \d+ places?/ }).click();
  await expect(page.locator('.desk > [role=status]')).toContainText(/Replaced in \d+ texts?/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'From memory' }).click();
  await expect(page.locator('.desk > [role=status]')).toContainText(/from the memory|no open text/);
});

test('before anything is translated: a forecast, and which fonts lack letters', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/languages`);
  const field = page.getByLabel('Another language');
  await field.fill('he');
  await field.press('Tab');
  await page.getByLabel('Parts of the edition').getByText('Fit', { exact: true }).click();
  const letters = page.getByLabel('Letters of the language');
  await expect(letters).toContainText('Source Serif 4 lacks', { timeout: 40_000 });
  await letters.getByRole('button', { name: 'Set with Heebo' }).first().click();
  await expect(letters).toContainText('is set with Heebo in Hebrew.', { timeout: 40_000 });
  // The document is left as it was.
  const hebrew = page.getByRole('button', { name: /Hebrew/ });
  while (await hebrew.count()) {
    await page.getByRole('button', { name: 'Undo' }).click();
    await page.waitForTimeout(400);
  }
  await page.goto(`/d/${id}/languages?language=de&part=fit`);
  await expect(page.locator('.forecast')).toContainText(/\d+ open texts at \d+ % of their length/);
  await page.getByLabel('Forecast').click();
  await expect(page.locator('.fit-list h2').first()).toContainText('would');
  expect(await findings(page)).toEqual([]);
});

test('the memory is searched and mended, terms are kept', async ({ page }) => {
  const id = await almanac(page);
  await page.goto(`/d/${id}/languages?language=de&part=memory`);
  await page.getByLabel('Find in the memory').fill('Rohr ruht');
  await expect(page.getByLabel('The memory').locator('li')).toHaveCount(0);
  await page.getByLabel('Find in the memory').fill('Fernrohr aus Messing');
  const entry = page.getByLabel('The memory').locator('li').first();
  await entry.getByRole('textbox').fill('Das lange Fernrohr aus blankem Messing.');
  await entry.getByRole('textbox').blur();
  await page.getByLabel('Find in the memory').fill('blankem');
  await expect(page.getByLabel('The memory').locator('li')).toHaveCount(1);
  await page.getByLabel('Term', { exact: true }).fill('slit');
  await page.getByLabel('Its translation').fill('Spalt');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByLabel('Terms', { exact: true })).toContainText('Spalt');
  expect(await findings(page)).toEqual([]);
});
