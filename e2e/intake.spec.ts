import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { flat } from '../core/test/odf/support/flatFile.ts';

const BOX = (y: number): string => `svg:x="1cm" svg:y="${y}cm" svg:width="12cm" svg:height="2cm"`;
const FILE = flat({
  kind: 'presentation',
  meta: '<dc:title>Evenings on the hill</dc:title>',
  styles:
    '<style:style style:name="Sky-title" style:display-name="Sky title" style:family="presentation"><style:text-properties fo:font-size="28pt" fo:font-family="Verdana"/></style:style><draw:gradient draw:name="H" draw:style="square" draw:start-color="#1e5b4b" draw:end-color="#ffffff"/>',
  automatic:
    '<style:style style:name="gr1" style:family="graphic"><style:graphic-properties draw:fill="gradient" draw:fill-gradient-name="H"/></style:style>',
  pages: `<draw:page draw:name="One" draw:master-page-name="M"><draw:frame presentation:style-name="Sky-title" ${BOX(1)}><draw:text-box><text:p>When the dome turns</text:p></draw:text-box></draw:frame></draw:page><draw:page draw:name="Two" draw:master-page-name="M"><draw:rect draw:style-name="gr1" ${BOX(5)}/></draw:page>`,
});

test('a presentation comes in: its pages, its texts as styles, and what did not come along, page by page', async ({ page }) => {
  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles({ name: 'evenings.fodp', mimeType: 'text/xml', buffer: Buffer.from(FILE) });
  await expect(page.getByText('Evenings on the hill is on the shelf.')).toBeVisible();
  const id = await page.locator('.shelf-row', { hasText: 'Evenings on the hill' }).getAttribute('data-document');
  try {
    await page.getByRole('button', { name: 'Open it' }).click();
    await expect(page.locator('.spread .glyphs').first()).toBeAttached();
    const report = page.getByRole('complementary', { name: 'Details' });
    await expect(report.getByText('What came in otherwise')).toBeVisible();
    await expect(report).toContainText('Verdana is not there; Arimo stands in for it.');
    await report.getByRole('button', { name: /Page 2: Gradient in the form of a square/ }).click();
    await expect(page.getByRole('heading', { name: 'Page 2', exact: false }).first()).toBeInViewport();
  } finally {
    const { origin } = new URL(page.url());
    await page.request.delete(`/api/folios/${id}`, { headers: { origin } });
  }
});

test('a file of another kind is refused with what it is', async ({ page }) => {
  await page.goto('/');
  const text = FILE.replace('opendocument.presentation', 'opendocument.text');
  await page.locator('input[type=file]').setInputFiles({ name: 'letter.fodp', mimeType: 'text/xml', buffer: Buffer.from(text) });
  await expect(page.getByText('The file is an OpenDocument text, not a drawing or a presentation.', { exact: false })).toBeVisible();
});

/** Brings the file in and opens it; `done` takes it off the shelf again. */
async function bringIn(page: Page, name: string, text: string): Promise<{ id: string; done: () => Promise<void> }> {
  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'text/xml', buffer: Buffer.from(text) });
  await page.getByRole('button', { name: 'Open it' }).click();
  await page.waitForURL(/\/d\//);
  const id = /\/d\/([^/]+)/.exec(page.url())![1]!;
  const { origin } = new URL(page.url());
  return { id, done: async () => void (await page.request.delete(`/api/folios/${id}`, { headers: { origin } })) };
}

test('looks made by hand become styles with one button, and the step can be undone', async ({ page }) => {
  const bold = '<style:style style:name="T1" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style>';
  const text = FILE.replace('<style:style style:name="gr1"', `${bold}<style:style style:name="gr1"`).replace(
    'When the dome turns',
    'When the <text:span text:style-name="T1">dome</text:span> turns',
  );
  const { done } = await bringIn(page, 'by-hand.fodp', text);
  try {
    const report = page.getByRole('complementary', { name: 'Details' });
    await expect(report.getByText('1 passage is formatted by hand')).toBeVisible();
    await report.getByRole('button', { name: 'Make styles of them' }).click();
    await expect(report.getByText('formatted by hand')).toHaveCount(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(report.getByText('1 passage is formatted by hand')).toBeVisible();
  } finally {
    await done();
  }
});

test('a font that is not there: another is chosen for it, or its file is added for all documents', async ({ page }) => {
  // A family of the test's own name, made of a shipped font: its name is written over in the file.
  const require = createRequire(import.meta.url);
  const folder = dirname(require.resolve('@expo-google-fonts/work-sans/package.json'));
  const file = Buffer.from(await readFile(join(folder, '400Regular', 'WorkSans_400Regular.ttf')));
  const utf16 = (s: string): Buffer => Buffer.from(s, 'utf16le').swap16();
  for (let at = file.indexOf(utf16('Work Sans')); at >= 0; at = file.indexOf(utf16('Work Sans'), at)) utf16('Hill Sans').copy(file, at);
  const { done } = await bringIn(page, 'fonts.fodp', FILE.replace('Verdana', 'Hill Sans'));
  try {
    const fonts = page.getByRole('region', { name: 'Fonts' });
    await expect(fonts.getByText('not there')).toBeVisible();
    await fonts.getByRole('combobox', { name: 'Set Hill Sans with' }).click();
    await page.getByTitle('Cousine').click();
    const report = page.getByRole('complementary', { name: 'Details' });
    await expect(report).toContainText('Hill Sans is not there; Cousine stands in for it.');
    await page.reload();
    await expect(page.getByRole('complementary', { name: 'Details' })).toContainText('Cousine stands in for it.');
    await page
      .getByLabel('Font file')
      .setInputFiles({ name: 'not-a-font.ttf', mimeType: 'font/ttf', buffer: Buffer.from('no font at all') });
    await expect(fonts.getByRole('status')).toContainText('This is not a TrueType or OpenType font.');
    await page.getByLabel('Font file').setInputFiles({ name: 'hill.ttf', mimeType: 'font/ttf', buffer: file });
    await expect(fonts).toContainText('from your font library');
    await expect(report).not.toContainText('stands in for it');
    await page.goto('/');
    await page.getByRole('button', { name: /^Remove Hill Sans/ }).click();
    await expect(page.getByRole('region', { name: 'Font library' })).toHaveCount(0);
  } finally {
    await done();
  }
});

test('pages are laid in pairs and get a bleed', async ({ page }) => {
  const { id, done } = await bringIn(page, 'pairs.fodp', FILE);
  try {
    await page.getByLabel('Pages lie').click();
    await page.getByTitle('In pairs, from the first').click();
    await expect(page.locator('.spread')).toHaveCount(1);
    await page.getByLabel('Bleed').fill('3');
    await page.getByLabel('Bleed').blur();
    await expect(page.getByText('every change kept')).toBeVisible();
    const opened = (await (await page.request.get(`/api/folios/${id}`)).json()) as {
      head: { facingPages: boolean; spreadOrder: string[] };
    };
    expect([opened.head.facingPages, opened.head.spreadOrder.length]).toEqual([true, 1]);
    const { parts } = (await (
      await page.request.post(`/api/folios/${id}/parts`, {
        headers: { origin: new URL(page.url()).origin },
        data: { paths: [`spreads/${opened.head.spreadOrder[0]}.json`] },
      })
    ).json()) as { parts: Record<string, { pages: { bleed: number }[] }> };
    const [spread] = Object.values(parts);
    expect(spread!.pages.map((p) => Math.round(p.bleed * 100) / 100)).toEqual([8.5, 8.5]);
  } finally {
    await done();
  }
});

test('a sample as a drawing is brought in from the shelf, and says what it cannot hold', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Or try it with a sample' }).click();
  await page.getByText('what it cannot hold').first().click();
  await page.getByRole('button', { name: 'open-dome-night.odg' }).click();
  await expect(page.getByText('Open Dome Night is on the shelf.')).toBeVisible();
  await page.getByRole('button', { name: 'Open it' }).click();
  await expect(page.getByRole('heading', { name: 'What came in otherwise' })).toBeVisible();
  const id = /\/d\/([^/]+)/.exec(page.url())![1]!;
  await page.request.delete(`/api/folios/${id}`, { headers: { origin: new URL(page.url()).origin } });
});

test('pages of a large file appear while it is read, and reading can be cancelled: nothing of it stays', async ({ page }) => {
  const text = FILE.replace(/(<draw:page draw:name="One".*<\/draw:page>)/, (_, pages: string) => pages.repeat(400)).replace(
    'Evenings on the hill',
    'Very many evenings',
  );
  await page.goto('/');
  await expect(page.locator('.shelf-row').first()).toBeVisible();
  const before = await page.locator('.shelf-row').count();
  await page.locator('input[type=file]').setInputFiles({ name: 'large.fodp', mimeType: 'text/xml', buffer: Buffer.from(text) });
  await expect(page.locator('.sketches svg').first()).toBeVisible();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.locator('.sketches')).toHaveCount(0);
  // Whatever was under way when it was cancelled has come to its end by then.
  await page.waitForTimeout(5000);
  await page.reload();
  await expect(page.locator('.shelf-row')).toHaveCount(before);
});
