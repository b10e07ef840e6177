import { beforeAll, describe, expect, test } from '@jest/globals';
import { subjectKey } from '../src/ledger/index.ts';
import type { Evidence } from '../src/ledger/index.ts';
import type { Sample } from '@elastic-folio/demo';
import { DAMAGE, ON_PAGES } from './support/damage.ts';
import { describeDamage } from './support/describeDamage.ts';
import { bytesOf, readBack, sample, writeOnly } from './support/samples.ts';
import { ofToday } from './support/ofToday.ts';

/** Small pictures: the damage does not depend on their size. */
const SMALL = { resolution: 48 };

let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});

const against = (evidence: Evidence[]): string[] =>
  [...new Set(evidence.filter((e) => !e.agrees).map((e) => subjectKey(e.subject)))].sort();

for (const output of ['html', 'pdf']) describeDamage(output, SMALL, [...DAMAGE, ...ON_PAGES]);

describe.each(ofToday(['html', 'pdf'], 1, (id) => id))('reading back %s', (output) => {
  let files: Map<string, Uint8Array>;
  beforeAll(async () => {
    files = await writeOnly(almanac, output, SMALL, almanac.folio);
  });

  test('an undamaged result contradicts nothing', async () => {
    expect(against(await readBack(almanac, output, files))).toEqual([]);
  });

  test('a page too few is reported', async () => {
    const damaged = await writeOnly(almanac, output, { ...SMALL, pages: '1-14' }, almanac.folio);
    expect(against(await readBack(almanac, output, damaged))).toEqual(
      expect.arrayContaining(['page:page-8:size', 'document:marrowby-almanac:order']),
    );
  });
});

describe('files of the web edition, altered by hand', () => {
  let files: Map<string, Uint8Array>;
  beforeAll(async () => {
    files = await writeOnly(almanac, 'html', SMALL, almanac.folio);
  });
  const edited = (path: string, from: string | RegExp, to: string): Map<string, Uint8Array> => {
    const before = new TextDecoder().decode(files.get(path));
    const after = before.replace(from, to);
    expect(after).not.toBe(before);
    return new Map(files).set(path, new TextEncoder().encode(after));
  };
  test.each([
    ['a heading unstyled in the style sheet', 'style.css', /font-size:50\.66667px/, 'font-size:44px', 'paragraph:night-words-text-1:look'],
    [
      'a line pushed aside',
      'index.html',
      /(data-item="night-words"[^>]*><h1[^>]*><span[^>]*style="left:)0px/,
      '$14px',
      'paragraph:night-words-text-1:place',
    ],
    ['a word spaced out of its line', 'index.html', /There is a sound/, 'There is the sound', 'paragraph:night-words-text-2:text'],
    [
      'the outline’s heading made a paragraph',
      'index.html',
      /<h2([^>]*)>([\s\S]*?)<\/h2>/,
      '<p$1>$2</p>',
      'document:marrowby-almanac:outline',
    ],
    ['an alt text emptied', 'index.html', /alt="The long brass[^"]*"/, 'alt=""', 'item:telescope-picture:alt'],
    ['a font file broken off', 'style.css', /@font-face\{font-family:"Source Serif 4 600"[^}]*\}/, '', 'paragraph:night-words-text-1:look'],
  ] as const)('%s', async (_what, path, from, to, subject) => {
    expect(against(await readBack(almanac, 'html', edited(path, from, to)))).toContain(subject);
  });
  test('a picture file swapped for another', async () => {
    const path = [...files.keys()].find((p) => p.startsWith('pictures/chart'))!;
    const evidence = await readBack(almanac, 'html', new Map(files).set(path, await bytesOf(almanac, 'map')));
    expect(against(evidence)).toEqual(['item:chart-picture:picture']);
  });
});
