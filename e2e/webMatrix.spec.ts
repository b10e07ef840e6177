import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { expect, test } from '@playwright/test';
import AxeBuilder from './axe.ts';

const out = resolve('test-results/matrix');

/** Every recipe that the start proposes, with each sample, as its readers open it. */
test('axe-core finds nothing in any edition that the start proposes; none asks for what is not there, or throws', async ({ browser }) => {
  test.setTimeout(600_000);
  rmSync(out, { recursive: true, force: true });
  mkdirSync(out, { recursive: true });
  const made = spawnSync(process.execPath, ['scripts/run.mjs', 'e2e/purposeEditions.ts', out], { encoding: 'utf8' });
  expect(made.stderr.replace(/^npm warn.*\n?/gm, '')).toBe('');
  expect(made.status).toBe(0);
  const names = JSON.parse(readFileSync(join(out, 'made.json'), 'utf8')) as string[];
  expect(names.length).toBe(4 * 7);
  const wrong: string[] = [];
  for (const name of names) {
    const page = await (await browser.newContext({ reducedMotion: 'reduce', viewport: { width: 1280, height: 800 } })).newPage();
    page.on('pageerror', (e) => wrong.push(`${name}: ${e.message}`));
    page.on(
      'requestfailed',
      (r) => r.failure()?.errorText.includes('NOT_FOUND') && wrong.push(`${name}: ${r.url().split('/').pop()!} is not there`),
    );
    await page.goto(`file://${join(out, name, 'index.html')}`);
    await expect(page.locator('html')).toHaveClass(/played/);
    for (const v of await new AxeBuilder(page).run()) wrong.push(`${name}: ${v.id} ${v.targets[0]}`);
    await page.context().close();
  }
  expect(wrong).toEqual([]);
});
