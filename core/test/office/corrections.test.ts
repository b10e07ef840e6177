import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyEdit, plainText, takeCorrections } from '../../src/index.ts';
import type { Correction, Folio, Inline, Paragraph } from '../../src/index.ts';
import { changesBetween } from '../../src/read/corrections/corrected.ts';
import { changedDocx, corrections } from '../support/changedDocx.ts';
import { asSample, make, SAMPLES, sample } from '../support/samples.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { ofToday } from '../support/ofToday.ts';

const span = (text: string, more: object = {}): Inline => ({ type: 'span', text, ...more }) as Inline;
const docx = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'docx', { ...settings })).read('document.docx');
const paragraphOf = (folio: Folio, id: string): Paragraph => folio.stories['t']!.blocks[id] as Paragraph;
const take = (folio: Folio, list: readonly Correction[]): Folio =>
  takeCorrections(folio, list).reduce((f, e) => applyEdit(f, e).folio, folio);

describe('a file that nobody has changed brings nothing back', () => {
  test.each(ofToday(SAMPLES, 1))('%s', async (id) => {
    const s = await sample(id);
    for (const settings of [{}, { fields: 'text', contents: false, initials: 'plain', styles: 'none' }]) {
      const made = await make(s, 'docx', { resolution: 36, ...settings });
      expect(await corrections(s.folio, await made.read('document.docx'))).toEqual({ corrections: [], added: [], gone: [] });
    }
  });
});

describe('what a colleague has changed', () => {
  const folio = tinyFolio([
    [span('The dome weighs '), span('nine', { overrides: { fontStyle: 'italic' } }), span(' tonnes and turns on wheels.')],
    'A second paragraph stands here.',
    [span('See page '), { type: 'field', id: 'f', field: 'reference', target: 'p1' } as Inline, span(' for the weight of it.')],
    'The last one.',
  ]);
  let bytes: Uint8Array;
  beforeAll(async () => {
    bytes = await docx(folio);
  });
  const after = (work: (xml: string) => string) => corrections(folio, changedDocx(bytes, work));

  test('words are other words, in the look of those they take the place of', async () => {
    const found = await after((xml) => xml.replace('>nine<', '>twelve<').replace('turns on wheels', 'rolls on wheels'));
    expect(found.corrections).toHaveLength(1);
    expect(found.corrections[0]).toMatchObject({
      paragraph: 'p1',
      before: 'The dome weighs nine tonnes and turns on wheels.',
      after: 'The dome weighs twelve tonnes and rolls on wheels.',
      changedHere: false,
      keepsObjects: false,
    });
    const now = take(folio, found.corrections);
    expect(paragraphOf(now, 'p1').content).toEqual([
      span('The dome weighs '),
      span('twelve', { overrides: { fontStyle: 'italic' } }),
      span(' tonnes and rolls on wheels.'),
    ]);
    // The layout is not touched.
    expect(now.spreads).toEqual(folio.spreads);
  });
  test('changes that were recorded count as made: what was put in is there, what was taken out is not', async () => {
    const found = await after((xml) =>
      xml.replace(
        /(<w:t xml:space="preserve">)The last one\./,
        '$1The very </w:t></w:r><w:ins w:id="900" w:author="K"><w:r><w:t>very </w:t></w:r></w:ins><w:del w:id="901" w:author="K"><w:r><w:delText>old </w:delText></w:r></w:del><w:r><w:t xml:space="preserve">last one.',
      ),
    );
    expect(found.corrections.map((c) => c.after)).toEqual(['The very very last one.']);
  });
  test('a field that has been typed over stays a field; words around it are taken', async () => {
    const found = await after((xml) => xml.replace('for the weight of it', 'for its weight'));
    expect(plainText(paragraphOf(take(folio, found.corrections), 'p3').content)).toBe('See page \uFFFC for its weight.');
    const lost = await after((xml) => xml.replace(/<w:r>(?:(?!<w:r>).)*fldCharType="begin".*?fldCharType="end"\/><\/w:r>/, ''));
    expect(lost.corrections.every((c) => plainText(paragraphOf(take(folio, [c]), c.paragraph).content).includes('\uFFFC'))).toBe(true);
  });
  test('a paragraph that was divided comes back with a turned line; new ones and missing ones are told', async () => {
    const divided = await after((xml) =>
      xml.replace('A second paragraph', 'A second</w:t></w:r></w:p><w:p><w:r><w:t xml:space="preserve"> paragraph'),
    );
    expect(divided.corrections[0]).toMatchObject({ paragraph: 'p2', after: 'A second\n paragraph stands here.' });
    expect(paragraphOf(take(folio, divided.corrections), 'p2').content[1]).toEqual({ type: 'softReturn' });
    const more = await after((xml) => xml.replace(/<w:sectPr>/, '<w:p><w:r><w:t>Something new.</w:t></w:r></w:p><w:sectPr>'));
    expect(more).toMatchObject({ corrections: [], added: [{ after: 'p4', text: 'Something new.' }], gone: [] });
    const less = await after((xml) => xml.replace(/<w:p>(?:(?!<w:p>).)*A second paragraph stands here\..*?<\/w:p>/, ''));
    expect(less).toMatchObject({ corrections: [], added: [], gone: [{ paragraph: 'p2' }] });
  });
  test('a paragraph that is another here, too, is said to be', async () => {
    const here = applyEdit(folio, {
      kind: 'text.replace',
      args: {
        story: 't',
        from: { paragraphId: 'p4', offset: 4 },
        to: { paragraphId: 'p4', offset: 8 },
        content: [[span('final')]],
        newIds: [],
      },
    }).folio;
    const found = await corrections(
      here,
      changedDocx(bytes, (xml) => xml.replace('The last one', 'The latest one')),
    );
    expect(found.corrections).toMatchObject([{ paragraph: 'p4', before: 'The final one.', after: 'The latest one.', changedHere: true }]);
  });
  test('an initial in its frame is the first letter of its paragraph', async () => {
    const initial = tinyFolio(['The dome of the observatory turns.'], { paragraph: { dropCapital: { lines: 3, characters: 1 } } });
    const file = await docx(initial);
    expect((await corrections(initial, file)).corrections).toEqual([]);
    const found = await corrections(
      initial,
      changedDocx(file, (xml) => xml.replace('>T<', '>A<').replace('he dome', ' dome')),
    );
    expect(found.corrections.map((c) => c.after)).toEqual(['A dome of the observatory turns.']);
  });
});

describe('files that are none', () => {
  test('of another document, without the list, damaged: a sentence, and nothing taken', async () => {
    const folio = tinyFolio(['One.']);
    const bytes = await docx(folio);
    await expect(corrections({ ...folio, head: { ...folio.head, id: 'another' } }, bytes)).rejects.toMatchObject({
      code: 'corrections.other',
    });
    await expect(
      corrections(
        folio,
        changedDocx(bytes, (x) => x.replace('urn:elastic-folio', 'urn:other'), 'customXml/item1.xml'),
      ),
    ).rejects.toMatchObject({ code: 'corrections.unknown' });
    await expect(
      corrections(
        folio,
        changedDocx(bytes, (x) => x.slice(0, 300)),
      ),
    ).rejects.toMatchObject({ code: 'corrections.damaged' });
    await expect(
      corrections(
        folio,
        changedDocx(bytes, () => '<w:x xmlns:w="u">' + '<w:x>'.repeat(5000)),
      ),
    ).rejects.toMatchObject({ code: 'corrections.damaged' });
    await expect(corrections(folio, new Uint8Array(40))).rejects.toMatchObject({ code: expect.stringMatching(/^archive\./) });
  });
});

test('making the changes gives the other text, whatever the texts are, and keeps every object (property)', () => {
  const word = fc.constantFrom('the', 'dome', 'turns', ' ', ' ', ', ', '.', '\uFFFC', 'Ünïcode', '星空');
  const text = fc.array(word, { maxLength: 30 }).map((w) => w.join(''));
  fc.assert(
    fc.property(text, text, (ours, theirs) => {
      const { changes } = changesBetween(ours, theirs);
      let out = ours;
      for (const c of [...changes].reverse()) {
        expect(c.to).toBeLessThanOrEqual(ours.length);
        out = out.slice(0, c.from) + c.text + out.slice(c.to);
      }
      const objects = (s: string): number => s.split('\uFFFC').length;
      expect(objects(out)).toBe(objects(ours));
      if (!ours.includes('\uFFFC') && !theirs.includes('\uFFFC')) expect(out).toBe(theirs);
    }),
    { numRuns: 500 },
  );
});
