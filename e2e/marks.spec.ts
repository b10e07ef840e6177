import { expect, test } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';

/** Every number in a painted text, in order: places of lines, and the outlines of their glyphs where they stand. */
const numbers = (svg: string): string[] =>
  [...svg.matchAll(/ (?:transform|x|y|d)="([^"]*)"/g)].flatMap((m) => m[1]!.match(/-?\d+(?:\.\d+)?/g) ?? []);

test('the browser’s worker and Node set the same marks, to the last digit that is painted', async ({ page }) => {
  const out = 'test-results/marks.json';
  expect(spawnSync(process.execPath, ['scripts/run.mjs', 'e2e/paintedMarks.ts', out], { encoding: 'utf8' }).stderr).toBe('');
  const painted = JSON.parse(readFileSync(out, 'utf8')) as Record<string, string>;
  await page.goto('/');
  const id = await page.locator('.shelf-row', { hasText: 'Almanac' }).getAttribute('data-document');
  let compared = 0;
  for (const [number, items] of [
    [2, ['night-words', 'feature-1']],
    [4, ['feature-2', 'quote', 'feature-3']],
    [6, ['sky-text', 'letter']],
    [8, ['twilight-1', 'side-sunset']],
    [14, ['diary']],
  ] as const) {
    await page.goto(`/d/${id}/intake?page=${number}`);
    for (const item of items) {
      const shown = page.locator(`.spread [data-item="${item}"]`).first();
      await expect(shown.locator('.glyphs').first()).toBeAttached();
      const [inNode, inBrowser] = [numbers(painted[item]!), numbers(await shown.evaluate((e) => e.outerHTML))];
      expect(inBrowser).toEqual(inNode);
      compared += inNode.length;
    }
  }
  expect(compared).toBeGreaterThan(5000);
});
