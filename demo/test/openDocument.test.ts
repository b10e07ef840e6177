import { beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { parseOfficeAsync } from 'officeparser';
import { incoherences, pagesOf, paragraphsOf, readText } from '@elastic-folio/core';
import type { Folio } from '@elastic-folio/core';
import { FileBlobs, sharpPictures } from '@elastic-folio/core/node';
import { DEFAULT_LIMITS, readFolio } from '@elastic-folio/core/read';
import { asOpenDocument, samples } from '../src/index.ts';
import type { Sample } from '../src/index.ts';

interface Written {
  sample: Sample;
  name: string;
  bytes: Uint8Array;
  notHeld: string[];
  /** What our own reader makes of it. */
  folio: Folio;
  /** What officeparser reads. */
  text: string;
}
let all: Written[];
beforeAll(async () => {
  const folder = await mkdtemp(join(tmpdir(), 'folio-odf-'));
  all = [];
  for (const sample of await samples()) {
    const { ending, package: stream, notHeld } = asOpenDocument(sample);
    const chunks: Uint8Array[] = [];
    for await (const chunk of stream as AsyncIterable<Uint8Array>) chunks.push(chunk);
    const bytes = new Uint8Array(Buffer.concat(chunks));
    const name = `${sample.folio.head.id}.${ending}`;
    const file = join(folder, name);
    await writeFile(file, bytes);
    const { folio } = await readFolio(name, {
      file,
      name,
      blobs: new FileBlobs(join(folder, 'blobs')),
      pictures: sharpPictures,
      limits: DEFAULT_LIMITS,
    });
    // That reader goes by the end of the name and knows presentations only.
    await writeFile(join(folder, 'same.odp'), bytes);
    all.push({ sample, name, bytes, notHeld, folio, text: await parseOfficeAsync(join(folder, 'same.odp'), { ignoreNotes: true }) });
  }
  await rm(folder, { recursive: true, force: true });
});

/** Paragraphs without white space, sorted: readers order them differently. */
const squeezed = (texts: readonly string[]): string[] =>
  texts
    .map((t) => t.replace(/\s+/g, ''))
    .filter(Boolean)
    .sort();
const paragraphsIn = (folio: Folio): string[] =>
  squeezed(Object.values(folio.stories).flatMap((s) => [...paragraphsOf(s)].map((p) => readText(p))));

describe('the samples as OpenDocument files', () => {
  test('each is a package as part 2 of the standard asks: the media type first and stored, every file in the manifest', () => {
    for (const { bytes } of all) {
      // The first entry: a local header of 30 bytes, the name, then its bytes as they are.
      const head = new TextDecoder('latin1').decode(bytes.subarray(0, 120));
      expect(head.slice(30)).toMatch(/^mimetypeapplication\/vnd\.oasis\.opendocument\.(graphics|presentation)/);
      const files = unzipSync(bytes);
      const manifest = new TextDecoder().decode(files['META-INF/manifest.xml']);
      const listed = [...manifest.matchAll(/full-path="([^"]+)"/g)].map((m) => m[1]!).filter((p) => p !== '/');
      expect(listed.sort()).toEqual(
        Object.keys(files)
          .filter((p) => p !== 'mimetype' && !p.startsWith('META-INF'))
          .sort(),
      );
    }
  });

  test('our reader finds every page in its size, and every paragraph that stands on one', () => {
    for (const { sample, folio, name } of all) {
      expect([name, incoherences(folio)]).toEqual([name, []]);
      const sizes = (f: Folio): string[] => pagesOf(f).map(({ page }) => `${Math.round(page.box.width)} x ${Math.round(page.box.height)}`);
      expect(sizes(folio)).toEqual(sizes(sample.folio));
    }
  });

  test('officeparser reads the same paragraphs as our reader', () => {
    for (const { folio, text, name } of all) {
      const pages = new Set(Object.values(folio.stories).flatMap((s) => (s.frames.some((f) => folio.spreads[f.spread]) ? [s.id] : [])));
      // That reader puts a note's text into the line in which the note stands.
      const plain = Object.values(folio.stories)
        .filter((s) => pages.has(s.id))
        .flatMap((s) => [...paragraphsOf(s)].filter((p) => !p.content.some((n) => n.type === 'note')));
      const ours = squeezed(plain.map((p) => readText(p)));
      expect([name, ours.length > 5]).toEqual([name, true]);
      const theirs = new Set(squeezed(text.split('\n')));
      const missing = ours.filter((p) => !theirs.has(p) && ![...theirs].some((t) => t.includes(p)));
      expect([name, missing]).toEqual([name, []]);
    }
  });

  test('texts come back with their words, their named styles and their chains', () => {
    for (const { sample, folio, name } of all) {
      const words = (f: Folio): number => paragraphsIn(f).join('').length;
      // Master items stand on master pages of every size, and what cannot be held is left out: a few letters in a hundred.
      expect([name, Math.abs(words(folio) / words(sample.folio) - 1) < 0.05]).toEqual([name, true]);
      const names = (f: Folio): string[] =>
        [
          ...new Set(Object.values(f.stories).flatMap((s) => [...paragraphsOf(s)].map((p) => f.head.paragraphStyles[p.style]!.name))),
        ].sort();
      expect([name, names(folio)]).toEqual([name, expect.arrayContaining(names(sample.folio).filter((n) => names(folio).includes(n)))]);
      const chains = (f: Folio): number => Math.max(...Object.values(f.stories).map((s) => s.frames.length));
      expect([name, chains(folio)]).toEqual([name, chains(sample.folio)]);
    }
  });

  test('each says what the format could not hold, and only what the sample has', () => {
    const said = Object.fromEntries(all.map((w) => [w.sample.folio.head.id, w.notHeld.join('\n')]));
    expect(said['marrowby-almanac']).toMatch(/Blend modes/);
    expect(said['marrowby-almanac']).toMatch(/Texts that run around items/);
    expect(said['observers-handbook']).toMatch(/Baseline grid/);
    expect(said['five-worlds']).not.toMatch(/Baseline grid|Blend modes/);
    for (const w of all) for (const line of w.notHeld) expect(line).toMatch(/^[A-Z].{4,}$/);
  });

  test('text keeps its rows of spaces, its tabs, its line breaks and its characters', () => {
    for (const { sample, folio } of all)
      for (const [id, story] of Object.entries(sample.folio.stories))
        for (const p of paragraphsOf(story)) {
          const back = Object.values(folio.stories).flatMap((s) => (s.blocks[p.id]?.kind === 'paragraph' ? [s.blocks[p.id]] : []))[0];
          if (back?.kind !== 'paragraph') continue;
          const held = (n: (typeof p.content)[number]): boolean => n.type === 'span' || n.type === 'tab' || n.type === 'softReturn';
          const plain = (content: typeof p.content): string =>
            content
              .filter(held)
              .map((n) => (n.type === 'span' ? n.text : n.type === 'tab' ? '\t' : '\n'))
              .join('');
          const whole = p.content.every(held);
          if (whole) expect([id, p.id, plain(back.content)]).toEqual([id, p.id, plain(p.content)]);
        }
  });
});
