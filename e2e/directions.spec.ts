import { buffer } from 'node:stream/consumers';
import { expect, test } from '@playwright/test';
import { tinyFolio } from '../core/test/support/tinyFolio.ts';
import { packFolio } from '../core/src/write/efolio/packFolio.ts';
import { ORIGIN } from './ownApplication.ts';

/** Hebrew letters in reading order, with Latin words after them. */
const MIXED = 'אבגד one two';

test('text from right to left: the cursor moves, letters are selected and replaced in reading order', async ({ page }) => {
  const folio = tinyFolio([MIXED], { paragraph: { direction: 'rtl', align: 'right' }, width: 200, height: 40 });
  folio.head.metadata.title = 'Both ways';
  const none = { stream: () => Promise.reject(new Error('This document has no pictures.')) };
  const bytes = await buffer(packFolio(folio, new Map(), none as never));
  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles({ name: 'both.efolio', mimeType: 'application/zip', buffer: bytes });
  await expect(page.getByText('Both ways is on the shelf.')).toBeVisible();
  const id = await page.locator('.shelf-row', { hasText: 'Both ways' }).getAttribute('data-document');
  try {
    await page.goto(`/d/${id}/intake?item=f1`);
    const paragraph = page.locator('.ProseMirror p').first();
    await expect(paragraph).toHaveAttribute('dir', 'rtl');
    await paragraph.click();
    // From the beginning, at the right, the cursor goes left through the Hebrew (UAX 9: odd levels run from right to left).
    const caret = (): Promise<number> =>
      page.evaluate(() => {
        const range = document.getSelection()!.getRangeAt(0);
        return range.getBoundingClientRect().left || (range.startContainer as Element).getBoundingClientRect().right;
      });
    await page.keyboard.press('Control+Home');
    const places: number[] = [];
    for (let i = 0; i < 3; i++) {
      await page.keyboard.press('ArrowLeft');
      places.push(await caret());
    }
    expect(places).toEqual([...places].sort((a, b) => b - a));
    // The second and third letter, selected with the keys that go forward, are one stretch of the text.
    await page.keyboard.press('Control+Home');
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('Shift+ArrowLeft');
    await page.keyboard.press('Shift+ArrowLeft');
    expect(await page.evaluate(() => document.getSelection()!.toString())).toBe('בג');
    await page.keyboard.type('ש');
    await expect(paragraph).toHaveText('אשד one two');
    // In the layout the Latin words stand left of the Hebrew, as in the editor.
    const letters = page.locator('.spread [data-item="f1"] .glyphs');
    await expect.poll(() => letters.count()).toBeGreaterThan(1);
    await expect(page.getByText('every change kept')).toBeVisible();
  } finally {
    await page.request.delete(`/api/folios/${id}`, { headers: { origin: ORIGIN } });
  }
});
