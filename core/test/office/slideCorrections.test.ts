import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { unzipSync } from 'fflate';
import { applyEdit, plainText, takeCorrections } from '../../src/index.ts';
import type { Correction, Folio, Inline, Paragraph } from '../../src/index.ts';
import { pairTexts } from '../../src/read/corrections/pairTexts.ts';
import { saidChanges } from '../../src/read/corrections/saidChanges.ts';
import { changedDocx, corrections } from '../support/changedDocx.ts';
import { asSample, make, SAMPLES, sample } from '../support/samples.ts';
import { withSpeakersNotes } from '../support/speakersNotes.ts';
import { grid, tableFolio } from '../support/tableFolio.ts';
import { tinyFolio } from '../support/tinyFolio.ts';
import { ofToday } from '../support/ofToday.ts';

const NOTHING = { corrections: [], added: [], gone: [] };
const span = (text: string, more: object = {}): Inline => ({ type: 'span', text, ...more }) as Inline;
const deck = async (folio: Folio, settings: object = {}): Promise<Uint8Array> =>
  (await make(asSample(folio), 'pptx', { ...settings })).read('document.pptx');
const SLIDE = 'ppt/slides/slide1.xml';
const take = (folio: Folio, list: readonly Correction[]): Folio =>
  takeCorrections(folio, list).reduce((f, e) => applyEdit(f, e).folio, folio);

describe('a deck that nobody has changed brings nothing back', () => {
  test.each(ofToday(SAMPLES, 1))('%s', async (id) => {
    const s = await sample(id);
    for (const settings of [{}, { masters: 'slides', fields: 'text', spreads: 'together' }]) {
      const made = await make(s, 'pptx', { resolution: 36, ...settings });
      expect(await corrections(s.folio, await made.read('document.pptx'))).toEqual(NOTHING);
    }
  });
});

describe('what a colleague has changed on slides', () => {
  const folio = tinyFolio([
    [span('The dome weighs '), span('nine', { overrides: { fontStyle: 'italic' } }), span(' tonnes and turns on wheels.')],
    'A second para\u00ADgraph stands here.',
    [span('See page '), { type: 'field', id: 'f', field: 'reference', target: 'p1' } as Inline, span(' for the weight of it.')],
    'The last one.',
  ]);
  let bytes: Uint8Array;
  beforeAll(async () => {
    bytes = await deck(folio);
  });
  const after = (work: (xml: string) => string, part = SLIDE) => corrections(folio, changedDocx(bytes, work, part));
  const afters = async (work: (xml: string) => string): Promise<string[]> => (await after(work)).corrections.map((c) => c.after);

  test('words are other words, in the look of those they take the place of', async () => {
    const found = await after((xml) => xml.replace('>nine<', '>twelve<').replace('turns on wheels', 'rolls on wheels'));
    expect(found.corrections).toMatchObject([
      { paragraph: 'p1', after: 'The dome weighs twelve tonnes and rolls on wheels.', changedHere: false, keepsObjects: false },
    ]);
    const now = take(folio, found.corrections).stories['t']!.blocks['p1'] as Paragraph;
    expect(now.content[1]).toEqual(span('twelve', { overrides: { fontStyle: 'italic' } }));
  });

  test('soft hyphens, which slides do not have, stay where they are', async () => {
    expect(await afters((xml) => xml.replace('stands here', 'is here'))).toEqual(['A second para\u00ADgraph is here.']);
    expect(await afters((xml) => xml.replace('A second paragraph', 'The second text'))).toEqual(['The second text stands here.']);
  });

  test('a number that a field says stays a field; words around it are taken', async () => {
    expect(await afters((xml) => xml.replace('for the weight of it', 'for its weight'))).toEqual(['See page ▫ for its weight.']);
    const other = await after((xml) => xml.replace(/(See page .*?<a:t[^>]*>)[^<]+/, '$1999'));
    expect(
      other.corrections.every((c) => plainText((take(folio, [c]).stories['t']!.blocks['p3'] as Paragraph).content).includes('\uFFFC')),
    ).toBe(true);
  });

  test('a paragraph that was divided comes back with a turned line; new ones and missing ones are told', async () => {
    expect(await afters((xml) => xml.replace('A second paragraph', 'A second</a:t></a:r></a:p><a:p><a:r><a:t> paragraph'))).toEqual([
      'A second\n para\u00ADgraph stands here.',
    ]);
    const more = await after((xml) => xml.replace('</p:txBody>', '<a:p><a:r><a:t>Something new.</a:t></a:r></a:p></p:txBody>'));
    expect(more).toEqual({ ...NOTHING, added: [{ after: 'p4', text: 'Something new.' }] });
    const less = await after((xml) => xml.replace(/<a:p>(?:(?!<a:p>).)*A second paragraph stands here\..*?<\/a:p>/s, ''));
    expect(less).toMatchObject({ corrections: [], added: [], gone: [{ paragraph: 'p2' }] });
  });

  test('boxes that a program has numbered anew are found by what they say', async () => {
    const found = await after((xml) =>
      xml
        .replace(/(<p:cNvPr id=")(\d+)/g, (_, a: string, n: string) => a + String(Number(n) + 500))
        .replace('The last one', 'The very last one'),
    );
    expect(found).toMatchObject({ added: [], gone: [], corrections: [{ paragraph: 'p4', after: 'The very last one.' }] });
    const slides = await after((xml) => xml.replace(/<p:sldId id="\d+"/, '<p:sldId id="777"'), 'ppt/presentation.xml');
    expect(slides).toEqual(NOTHING);
  });

  test('a paragraph that is another here, too, is said to be', async () => {
    const place = (offset: number) => ({ paragraphId: 'p4', offset });
    const here = applyEdit(folio, {
      kind: 'text.replace',
      args: { story: 't', from: place(4), to: place(8), content: [[span('final')]], newIds: [] },
    }).folio;
    const changed = changedDocx(bytes, (xml) => xml.replace('The last one', 'The latest one'), SLIDE);
    expect((await corrections(here, changed)).corrections).toMatchObject([
      { before: 'The final one.', after: 'The latest one.', changedHere: true },
    ]);
  });

  test('of another document, without the list, damaged: a sentence, and nothing taken', async () => {
    await expect(corrections({ ...folio, head: { ...folio.head, id: 'another' } }, bytes)).rejects.toMatchObject({
      code: 'corrections.other',
    });
    await expect(after((x) => x.replace('urn:elastic-folio', 'urn:other'), 'customXml/item1.xml')).rejects.toMatchObject({
      code: 'corrections.unknown',
    });
    await expect(after((x) => x.slice(0, 300))).rejects.toMatchObject({ code: 'corrections.damaged' });
  });
});

test('words of cells come back to their cells, and those of notes to theirs', async () => {
  const folio = tableFolio(Array(3).fill({ width: 60, unit: 'pt' }), Array(3).fill({ height: 20 }), grid(3, 3));
  const bytes = await deck(folio);
  const [, cell] = [...new TextDecoder().decode(unzipSync(bytes)[SLIDE]).matchAll(/<a:tc>.*?<a:t[^>]*>([^<]+)<\/a:t>/gs)].map((m) => m[1]!);
  const found = await corrections(
    folio,
    changedDocx(bytes, (xml) => xml.replace(`>${cell}<`, `>${cell} more<`), SLIDE),
  );
  expect(found.corrections.map((c) => c.after)).toEqual([`${cell} more`]);
});

test('a text that is cut over two boxes is one correction, wherever it was changed', async () => {
  const s = await sample('marrowby-almanac');
  const made = await make(s, 'pptx', { resolution: 36, pages: '4-7' });
  const bytes = await made.read('document.pptx');
  const list = new TextDecoder().decode(unzipSync(bytes)['customXml/item1.xml']);
  const parts = [...list.matchAll(/<box slide="(\d+)" shape="(\d+)">(.*?)<\/box>/gs)].flatMap(([, slide, , inside]) =>
    [...inside!.matchAll(/<paragraph id="([^"]+)" from="(\d+)" to="(\d+)"[^>]*>([^<]*)</g)].map((m) => ({
      slide: Number(slide),
      id: m[1]!,
      from: Number(m[2]),
      said: m[4]!,
    })),
  );
  const later = parts.find((p) => p.from > 0 && p.said.length > 60)!;
  expect(later).toBeDefined();
  const paragraph = Object.values(s.folio.stories)
    .flatMap((t) => Object.values(t.blocks))
    .find((b) => b.id === later.id) as Paragraph;
  const first = parts.find((p) => p.id === later.id && p.from === 0);
  const word = /[a-z]{5,}/.exec(later.said.slice(10))![0];
  const said = later.said;
  const run = said.slice(said.indexOf(word, 10), said.indexOf(word, 10) + word.length);
  const changed = changedDocx(
    bytes,
    (xml) => {
      const at = xml.indexOf(said.slice(0, 10));
      return xml.slice(0, at) + xml.slice(at).replace(run, 'QQQQQ');
    },
    `ppt/slides/slide${later.slide - 255}.xml`,
  );
  const found = await corrections(s.folio, changed);
  expect(found.corrections).toHaveLength(1);
  const [only] = found.corrections;
  expect(only!.paragraph).toBe(later.id);
  expect(only!.changes).toHaveLength(1);
  expect(only!.changes[0]!.from).toBeGreaterThanOrEqual(later.from);
  expect(plainText(paragraph.content).slice(only!.changes[0]!.from, only!.changes[0]!.to)).toBe(word);
  expect(first === undefined || first.slide <= later.slide).toBe(true);
});

test('speaker’s notes come back as well', async () => {
  const folio = withSpeakersNotes('Say how heavy it is.');
  const bytes = await deck(folio);
  expect(await corrections(folio, bytes)).toEqual(NOTHING);
  const found = await corrections(
    folio,
    changedDocx(bytes, (xml) => xml.replace('Say how', 'Say slowly how'), 'ppt/notesSlides/notesSlide1.xml'),
  );
  expect(found.corrections).toMatchObject([{ story: 'n', paragraph: 'n1', after: 'Say slowly how heavy it is.' }]);
});

describe('which text became which', () => {
  const pairs = (written: string[], now: string[], sure = true): [number | null, string | null][] =>
    pairTexts(written, now, sure).map((p) => [p.written, p.now]);
  test('equal ones are themselves, even where others stand between them', () => {
    expect(pairs(['a b c', 'd e f'], ['new one', 'a b c', 'd e f'])).toEqual([
      [null, 'new one'],
      [0, 'a b c'],
      [1, 'd e f'],
    ]);
  });
  test('in its own box a text may be any other; elsewhere it must be like it', () => {
    expect(pairs(['The dome turns.'], ['Quite another thing'])).toEqual([[0, 'Quite another thing']]);
    expect(pairs(['The dome turns.'], ['Quite another thing'], false)).toHaveLength(2);
    expect(pairs(['The dome turns.'], ['The dome turned.'], false)).toEqual([[0, 'The dome turned.']]);
  });
});

test('changing what was said changes the letters alone, and keeps every object (property)', () => {
  const word = fc.constantFrom('the', 'dome', 'turns', ' ', ' ', ', ', '.', '\u00AD', 'Ünïcode', '星空');
  const text = fc.array(word, { maxLength: 12 }).map((w) => w.join(''));
  const told = fc.constantFrom('', '12', 'Figure 3', '¹');
  fc.assert(
    fc.property(
      fc.array(text, { minLength: 1, maxLength: 4 }),
      fc.array(told, { minLength: 4, maxLength: 4 }),
      text,
      (pieces, says, now) => {
        const ours = pieces.join('\uFFFC');
        const said = pieces.map((p, i) => p.replaceAll('\u00AD', '') + (i < pieces.length - 1 ? says[i]! : '')).join('');
        const same = saidChanges(ours, said, said);
        expect(same === null || same.changes.length === 0).toBe(true);
        const other = saidChanges(ours, said, now);
        if (!other) return;
        let out = ours;
        for (const c of [...other.changes].reverse()) out = out.slice(0, c.from) + c.text + out.slice(c.to);
        expect(out.split('\uFFFC')).toHaveLength(pieces.length);
        if (pieces.length === 1) expect(out.replaceAll('\u00AD', '')).toBe(now.replaceAll('\u00AD', ''));
      },
    ),
    { numRuns: 500 },
  );
});
