import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { applyEdit, plainText, takeCorrections } from '../../src/index.ts';
import type { Folio, Inline, Paragraph } from '../../src/index.ts';
import { changedDocx, corrections } from '../support/changedDocx.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { asSample, make, SAMPLES, sample } from '../support/samples.ts';
import { withSpeakersNotes } from '../support/speakersNotes.ts';
import { grid, tableFolio } from '../support/tableFolio.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { ofToday } from '../support/ofToday.ts';

/** The way back from slides of OpenDocument: RDF metadata names slides and boxes (OpenDocument 1.3, part 2, chapter 6). */
const NOTHING = { corrections: [], added: [], gone: [] };
const span = (text: string, more: object = {}): Inline => ({ type: 'span', text, ...more }) as Inline;
const deck = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'odp', settings as Record<string, unknown>)).read('document.odp');
const partOf = (bytes: Uint8Array, path = 'content.xml'): string => new TextDecoder().decode(unzipSync(bytes)[path]);

describe('slides that nobody has changed bring nothing back', () => {
  test.each(ofToday(SAMPLES, 1))('%s', async (id) => {
    const s = await sample(id);
    for (const settings of [{}, { fields: 'text', spreads: 'together', notes: false }]) {
      const made = await make(s, 'odp', { resolution: 36, ...settings });
      const bytes = await made.read('document.odp');
      expect(faultsOfOdf(bytes)).toEqual([]);
      expect(await corrections(s.folio, bytes)).toEqual(NOTHING);
    }
  });
});

describe('what a colleague has changed on slides of OpenDocument', () => {
  const folio = tinyFolio([
    [span('The dome weighs '), span('nine', { overrides: { fontStyle: 'italic' } }), span(' tonnes  and turns on wheels.')],
    'A second paragraph stands here.',
    [span('See page '), { type: 'field', id: 'f', field: 'reference', target: 'p1' } as Inline, span(' & more for the weight of it.')],
    'The last one.',
  ]);
  let bytes: Uint8Array;
  beforeAll(async () => {
    bytes = await deck(folio);
  });
  const after = (work: (xml: string) => string, part?: string) => corrections(folio, changedDocx(bytes, work, part ?? 'content.xml'));
  const afters = async (work: (xml: string) => string): Promise<string[]> => (await after(work)).corrections.map((c) => c.after);

  test('words are other words, in the look of those they take the place of; rows of spaces stay', async () => {
    const found = await after((xml) => xml.replace('>nine<', '>twelve<').replace('turns on wheels', 'rolls on wheels'));
    expect(found.corrections).toMatchObject([
      { paragraph: 'p1', after: 'The dome weighs twelve tonnes  and rolls on wheels.', changedHere: false, keepsObjects: false },
    ]);
    const now = takeCorrections(folio, found.corrections).reduce((f, e) => applyEdit(f, e).folio, folio);
    expect((now.stories['t']!.blocks['p1'] as Paragraph).content[1]).toEqual(span('twelve', { overrides: { fontStyle: 'italic' } }));
    expect(now.spreads).toEqual(folio.spreads);
  });

  test('a number that a reference says stays a reference; words around it are taken', async () => {
    expect(await afters((xml) => xml.replace('more for the weight of it', 'more'))).toEqual(['See page ▫ & more.']);
  });

  test('new paragraphs and missing ones are told; one that was divided has a turned line', async () => {
    expect(await after((xml) => xml.replace('</draw:text-box>', '<text:p>Something new.</text:p></draw:text-box>'))).toEqual({
      ...NOTHING,
      added: [{ after: 'p4', text: 'Something new.' }],
    });
    const less = await after((xml) => xml.replace(/<text:p [^>]*>A second paragraph stands here\.<\/text:p>/, ''));
    expect(less).toMatchObject({ corrections: [], added: [], gone: [{ paragraph: 'p2' }] });
    expect(await afters((xml) => xml.replace('A second paragraph', 'A second</text:p><text:p>paragraph'))).toEqual([
      'A second\nparagraph stands here.',
    ]);
  });

  test('slides in another order, and boxes under other names, are found by what they say', async () => {
    const found = await after((xml) =>
      xml
        .replace(/draw:name="Page 1"/, 'draw:name="page9"')
        .replace(/(<draw:frame draw:name=")[^"]+/g, '$1Shape')
        .replace('The last one', 'The very last one'),
    );
    expect(found).toMatchObject({ added: [], gone: [], corrections: [{ paragraph: 'p4', after: 'The very last one.' }] });
  });

  test('statements in another order say the same', async () => {
    const turned = await after((xml) => {
      const all = xml.match(/<rdf:Description .*?<\/rdf:Description>/gs)!;
      return xml.replace(all.join(''), [...all].reverse().join(''));
    }, 'texts.rdf');
    expect(turned).toEqual(NOTHING);
  });

  test('of another document, without its metadata, damaged: a sentence, and nothing taken', async () => {
    await expect(corrections({ ...folio, head: { ...folio.head, id: 'another' } }, bytes)).rejects.toMatchObject({
      code: 'corrections.other',
    });
    await expect(after((x) => x.replace('urn:elastic-folio', 'urn:other'), 'texts.rdf')).rejects.toMatchObject({
      code: 'corrections.unknown',
    });
    await expect(after((x) => x.slice(0, 300))).rejects.toMatchObject({ code: 'corrections.damaged' });
  });
});

test('words of cells come back to their cells', async () => {
  const folio = tableFolio(Array(3).fill({ width: 60, unit: 'pt' }), Array(3).fill({ height: 20 }), grid(3, 3));
  const bytes = await deck(folio);
  const cell = /<table:table-cell.*?<text:p[^>]*>([^<]+)</s.exec(partOf(bytes))![1]!;
  const found = await corrections(
    folio,
    changedDocx(bytes, (xml) => xml.replace(`>${cell}<`, `>${cell} more<`), 'content.xml'),
  );
  expect(found.corrections.map((c) => c.after)).toEqual([`${cell} more`]);
});

test('a text that is cut over two slides is one correction, in its place', async () => {
  const s = await sample('marrowby-almanac');
  const bytes = await (await make(s, 'odp', { resolution: 36, pages: '4-7' })).read('document.odp');
  const told = [...partOf(bytes, 'texts.rdf').matchAll(/<own:paragraph>([^<]+)<.*?<own:from>(\d+)<.*?<own:said>([^<]*)</gs)];
  const [, id, from, said] = told.find((m) => Number(m[2]) > 0 && m[3]!.length > 60)!;
  const start = said!.slice(0, 24);
  const changed = changedDocx(bytes, (xml) => xml.replace(start, `Q ${start}`), 'content.xml');
  const found = await corrections(s.folio, changed);
  expect(found.corrections).toHaveLength(1);
  expect(found.corrections[0]).toMatchObject({ paragraph: id, changes: [{ from: Number(from), text: 'Q ' }] });
  expect(
    plainText(
      (
        Object.values(s.folio.stories)
          .flatMap((t) => Object.values(t.blocks))
          .find((b) => b.id === id) as Paragraph
      ).content,
    ),
  ).toContain(start);
});

test('speaker’s notes come back as well', async () => {
  const folio = withSpeakersNotes('Say how heavy it is.');
  const bytes = await deck(folio);
  expect(await corrections(folio, bytes)).toEqual(NOTHING);
  const changed = changedDocx(bytes, (xml) => xml.replace('Say how', 'Say slowly how'), 'content.xml');
  expect((await corrections(folio, changed)).corrections).toMatchObject([
    { story: 'n', paragraph: 'n1', after: 'Say slowly how heavy it is.' },
  ]);
});

test('a template carries no list: what is filled in does not come back', async () => {
  const made = await make(asSample(tinyFolio(['x'])), 'odp', { template: true, words: 'prompts' });
  expect(Object.keys(unzipSync(await made.read('document.otp'))).filter((p) => p.endsWith('.rdf'))).toEqual([]);
});
