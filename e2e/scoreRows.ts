import { expect } from '@playwright/test';
import type { Locator, Page } from '@playwright/test';

/** The row of an output in the score, by the kind of output. */
export const scoreRow = (page: Page, output: string): Locator => page.locator(`tr[data-output=${output}]`);

/** Adds an output from the menu of the score; its own words begin the entry. Its settings are open then. */
export async function addOutput(page: Page, called: RegExp): Promise<void> {
  const settings = page.getByRole('complementary', { name: 'Settings' });
  const entry = page.getByRole('menuitem', { name: called });
  await expect(async () => {
    if (!(await entry.isVisible())) await page.getByRole('button', { name: 'Add an output…' }).click({ timeout: 5000 });
    await entry.click({ timeout: 5000 });
    await expect(settings).toBeVisible({ timeout: 5000 });
  }).toPass({ timeout: 40_000 });
}

/** Makes an output and waits for its result; where it fails, the test fails with its reason. */
export async function runOutput(row: Locator, timeout = 60_000): Promise<void> {
  await row.getByRole('button', { name: 'Run', exact: true }).click();
  const said = row.locator('.state');
  await expect(said).toHaveText(/^fresh$|failed/, { timeout });
  const state = await said.textContent();
  if (state !== 'fresh') {
    await row.locator('.output-name').click();
    throw new Error(`${state}: ${await row.page().locator('.warn.ledger-note').textContent({ timeout: 5000 })}`);
  }
}
