import { readFile } from 'node:fs/promises';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { unzipSync } from 'fflate';
import AxeBuilder from './axe.ts';
import { addOutput } from './scoreRows.ts';
import { ORIGIN } from './ownApplication.ts';

test.describe.configure({ mode: 'serial' });

const flyer = async (page: Page): Promise<string> => {
  await page.goto('/');
  return (await page.locator('.shelf-row', { hasText: 'Open Dome Night' }).getAttribute('data-document'))!;
};
const findings = async (page: Page): Promise<string[]> => (await new AxeBuilder(page).run()).map((v) => `${v.id}: ${v.targets[0]}`);
const part = (page: Page, name: string) => page.getByLabel('Parts of the edition').getByText(name, { exact: true });

let sent = '';

test('a new language: what there is to translate is counted, and the file goes out', async ({ page }) => {
  test.setTimeout(150_000);
  const id = await flyer(page);
  await page.goto(`/d/${id}/languages`);
  await expect(page.getByRole('button', { name: /German/ })).toContainText('11 of 20 texts');
  const field = page.getByLabel('Another language');
  await field.fill('fr');
  await field.press('Tab');
  await expect(page.getByRole('button', { name: /French/ })).toContainText('0 of 20 texts');
  await expect(page.getByLabel('What there is to translate')).toContainText(/\d{3} words in 20 segments/);
  // What goes out has its effect at once.
  await page.getByText('What goes out, and what goes along').click();
  await page.getByLabel('Alt texts').click();
  await page.locator('.ant-select-dropdown:visible').getByText('Stays here', { exact: true }).click();
  await expect(page.getByLabel('What there is to translate')).toContainText('in 19 segments');
  await page.getByLabel('Alt texts').click();
  await page.locator('.ant-select-dropdown:visible').getByText('Goes out', { exact: true }).click();
  await expect(page.getByLabel('What there is to translate')).toContainText('in 20 segments');
  expect(await findings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make the file' }).click();
  const download = page.getByRole('link', { name: /Download/ });
  await expect(download).toBeVisible({ timeout: 90_000 });
  const [file] = await Promise.all([page.waitForEvent('download'), download.click()]);
  const files = unzipSync(new Uint8Array(await readFile(await file.path())));
  expect(Object.keys(files).sort()).toEqual(['pages.pdf', 'report.html', 'texts.fr.xlf']);
  sent = new TextDecoder().decode(files['texts.fr.xlf']);
});

/** What a translator makes of the file: every target says in brackets what its source says. */
const translated = (xlf: string): string =>
  xlf
    .replace(/<source([^>]*)>(.*?)<\/source>(?=<\/segment>)/gs, '<source$1>$2</source><target>«$2»</target>')
    .replaceAll('state="initial"', 'state="translated"');

test('it comes back: what broke is told, the good ones are taken, then the rest; undo brings back what was', async ({ page }) => {
  const id = await flyer(page);
  await page.goto(`/d/${id}/languages?language=fr&part=back`);
  const upload = page.getByLabel('File from the translator');
  await upload.setInputFiles({
    name: 'texts.fr.xlf',
    mimeType: 'application/xliff+xml',
    buffer: Buffer.from(sent.replace('trgLang="fr"', 'trgLang="it"')),
  });
  await expect(page.getByRole('alert')).toContainText('The file is in “it”, not in “fr”.');
  // One translation lost a code, one is far too long.
  const broken = translated(sent)
    .replace(/(<target>«[^<]*)<pc id="1"[^>]*>([^<]*)<\/pc>/, '$1$2')
    .replace('<target>«What to bring»', `<target>«${'What to bring '.repeat(60)}»`);
  await upload.setInputFiles({ name: 'texts.fr.xlf', mimeType: 'application/xliff+xml', buffer: Buffer.from(broken) });
  await expect(page.getByText(/20 segments new or changed/)).toBeVisible({ timeout: 40_000 });
  expect(await findings(page)).toEqual([]);
  await page.getByLabel('Shown').click();
  await page.locator('.ant-select-dropdown:visible').getByText('With something to look at').click();
  await expect(page.locator('.returned')).toContainText('is missing.');
  await expect(page.locator('.returned')).toContainText('letters are not seen.');
  await page.getByRole('button', { name: /^Take the 1\d good ones/ }).click();
  await expect(page.getByRole('button', { name: /French/ })).toContainText(/1\d of 20 texts/);
  await page.getByRole('button', { name: /^Take all/ }).click();
  await expect(page.getByRole('button', { name: /French/ })).toContainText('all translated');
  await part(page, 'Fit').click();
  await expect(page.locator('.fit-list')).toContainText('1 text longer than its frame');
  await expect(page.locator('.growth .over')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: /French/ })).toContainText(/1\d of 20 texts/);
});

test('at the desk a text is translated beside its page; what is confirmed is in the memory', async ({ page }) => {
  const id = await flyer(page);
  await page.goto(`/d/${id}/languages?language=fr&part=desk`);
  await page.getByLabel('Find', { exact: true }).fill('What to bring');
  await page.locator('.desk-target').first().click();
  const editor = page.getByLabel('Translation');
  await editor.fill('À apporter !');
  await expect(page.locator('.desk-editor .warn')).toContainText('It ends with “!”');
  await editor.fill('À apporter');
  await editor.press('Control+Enter');
  await expect(page.locator('.desk-row').first()).toContainText('À apporter');
  await expect(page.locator('.table svg').first()).toBeVisible();
  expect(await findings(page)).toEqual([]);
  await expect.poll(async () => (await page.request.get('/api/memory/en/fr')).text()).toContain('À apporter');
});

test('outputs are made in the language as well; a locked edition does not change', async ({ page }) => {
  const id = await flyer(page);
  await page.goto(`/d/${id}/outputs`);
  await addOutput(page, /^PDF/);
  await page.getByRole('button', { name: 'Close settings' }).click();
  await page.goto(`/d/${id}/languages?language=de&part=settings`);
  await page.getByRole('button', { name: 'Add every output in German' }).click();
  await expect(page.locator('.edition-settings')).toContainText('PDF, German');
  await page.getByRole('button', { name: 'Confirm and lock' }).click();
  await expect(page.locator('.edition-settings')).toContainText('confirmed and locked');
  await part(page, 'Desk').click();
  await expect(page.locator('.desk')).toContainText('The edition is locked');
  await page.goto(`/d/${id}/outputs`);
  const row = page.locator('tr', { hasText: 'PDF, German' });
  await row.getByRole('button', { name: 'Run', exact: true }).click();
  await expect(row.locator('.state')).toHaveText('fresh', { timeout: 40_000 });
  await page.goto(`/d/${id}/languages?language=de&part=settings`);
  await page.getByRole('button', { name: 'Unlock' }).click();
  await expect(page.locator('.edition-settings')).toContainText(/locked .*; unlocked/);
});

test('several documents go out as one set; a style is never translated; another picture in one language', async ({ page }) => {
  const id = await flyer(page);
  const other = (await page.locator('.shelf-row', { hasText: 'Five Worlds' }).getAttribute('data-document'))!;
  await page.goto(`/d/${id}/languages?language=fr`);
  const analysis = page.getByLabel('What there is to translate');
  await expect(analysis).toContainText('in 20 segments');
  await page.getByLabel('Together with').click();
  await page.locator('.ant-select-dropdown:visible').getByText('Five Worlds').click();
  // A press elsewhere closes the list.
  await page.getByRole('heading', { name: 'Languages', exact: true }).click();
  await expect(page.locator('.ant-select-dropdown:visible')).toHaveCount(0);
  await expect(analysis).toContainText(/Five Worlds: \d+ words/);
  expect(await findings(page)).toEqual([]);
  await page.getByRole('button', { name: 'Make the files' }).click();
  await expect(page.getByRole('link', { name: 'Five Worlds' })).toBeVisible({ timeout: 60_000 });
  // The other document is left as it was.
  const { recipes } = (await (await page.request.get(`/api/folios/${other}`)).json()) as {
    recipes: Record<string, { id: string; name: string }>;
  };
  const made = Object.values(recipes).filter((r) => r.name.endsWith(', French'));
  expect(made).toHaveLength(1);
  await page.request.post(`/api/folios/${other}/edits`, {
    headers: { origin: ORIGIN },
    data: {
      base: 100_000,
      actor: 'test',
      edits: [
        { uid: crypto.randomUUID(), burst: 'test', edit: { kind: 'recipe.remove', args: { recipe: made[0]!.id } } },
        { uid: crypto.randomUUID(), burst: 'test', edit: { kind: 'edition.remove', args: { language: 'fr' } } },
      ],
    },
  });
  await page.goto(`/d/${id}/languages?language=fr`);
  await page.getByText('What goes out, and what goes along').click();
  await page.getByLabel('Styles that are never translated').click();
  await page.locator('.ant-select-dropdown:visible').getByText('Flyer title', { exact: true }).click();
  // A press elsewhere closes the list.
  await page.getByRole('heading', { name: 'Languages', exact: true }).click();
  await expect(page.locator('.ant-select-dropdown:visible')).toHaveCount(0);
  await expect(analysis).toContainText('in 19 segments');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(analysis).toContainText('in 20 segments');
});
