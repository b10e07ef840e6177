import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { applyEdit, takeCorrections } from '../../src/index.ts';
import type { Folio, Inline, Paragraph } from '../../src/index.ts';
import { nameInXml } from '../../src/folio/ids.ts';
import { changedDocx, corrections } from '../support/changedDocx.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { asSample, make, SAMPLES, sample } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { ofToday } from '../support/ofToday.ts';

const NOTHING = { corrections: [], added: [], gone: [] };
const span = (text: string, more: object = {}): Inline => ({ type: 'span', text, ...more }) as Inline;
const odt = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'odt', { ...settings })).read('document.odt');

describe('an open text document that nobody has changed brings nothing back', () => {
  test.each(ofToday(SAMPLES, 1))('%s', async (id) => {
    const s = await sample(id);
    for (const settings of [{}, { fields: 'text', contents: false, pictures: 'none' }]) {
      const made = await make(s, 'odt', { resolution: 36, ...settings });
      expect(await corrections(s.folio, await made.read('document.odt'))).toEqual(NOTHING);
    }
  });
});

describe('what a colleague has changed in an open text document', () => {
  const folio = tinyFolio([
    [span('The dome weighs '), span('nine', { overrides: { fontStyle: 'italic' } }), span(' tonnes  and turns on wheels.')],
    'A second paragraph stands here.',
    [span('See page '), { type: 'field', id: 'f', field: 'reference', target: 'p1' } as Inline, span(' for the weight of it.')],
    'The last one.',
  ]);
  let bytes: Uint8Array;
  beforeAll(async () => {
    bytes = await odt(folio);
  });
  const after = (work: (xml: string) => string, part = 'content.xml') => corrections(folio, changedDocx(bytes, work, part));

  test('words are other words, in the look of those they take the place of; rows of spaces stay', async () => {
    const found = await after((xml) => xml.replace('>nine<', '>twelve<').replace('turns on wheels', 'rolls on wheels'));
    expect(found.corrections).toMatchObject([
      { paragraph: 'p1', after: 'The dome weighs twelve tonnes  and rolls on wheels.', changedHere: false, keepsObjects: false },
    ]);
    const now = takeCorrections(folio, found.corrections).reduce((f, e) => applyEdit(f, e).folio, folio);
    expect((now.stories['t']!.blocks['p1'] as Paragraph).content[1]).toEqual(span('twelve', { overrides: { fontStyle: 'italic' } }));
  });

  test('a field stays one; what was recorded as taken out is not there', async () => {
    const words = await after((xml) => xml.replace('for the weight of it', 'for its weight'));
    expect(words.corrections.map((c) => c.after)).toEqual(['See page ▫ for its weight.']);
    const recorded = await after((xml) =>
      xml
        .replace(
          /(<office:text[^>]*>)/,
          '$1<text:tracked-changes><text:changed-region><text:deletion><text:p>old words</text:p></text:deletion></text:changed-region></text:tracked-changes>',
        )
        .replace('The last one', 'The <text:change-start text:change-id="c"/>very <text:change-end text:change-id="c"/>last one'),
    );
    expect(recorded).toMatchObject({ added: [], gone: [], corrections: [{ paragraph: 'p4', after: 'The very last one.' }] });
  });

  test('a paragraph that was divided comes back with a turned line; new ones and missing ones are told', async () => {
    const divided = await after((xml) => xml.replace('A second paragraph', 'A second</text:p><text:p> paragraph'));
    expect(divided).toMatchObject({ added: [], corrections: [{ paragraph: 'p2', after: 'A second\n paragraph stands here.' }] });
    const more = await after((xml) => xml.replace('</office:text>', '<text:p>Something new.</text:p></office:text>'));
    expect(more).toEqual({ ...NOTHING, added: [{ after: 'p4', text: 'Something new.' }] });
    const less = await after((xml) => xml.replace(/<text:p [^>]*xml:id="p2".*?<\/text:p>/s, ''));
    expect(less).toMatchObject({ corrections: [], added: [], gone: [{ paragraph: 'p2' }] });
  });

  test('a paragraph that is another here, too, is said to be; so is one of which nothing is known any more', async () => {
    const place = (offset: number) => ({ paragraphId: 'p4', offset });
    const here = applyEdit(folio, {
      kind: 'text.replace',
      args: { story: 't', from: place(4), to: place(8), content: [[span('final')]], newIds: [] },
    }).folio;
    const changed = changedDocx(bytes, (xml) => xml.replace('The last one', 'The latest one'), 'content.xml');
    expect((await corrections(here, changed)).corrections).toMatchObject([{ before: 'The final one.', changedHere: true }]);
    const unsigned = changedDocx(
      changed,
      (xml) => xml.replace(/<rdf:Description rdf:about="content.xml#.*?<\/rdf:Description>/gs, ''),
      'paragraphs.rdf',
    );
    expect((await corrections(folio, unsigned)).corrections).toMatchObject([{ after: 'The latest one.', changedHere: true }]);
  });

  test('of another document, without its metadata, a drawing, damaged: a sentence, and nothing taken', async () => {
    await expect(corrections({ ...folio, head: { ...folio.head, id: 'another' } }, bytes)).rejects.toMatchObject({
      code: 'corrections.other',
    });
    await expect(after((x) => x.replace('urn:elastic-folio', 'urn:other'), 'paragraphs.rdf')).rejects.toMatchObject({
      code: 'corrections.unknown',
    });
    await expect(after((x) => x.slice(0, 300))).rejects.toMatchObject({ code: 'corrections.damaged' });
    const drawing = (x: string): string => x.replace(/office:text>/g, 'office:drawing>');
    await expect(after(drawing)).rejects.toMatchObject({ code: 'corrections.unknown' });
  });
});

test('its metadata is RDF as the standard has it: listed, and every subject there', async () => {
  const bytes = await odt(tinyFolio(['One.', 'Two.']));
  expect(faultsOfOdf(bytes)).toEqual([]);
  const files = unzipSync(bytes);
  const text = (path: string): string => new TextDecoder().decode(files[path]);
  // OpenDocument 1.3, part 2, 6: a package is a Document that has parts, of which one is a MetadataFile.
  expect(text('manifest.rdf')).toContain('<rdf:type rdf:resource="http://docs.oasis-open.org/ns/office/1.2/meta/pkg#MetadataFile"/>');
  const subjects = [...text('paragraphs.rdf').matchAll(/content\.xml#([^"]+)/g)].map((m) => m[1]!);
  expect(subjects).toHaveLength(2);
  for (const id of subjects) expect(text('content.xml')).toContain(`xml:id="${id}"`);
});

test.each([
  ['p1', 'p1'],
  ['1a', '_1a'],
  ['page-2/number', 'page-2_number'],
  ['_x.y', '_x.y'],
])('%s is %s in XML (NCName)', (id, name) => {
  expect(nameInXml(id)).toBe(name);
});
