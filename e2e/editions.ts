import { mkdirSync, writeFileSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { expect } from '@playwright/test';

/** Makes web editions of samples on the command line, each in a folder under its recipe's name. */
export function makeEditions(
  out: string,
  recipes: Record<string, object>,
  sampleOf: (name: string) => string = () => 'marrowby-almanac',
): void {
  mkdirSync(out, { recursive: true });
  const folio = (...args: string[]) =>
    expect(spawnSync(process.execPath, ['dist/folio.mjs', ...args], { encoding: 'utf8' }).status).toBe(0);
  folio('samples', '--out', out);
  for (const [name, settings] of Object.entries(recipes)) {
    const recipe = join(out, `${name}.json`);
    writeFileSync(recipe, JSON.stringify({ output: 'html', version: 1, name, settings }));
    folio('convert', join(out, `${sampleOf(name)}.efolio`), '--to', 'html', '--out', join(out, name), '--recipe', recipe);
  }
}
