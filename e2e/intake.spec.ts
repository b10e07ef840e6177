import { expect, test } from '@playwright/test';
import { flat } from '../core/test/odf/support/flatFile.ts';

const BOX = (y: number): string => `svg:x="1cm" svg:y="${y}cm" svg:width="12cm" svg:height="2cm"`;
const FILE = flat({
  kind: 'presentation',
  meta: '<dc:title>Evenings on the hill</dc:title>',
  styles:
    '<style:style style:name="Sky-title" style:display-name="Sky title" style:family="presentation"><style:text-properties fo:font-size="28pt" fo:font-family="Verdana"/></style:style><draw:hatch draw:name="H" draw:color="#1e5b4b"/>',
  automatic:
    '<style:style style:name="gr1" style:family="graphic"><style:graphic-properties draw:fill="hatch" draw:fill-hatch-name="H"/></style:style>',
  pages: `<draw:page draw:name="One" draw:master-page-name="M"><draw:frame presentation:style-name="Sky-title" ${BOX(1)}><draw:text-box><text:p>When the dome turns</text:p></draw:text-box></draw:frame></draw:page><draw:page draw:name="Two" draw:master-page-name="M"><draw:rect draw:style-name="gr1" ${BOX(5)}/></draw:page>`,
});

test('a presentation comes in: its pages, its texts as styles, and what did not come along, page by page', async ({ page }) => {
  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles({ name: 'evenings.fodp', mimeType: 'text/xml', buffer: Buffer.from(FILE) });
  await expect(page.getByText('Evenings on the hill is on the shelf.')).toBeVisible();
  const id = await page.locator('.shelf-row', { hasText: 'Evenings on the hill' }).getAttribute('data-document');
  try {
    await page.getByRole('button', { name: 'Open it' }).click();
    await expect(page.locator('.spread use').first()).toBeAttached();
    const report = page.getByRole('complementary', { name: 'Details' });
    await expect(report.getByText('What came in otherwise')).toBeVisible();
    await expect(report).toContainText('Verdana is not there; Arimo Regular stands in for it.');
    await report.getByRole('button', { name: /Page 2 Hatched fill/ }).click();
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
