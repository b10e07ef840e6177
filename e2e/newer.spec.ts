import { expect, test } from '@playwright/test';
import { flat } from '../core/test/odf/support/flatFile.ts';

const frame = (text: string, y: number): string =>
  `<draw:frame svg:x="1cm" svg:y="${y}cm" svg:width="15cm" svg:height="1.5cm"><draw:text-box><text:p>${text}</text:p></draw:text-box></draw:frame>`;
const file = (pages: string[][]): Buffer =>
  Buffer.from(
    flat({
      kind: 'presentation',
      meta: '<dc:title>Evenings on the hill</dc:title>',
      pages: pages
        .map(
          (texts, i) =>
            `<draw:page draw:name="page${i + 1}" draw:master-page-name="M">${texts.map((t, k) => frame(t, 1 + 3 * k)).join('')}</draw:page>`,
        )
        .join(''),
    }),
  );
const FIRST = [
  ['Evenings on the hill', 'Marrowby opens its dome to visitors'],
  ['How to come', 'The path from the village takes forty minutes'],
];

test('next week’s version comes in over this week’s: decisions stay, a lost one is given to what took its place, undo brings all back', async ({
  page,
}) => {
  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles({ name: 'evenings.fodp', mimeType: 'text/xml', buffer: file(FIRST) });
  await page.getByRole('button', { name: 'Open it' }).click();
  await page.waitForURL(/\/d\//);
  const id = /\/d\/([^/]+)/.exec(page.url())![1]!;
  const { origin } = new URL(page.url());
  try {
    // Two decisions: pages in pairs, and the path’s frame is decoration.
    await page.getByLabel('Pages lie').click();
    await page.getByTitle('In pairs, from the first').click();
    const opened = (await (await page.request.get(`/api/folios/${id}`)).json()) as { seq: number; head: { spreadOrder: string[] } };
    const { parts } = (await (
      await page.request.post(`/api/folios/${id}/parts`, {
        headers: { origin },
        data: { paths: [`spreads/${opened.head.spreadOrder[0]}.json`] },
      })
    ).json()) as { parts: Record<string, { order: string[] }> };
    const item = Object.values(parts)[0]!.order.at(-1)!;
    await page.request.post(`/api/folios/${id}/edits`, {
      headers: { origin },
      data: {
        base: opened.seq,
        actor: 'somebody',
        edits: [{ uid: crypto.randomUUID(), burst: 'x', edit: { kind: 'item.decoration', args: { item, decoration: true } } }],
      },
    });
    const there = [
      ['A word before', 'This leaflet replaces that of March'],
      FIRST[0]!,
      ['How to come', 'Zwei Busse fahren an Werktagen von Kirche und Schule'],
    ];
    await page.getByRole('link', { name: 'Bring in a newer version of it …' }).click();
    await page.getByLabel('Newer version').setInputFiles({ name: 'evenings-2.fodp', mimeType: 'text/xml', buffer: file(there) });
    await expect(page.getByText('evenings-2.fodp has been read.')).toBeVisible();
    await expect(page.getByRole('row', { name: /^pages/ })).toContainText('1');
    await page.getByRole('button', { name: 'Take it over' }).click();
    await expect(page.getByRole('heading', { name: 'What came in otherwise' })).toBeVisible();
    const now = (await (await page.request.get(`/api/folios/${id}`)).json()) as {
      head: { spreadOrder: string[]; origin: string; structure: { decorations: string[] } };
    };
    expect([now.head.spreadOrder.length, now.head.origin, now.head.structure.decorations]).toEqual([2, 'origin-2', [item]]);
    await expect(page.locator('.spread')).toHaveCount(2);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.locator('.spread')).toHaveCount(1);
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(page.locator('.spread')).toHaveCount(2);
    // A text document is no newer version; what was stays.
    await page.goto(`/d/${id}/newer`);
    const letter = Buffer.from(file(there).toString().replace('opendocument.presentation', 'opendocument.text'));
    await page.getByLabel('Newer version').setInputFiles({ name: 'letter.fodp', mimeType: 'text/xml', buffer: letter });
    await expect(page.getByRole('alert')).toContainText('not a drawing or a presentation');
  } finally {
    await page.request.delete(`/api/folios/${id}`, { headers: { origin } });
  }
});
