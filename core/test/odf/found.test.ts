import { describe, expect, test } from '@jest/globals';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { parseOfficeAsync } from 'officeparser';
import { Composer } from '../../src/compose/index.ts';
import { fontsFor } from '../../src/ports/node.ts';
import { incoherences } from '../../src/folio/coherence.ts';
import { pagesOf, paragraphsOf } from '../../src/folio/traverse.ts';
import type { Folio } from '../../src/index.ts';
import { readBytes } from './support/flatFile.ts';
import { foundFiles } from './support/foundFiles.ts';
import { likenessToThumbnail } from './support/likeness.ts';
import { ofToday } from '../support/ofToday.ts';

const found = await foundFiles();
/** Without Debian's packages these are skipped, and counted as skipped. */
const withFiles = found.length ? describe : describe.skip;
const names: [string][] = found.length ? found.map((f) => [f.name]) : [['none']];
const bytesOf = (name: string): Uint8Array => found.find((f) => f.name === name)!.bytes;

/** An independent look into a package. */
const xmlIn = (bytes: Uint8Array, part: string): string =>
  new TextDecoder().decode(unzipSync(bytes, { filter: (f) => f.name === part })[part]);

const squeezed = (texts: readonly string[]): string[] =>
  texts
    .map((t) => t.replace(/\s+/g, ''))
    .filter(Boolean)
    .sort();

/** Paragraphs that stand on pages, as the pages’ own part of the file has them; white space left out. */
function paragraphsIn(folio: Folio, elements: Record<string, string>): string[] {
  const notes = new Set(pagesOf(folio).map((p) => p.page.notes));
  const texts = Object.values(folio.stories)
    .filter((s) => !notes.has(s.id))
    .flatMap((s) => [...paragraphsOf(s)])
    .filter((p) => elements[p.id]?.startsWith('content.xml'))
    .map((p) => p.content.map((c) => (c.type === 'span' ? c.text : ' ')).join(''));
  return squeezed(texts);
}

withFiles('drawings and presentations by other people, from Debian’s packages', () => {
  test('there are at least ten of them', () => expect(found.length).toBeGreaterThanOrEqual(10));

  test.each(ofToday(names, 5))('%s: every page is there, in its size, and all of it can be set', async (name) => {
    const bytes = bytesOf(name);
    const { folio, record, blobs, paths, done } = await readBytes(name, bytes);
    const content = xmlIn(bytes, 'content.xml');
    expect(folio.head.spreadOrder).toHaveLength(content.match(/<draw:page[ >]/g)!.length);
    const widths = [...xmlIn(bytes, 'styles.xml').matchAll(/fo:page-width="([\d.]+)cm"/g)].map((m) => (Number(m[1]) * 72) / 2.54);
    for (const { page } of pagesOf(folio)) expect(Math.min(...widths.map((w) => Math.abs(w - page.box.width)))).toBeLessThan(0.01);
    expect(incoherences(folio)).toEqual([]);
    expect(paths.some((p) => p.startsWith('origin/source.'))).toBe(true);
    const files = new Map(Object.values(folio.head.media).map((m) => [m.file, { sha256: m.sha256, bytes: m.bytes }]));
    const composition = new Composer(await fontsFor({ folio, files }, blobs)).compose(folio);
    for (const frame of composition.frames.values()) for (const line of frame.lines) expect(Number.isFinite(line.width)).toBe(true);
    // Nothing is left out without a word.
    for (const entry of record.notTaken) expect(`${entry.what}: ${entry.reason}`).toMatch(/.{8,}: .{8,}/);
    await done();
  });

  test.each(ofToday(names, 5))('%s: its paragraphs are those that an independent reader finds (officeparser)', async (name) => {
    const bytes = bytesOf(name);
    const { folio, record, done } = await readBytes(name, bytes);
    const folder = await mkdtemp(join(tmpdir(), 'officeparser-'));
    // That reader goes by the end of the name, and knows presentations only; a drawing’s text stands in the same places.
    const file = join(folder, 'file.odp');
    await writeFile(file, bytes);
    const text = await parseOfficeAsync(file, { ignoreNotes: true });
    // It leaves out tabs and line breaks inside paragraphs.
    expect(paragraphsIn(folio, record.elements)).toEqual(squeezed(text.split('\n')));
    await rm(folder, { recursive: true, force: true });
    await done();
  });

  // Figures of each file stand in docs/found-drawings.md. The least is that of a drawing of thin lines whose picture is bitten by its own coarse pixels.
  test.each(ofToday(names, 5))('%s: the page that was open when it was saved looks as its maker’s own picture of it', async (name) => {
    const bytes = bytesOf(name);
    const { folio, blobs, done } = await readBytes(name, bytes);
    const alike = await likenessToThumbnail(bytes, folio, blobs);
    await done();
    if (!alike) return;
    expect(alike.likeness).toBeGreaterThan(0.875);
    // An empty page would be less alike.
    expect(alike.likeness).toBeGreaterThan(alike.empty);
  });
});
