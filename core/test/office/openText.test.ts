import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { parseOfficeAsync } from 'officeparser';
import { paragraphRole, readText } from '../../src/index.ts';
import type { Folio } from '../../src/index.ts';
import type { Sample } from '@elastic-folio/demo';
import { DAMAGE, IN_TEXT, INITIAL } from '../support/damage.ts';
import { describeDamage } from '../support/describeDamage.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { against, asSample, make, SAMPLES, sample } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { ofToday } from '../support/ofToday.ts';

const SMALL = { resolution: 36 };
const partOf = (bytes: Uint8Array, path = 'content.xml'): string => new TextDecoder().decode(unzipSync(bytes)[path]);
const written = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'odt', { ...SMALL, ...settings })).read('document.odt');

let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});

describe.each(ofToday(SAMPLES, 1))('%s as an open text document', (id) => {
  test('keeps the rules of the standard, and is read back as its ledger says', async () => {
    const made = await make(await sample(id), 'odt', SMALL);
    expect(faultsOfOdf(await made.read('document.odt'))).toEqual([]);
    expect(against(made)).toEqual([]);
  });
});

const SETTINGS: Record<string, unknown>[] = [
  { contents: false, pageNumbers: false },
  { depth: 1, fields: 'text' },
  { columns: 'one' },
  { pictures: 'none' },
  { pictures: 'beside' },
  { hiddenLayers: 'in' },
  { pages: '2-5, 8', template: true },
];
test.each(SETTINGS.map((s) => [JSON.stringify(s), s] as const))('the Almanac as an open text document, %s', async (_, settings) => {
  const made = await make(almanac, 'odt', { ...SMALL, ...settings });
  expect(faultsOfOdf(await made.read(made.paths.find((p) => /\.o[dt]t$/.test(p))!))).toEqual([]);
  expect(against(made)).toEqual([]);
});

describeDamage('odt', SMALL, [...DAMAGE, ...IN_TEXT, INITIAL]);

describe('what it says', () => {
  test('headings are headings of their level, by the names of their styles (5.1.2)', async () => {
    const bytes = await (await make(almanac, 'odt', SMALL)).read('document.odt');
    const headings = [...partOf(bytes).matchAll(/<text:h text:style-name="([^"]+)" text:outline-level="(\d)"/g)];
    expect(headings.length).toBeGreaterThan(8);
    const { head } = almanac.folio;
    for (const [, style, level] of headings) {
      if (head.paragraphStyles[style!]) expect(paragraphRole(head, style!).element).toBe(`h${level}`);
    }
  });
  test('the list of contents leads to them, and each entry says its page (8.3)', async () => {
    const xml = partOf(await (await make(almanac, 'odt', SMALL)).read('document.odt'));
    const entries = [...xml.matchAll(/<text:a xlink:type="simple" xlink:href="#(p_[^"]+)">[^<]+<text:tab\/>(\d*)<\/text:a>/g)];
    expect(entries.length).toBeGreaterThan(4);
    for (const [, place] of entries) expect(xml).toContain(`<text:bookmark text:name="${place}"/>`);
  });
  test('notes are notes with their text in them (6.3.2)', async () => {
    const bytes = await (await make(await sample('observers-handbook'), 'odt', SMALL)).read('document.odt');
    expect(partOf(bytes)).toMatch(
      /<text:note text:note-class="footnote"[^>]*><text:note-citation>1<\/text:note-citation><text:note-body><text:p/,
    );
  });
  test('paper and margins are those of the layout, in points', async () => {
    const styles = partOf(
      await written(tinyFolio(['One', 'Two', 'Three', 'Four', 'Five', 'Six'], { width: 400, height: 700 })),
      'styles.xml',
    );
    // A page of 595 by 842 whose text stands 10 points in: no margin is less than 10 mm, 28.346 points.
    expect(styles).toContain('fo:page-width="595pt" fo:page-height="842pt" fo:margin-top="28.346pt"');
  });
  test('text that would not be seen on paper has the ink of those who read it (20.394)', async () => {
    const white = { fill: { type: 'colour', colour: { space: 'grey', value: 1 } } };
    const xml = partOf(await written(tinyFolio(['Seen by nobody'], { character: white })));
    expect(xml).toContain('style:use-window-font-color="true"');
  });
  test('control characters are left out; a text without a word is no fault', async () => {
    const bytes = await written(tinyFolio(['A\u0001B\u000bC', '']));
    expect(faultsOfOdf(bytes)).toEqual([]);
    expect(partOf(bytes)).toContain('ABC');
  });
});

test('officeparser, which had no part in making it, finds the words in their order', async () => {
  const bytes = await (await make(almanac, 'odt', { ...SMALL, contents: false })).read('document.odt');
  const dense = (text: string): string => text.replace(/[\s\u00A0\u00AD\uFFFC]+/g, '');
  const all = dense(await parseOfficeAsync(Buffer.from(bytes)));
  const story = almanac.folio.stories['dome-feature']!;
  let at = 0;
  let found = 0;
  for (const id of story.order) {
    const block = story.blocks[id]!;
    const text = block.kind === 'paragraph' && block.content.every((n) => n.type === 'span') ? dense(readText(block)) : '';
    if (text.length < 30) continue;
    const here = all.indexOf(text.slice(0, 25), at);
    expect([text, here >= 0]).toEqual([text, true]);
    at = here;
    found++;
  }
  expect(found).toBeGreaterThan(4);
});
