import { expect, test } from '@playwright/test';
import type { Page } from '@playwright/test';
import { spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join, resolve } from 'node:path';
import { unzipSync } from 'fflate';
import AxeBuilder from './axe.ts';
import { farthest, placedIn, seen, writePlaced } from './wordsInPlace.ts';

const out = resolve('test-results/books');
const SAMPLES = ['marrowby-almanac', 'open-dome-night', 'observers-handbook', 'five-worlds'] as const;
const KINDS = ['epub', 'epub-fixed'] as const;
const book = (id: string, kind: string): string => join(out, id, kind, 'book.epub');
const inside = (id: string, kind: string): string => join(out, id, kind, 'inside');

/** The texts of a book in their order, as addresses of files. */
function textsOf(id: string, kind: string): string[] {
  const root = join(inside(id, kind), 'EPUB');
  const opf = readFileSync(join(root, 'package.opf'), 'utf8');
  const hrefs = new Map([...opf.matchAll(/<item id="([^"]+)" href="([^"]+)"/g)].map((m) => [m[1]!, m[2]!]));
  return [...opf.matchAll(/<itemref idref="([^"]+)"/g)].map((m) => `file://${join(root, hrefs.get(m[1]!)!)}`);
}

test.beforeAll(() => {
  test.setTimeout(240_000);
  const folio = (...args: string[]): void =>
    expect(spawnSync(process.execPath, ['dist/folio.mjs', ...args], { encoding: 'utf8' }).status).toBe(0);
  folio('samples', '--out', out);
  for (const id of SAMPLES)
    for (const kind of KINDS) {
      folio('convert', join(out, `${id}.efolio`), '--to', kind, '--out', join(out, id));
      for (const [path, bytes] of Object.entries(unzipSync(readFileSync(book(id, kind))))) {
        const file = join(inside(id, kind), path);
        mkdirSync(dirname(file), { recursive: true });
        writeFileSync(file, bytes);
      }
    }
  writePlaced(join(out, 'placed.json'));
});

for (const id of SAMPLES)
  test(`${id}: words and lines of fixed pages stand where the typesetter put them`, async ({ page }) => {
    const shown: Awaited<ReturnType<typeof seen>> = [];
    const complaints: string[] = [];
    page.on('console', (m) => void (m.type() === 'error' && complaints.push(m.text())));
    for (const url of textsOf(id, 'epub-fixed')) {
      await page.goto(url);
      await page.evaluate(() => document.fonts.ready);
      shown.push(...(await seen(page)));
    }
    const { count, worst, where } = farthest(placedIn(join(out, 'placed.json'), id), shown);
    console.log(`${id}: ${count} words, worst ${worst.toFixed(3)} px at ${where}`);
    expect(count).toBeGreaterThan(50);
    expect(worst).toBeLessThan(0.75);
    expect(complaints).toEqual([]);
  });

for (const id of SAMPLES)
  for (const kind of KINDS)
    test(`${id}, ${kind}: axe-core finds nothing in any of its texts (WCAG 2.2)`, async ({ page }) => {
      test.setTimeout(180_000);
      const found: unknown[] = [];
      for (const url of textsOf(id, kind)) {
        await page.goto(url);
        found.push(...(await new AxeBuilder(page).run(true)).map((f) => ({ text: url.split('/').pop(), ...f })));
      }
      expect(found).toEqual([]);
    });

test('text of a fixed page is selected in the order in which it is read, also where it lies over a picture', async ({ page }) => {
  await page.goto(textsOf('marrowby-almanac', 'epub-fixed')[0]!);
  await page.evaluate(() => document.fonts.ready);
  const title = page.getByRole('heading', { level: 1 });
  // A press on the title over the cover's picture takes hold of its text.
  const box = (await title.locator('.l').first().boundingBox())!;
  await page.mouse.dblclick(box.x + 20, box.y + box.height / 2);
  expect(await page.evaluate(() => getSelection()!.toString().trim())).toMatch(/^The$/);
  await page.keyboard.press('Control+a');
  const all = (await page.evaluate(() => getSelection()!.toString())).replace(/\s+/g, ' ');
  expect(all).toContain('The Marrowby Almanac');
});

/** Opens a book with a reading program of others, and gives what it finds. */
async function openedElsewhere(page: Page, bytes: Buffer): Promise<{ texts: string[]; toc: { label: string; found: boolean }[] }> {
  const { resolve: find } = createRequire(import.meta.url);
  await page.setContent('<!doctype html><title>.</title>');
  await page.addScriptTag({ path: join(dirname(find('jszip/package.json')), 'dist/jszip.min.js') });
  await page.addScriptTag({ path: join(dirname(find('epubjs/package.json')), 'dist/epub.min.js') });
  return page.evaluate(async (base64) => {
    interface Entry {
      label: string;
      href: string;
      subitems: Entry[];
    }
    interface Opened {
      opened: Promise<unknown>;
      load(path: string): Promise<Document>;
      spine: { spineItems: { load(by: (path: string) => Promise<Document>): Promise<Element> }[]; get(href: string): unknown };
      navigation: { toc: Entry[] };
      loaded: { navigation: Promise<unknown> };
    }
    const { ePub } = window as unknown as { ePub(bytes: ArrayBuffer): Opened };
    const opened = ePub(Uint8Array.from(atob(base64), (c) => c.charCodeAt(0)).buffer);
    await opened.opened;
    await opened.loaded.navigation;
    const texts: string[] = [];
    for (const section of opened.spine.spineItems) texts.push((await section.load((path) => opened.load(path))).textContent ?? '');
    const all = (list: Entry[]): Entry[] => list.flatMap((e) => [e, ...all(e.subitems)]);
    return { texts, toc: all(opened.navigation.toc).map((e) => ({ label: e.label.trim(), found: !!opened.spine.get(e.href) })) };
  }, bytes.toString('base64'));
}

for (const id of SAMPLES)
  for (const kind of KINDS)
    test(`${id}, ${kind}: a reading program of others opens it and finds every part`, async ({ page }) => {
      const { texts, toc } = await openedElsewhere(page, readFileSync(book(id, kind)));
      expect(texts).toHaveLength(textsOf(id, kind).length);
      expect(texts.join('').length).toBeGreaterThan(300);
      expect(toc.length).toBeGreaterThan(0);
      expect(toc.filter((t) => !t.found)).toEqual([]);
    });
