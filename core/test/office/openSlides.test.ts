import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import { parseOfficeAsync } from 'officeparser';
import { pagesOf, readText } from '../../src/index.ts';
import type { Folio, TextFrame } from '../../src/index.ts';
import type { Sample } from '@elastic-folio/demo';
import { FileBlobs, sharpPictures } from '../../src/ports/node.ts';
import { DEFAULT_LIMITS, readFolio } from '../../src/read/index.ts';
import { DAMAGE, IN_TEXT, ON_PAGES } from '../support/damage.ts';
import { describeDamage } from '../support/describeDamage.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { against, asSample, make, SAMPLES, sample } from '../support/samples.ts';
import { grid, tableFolio } from '../support/tableFolio.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { ofToday } from '../support/ofToday.ts';

const SMALL = { resolution: 36 };
const contentOf = (bytes: Uint8Array, path = 'content.xml'): string => new TextDecoder().decode(unzipSync(bytes)[path]);
const written = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'odp', { ...SMALL, ...settings })).read('document.odp');

let almanac: Sample;
let folder: string;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
  folder = await mkdtemp(join(tmpdir(), 'folio-odp-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

describe.each(ofToday(SAMPLES, 1))('%s as open slides', (id) => {
  test('keeps the rules of the standard, and is read back as its ledger says', async () => {
    const made = await make(await sample(id), 'odp', SMALL);
    expect(faultsOfOdf(await made.read('document.odp'))).toEqual([]);
    expect(against(made)).toEqual([]);
  });
});

const SETTINGS: Record<string, unknown>[] = [
  { crops: 'cut' },
  { spreads: 'together' },
  { pictures: 'none' },
  { pictures: 'beside' },
  { hiddenLayers: 'in', fields: 'text' },
  { pages: '2-5, 8', template: true },
  { transitions: false, notes: false, media: 'still' },
];
test.each(SETTINGS.map((s) => [JSON.stringify(s), s] as const))('the Almanac as open slides, %s', async (_, settings) => {
  const made = await make(almanac, 'odp', { ...SMALL, ...settings });
  expect(faultsOfOdf(await made.read(made.paths.find((p) => /\.o[dt]p$/.test(p))!))).toEqual([]);
  expect(against(made)).toEqual([]);
});

/** Slides know no roles, and are read as their things lie on one another. */
const NOT_TOLD = new Set(['a heading loses its meaning', 'a heading is of another level', 'two texts are read in the wrong order']);
describeDamage(
  'odp',
  SMALL,
  [...DAMAGE, ...IN_TEXT, ...ON_PAGES].filter(([what]) => !NOT_TOLD.has(what)),
);

describe('what it says, worked by hand', () => {
  test('a frame of text is one box where it is and as large, in points; room inside it is padding', async () => {
    const folio = produce(
      tinyFolio(['Words'], { width: 200, height: 300 }),
      (d) => void ((d.spreads['s']!.items['f1'] as TextFrame).inset = [1, 2, 3, 4]),
    );
    const xml = contentOf(await written(folio));
    expect(xml).toContain('svg:width="200pt" svg:height="300pt" svg:x="10pt" svg:y="10pt"');
    expect(xml).toContain('fo:padding-top="1pt" fo:padding-right="2pt" fo:padding-bottom="3pt" fo:padding-left="4pt"');
  });
  test('styles are styles by their names, with what they are based on', async () => {
    const styles = contentOf(await (await make(almanac, 'odp', SMALL)).read('document.odp'), 'styles.xml');
    for (const s of Object.values(almanac.folio.head.paragraphStyles)) {
      const based = s.basedOn === undefined ? '' : ` style:parent-style-name="${s.basedOn}"`;
      expect(styles).toContain(`<style:style style:name="${s.id}" style:display-name="${s.name}" style:family="paragraph"${based}`);
    }
  });
  test('a table may have as many columns as it likes', async () => {
    const columns = Array.from({ length: 90 }, () => ({ width: 2, unit: 'pt' }));
    const made = await make(asSample(tableFolio(columns, [{ height: 10 }], grid(1, 90))), 'odp', SMALL);
    expect(contentOf(await made.read('document.odp')).match(/<table:table /g)).toHaveLength(1);
    expect(against(made)).toEqual([]);
  });
  test('a turned frame stands by its matrix (19.228)', async () => {
    const folio = produce(tinyFolio(['Words']), (d) => void (d.spreads['s']!.items['f1']!.transform = [0, 1, -1, 0, 300, 50]));
    expect(contentOf(await written(folio))).toContain('draw:transform="matrix(0 1 -1 0 300pt 50pt)"');
  });
});

describe('brought in again by the program’s own intake, which shares nothing with what wrote it', () => {
  const bringIn = async (name: string, bytes: Uint8Array): Promise<Folio> => {
    const file = join(folder, name);
    await writeFile(file, bytes);
    const blobs = new FileBlobs(join(folder, 'blobs'));
    return (await readFolio(name, { file, blobs, pictures: sharpPictures, limits: DEFAULT_LIMITS })).folio;
  };
  test('it has as many pages of the same sizes, the same styles by name, and every word that was kept', async () => {
    const made = await make(almanac, 'odp', SMALL);
    const again = await bringIn('almanac.odp', await made.read('document.odp'));
    const sizes = (f: Folio): number[][] => pagesOf(f).map(({ page }) => [Math.round(page.box.width), Math.round(page.box.height)]);
    expect(sizes(again)).toEqual(sizes(almanac.folio));
    const names = Object.values(again.head.paragraphStyles).map((s) => s.name);
    const dense = (text: string): string => text.replace(/[\s\u00A0\u00AD\uFFFC]+/g, '');
    const all = Object.values(again.stories)
      .flatMap((s) => Object.values(s.blocks))
      .map((b) => (b.kind === 'paragraph' ? dense(readText(b)) : ''))
      .join('\n');
    let found = 0;
    for (const e of made.ledger) {
      if (e.subject.kind !== 'paragraph' || e.subject.aspect !== 'text' || e.outcome !== 'kept') continue;
      const block = Object.values(almanac.folio.stories).flatMap((s) => s.blocks[e.subject.id] ?? [])[0];
      if (block?.kind !== 'paragraph' || block.content.some((n) => n.type !== 'span')) continue;
      // Styles that no text has are not taken.
      expect(names).toContain(almanac.folio.head.paragraphStyles[block.style]!.name);
      const text = dense(readText(block));
      if (text.length < 30) continue;
      expect([e.subject.id, all.includes(text.slice(0, 20))]).toEqual([e.subject.id, true]);
      found++;
    }
    expect(found).toBeGreaterThan(60);
  });
  test('forms can still be filled in, films and sounds played, and pages come as they did', async () => {
    const again = await bringIn('forms.odp', await (await make(almanac, 'odp', SMALL)).read('document.odp'));
    const kinds = (f: Folio): Map<string, number> => {
      const out = new Map<string, number>();
      for (const s of Object.values(f.spreads)) for (const i of Object.values(s.items)) out.set(i.kind, (out.get(i.kind) ?? 0) + 1);
      return out;
    };
    const [before, after] = [kinds(almanac.folio), kinds(again)];
    expect(after.get('field')).toBe(before.get('field'));
    expect(after.get('media')).toBe(before.get('media'));
    expect(pagesOf(again).filter((p) => p.page.transition).length).toBe(pagesOf(almanac.folio).filter((p) => p.page.transition).length);
  });
});

test('officeparser, which had no part in making it, finds the words', async () => {
  const bytes = await (await make(almanac, 'odp', SMALL)).read('document.odp');
  const text = await parseOfficeAsync(Buffer.from(bytes));
  expect(text).toContain('Nothing holds it down');
  expect(text.length).toBeGreaterThan(8000);
});
