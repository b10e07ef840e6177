import { describe, expect, test } from '@jest/globals';
import { applyEdit } from '../../src/index.ts';
import type { Folio, TranslatedUnit } from '../../src/index.ts';
import {
  deskRows,
  differences,
  fromReadable,
  inEdition,
  joinedWithNext,
  newEdition,
  partedAt,
  partedIntoSentences,
  placesToPart,
  readable,
  replacedIn,
  standingsOf,
  unitWith,
} from '../../src/language/index.ts';
import type { DeskRow } from '../../src/language/index.ts';
import { readText } from '../../src/index.ts';
import { bold, codedFolio, plain, TAB } from './support/codedFolio.ts';

const FOLIO: Folio = {
  ...codedFolio([
    [plain('Come early. Bring '), bold('a lamp'), plain('. It is dark, e.g. behind the mill.')],
    [plain('Seven'), TAB, plain('Eight')],
  ]),
  editions: { de: newEdition('de') },
};
const LANGUAGES = { source: 'en', target: 'de' };
const rowsOf = (folio: Folio, unit: string): DeskRow[] => deskRows(folio, 'de').filter((r) => r.unit.id === unit);
const write = (folio: Folio, id: string, unit: TranslatedUnit): Folio =>
  applyEdit(folio, { kind: 'edition.units', args: { language: 'de', units: { [id]: unit } } }).folio;
const say = (folio: Folio, id: string, at: number, text: string): Folio => {
  const rows = rowsOf(folio, id);
  return write(folio, id, unitWith(rows, at, { ...rows[at]!.segment, target: fromReadable(text), state: 'translated' }));
};
const sources = (folio: Folio, id: string): string[] => rowsOf(folio, id).map((r) => readable(r.segment.source));

describe('segments at the desk', () => {
  test('a text is cut at its tabs, and each part is translated on its own', () => {
    expect(sources(FOLIO, 'p2')).toEqual(['Seven', 'Eight']);
    const said = say(say(FOLIO, 'p2', 1, 'Acht'), 'p2', 0, 'Sieben');
    const paragraph = inEdition(said, 'de').stories['t']!.blocks['p2'];
    expect(paragraph?.kind === 'paragraph' && paragraph.content.map((n) => (n.type === 'span' ? n.text : n.type))).toEqual([
      'Sieben',
      'tab',
      'Acht',
    ]);
  });

  test('it is parted before any of its words; pairs that are cut are closed and opened again', () => {
    const [row] = rowsOf(FOLIO, 'p1');
    const places = placesToPart(row!.segment.source, 'en');
    const before = (word: string): number => places.find((p) => p.word === word)!.at;
    expect(places.map((p) => p.word).slice(0, 4)).toEqual(['early', 'Bring', 'a', 'lamp']);
    const cut = (word: string): string[] => sources(write(FOLIO, 'p1', partedAt(rowsOf(FOLIO, 'p1'), 0, before(word))!), 'p1');
    expect(cut('It')).toEqual(['Come early. Bring {1}a lamp{/1}.', 'It is dark, e.g. behind the mill.']);
    expect(cut('lamp')).toEqual(['Come early. Bring {1}a{/1}', '{1}lamp{/1}. It is dark, e.g. behind the mill.']);
    expect(partedAt(rowsOf(FOLIO, 'p1'), 0, 0)).toBeNull();
  });

  test('what is said already stays with the first part, and joining brings the whole back', () => {
    const said = say(FOLIO, 'p1', 0, 'Kommen Sie früh und bringen Sie {1}eine Lampe{/1} mit.');
    const at = placesToPart(rowsOf(said, 'p1')[0]!.segment.source, 'en').find((p) => p.word === 'Bring')!.at;
    const parted = write(said, 'p1', partedAt(rowsOf(said, 'p1'), 0, at)!);
    expect(rowsOf(parted, 'p1').map((r) => r.segment.target && readable(r.segment.target))).toEqual([
      'Kommen Sie früh und bringen Sie {1}eine Lampe{/1} mit.',
      null,
    ]);
    const whole = write(parted, 'p1', joinedWithNext(rowsOf(parted, 'p1'), 0)!);
    expect(sources(whole, 'p1')).toEqual(sources(FOLIO, 'p1'));
    expect(standingsOf(whole, 'de').find((r) => r.unit.id === 'p1')!.standing!.changed).toBe(false);
  });

  test('words of Japanese are places as well', () => {
    expect(placesToPart([{ type: 'text', text: '丘の上のドーム' }], 'ja').map((p) => p.word)).toContain('ドーム');
  });

  test('it is parted into sentences, abbreviations known, and said piece by piece', () => {
    const parted = write(FOLIO, 'p1', partedIntoSentences(rowsOf(FOLIO, 'p1'), 0, LANGUAGES)!);
    expect(sources(parted, 'p1')).toEqual(['Come early.', 'Bring {1}a lamp{/1}.', 'It is dark, e.g. behind the mill.']);
    let said = parted;
    for (const [at, text] of ['Kommen Sie früh.', 'Bringen Sie {1}eine Lampe{/1} mit.', 'Hinter der Mühle ist es dunkel.'].entries())
      said = say(said, 'p1', at, text);
    expect(readText(inEdition(said, 'de').stories['t']!.blocks['p1'] as never)).toBe(
      'Kommen Sie früh. Bringen Sie eine Lampe mit. Hinter der Mühle ist es dunkel.',
    );
    expect(standingsOf(said, 'de').find((r) => r.unit.id === 'p1')!.standing).toMatchObject({ changed: false, open: false });
  });

  test('two pieces become one again with what both said; nothing is joined over a tab, and nothing after the last', () => {
    const parted = write(FOLIO, 'p1', partedIntoSentences(rowsOf(FOLIO, 'p1'), 0, LANGUAGES)!);
    const said = say(say(parted, 'p1', 0, 'Kommen Sie früh.'), 'p1', 1, 'Bringen Sie {1}eine Lampe{/1} mit.');
    const joined = write(said, 'p1', joinedWithNext(rowsOf(said, 'p1'), 0)!);
    expect(sources(joined, 'p1')).toEqual(['Come early. Bring {1}a lamp{/1}.', 'It is dark, e.g. behind the mill.']);
    expect(readable(rowsOf(joined, 'p1')[0]!.segment.target!)).toBe('Kommen Sie früh. Bringen Sie {1}eine Lampe{/1} mit.');
    expect(joinedWithNext(rowsOf(joined, 'p1'), 1)).toBeNull();
    expect(joinedWithNext(rowsOf(FOLIO, 'p2'), 0)).toBeNull();
    expect(partedIntoSentences(rowsOf(FOLIO, 'p2'), 0, LANGUAGES)).toBeNull();
  });

  test('a translation in as many sentences is parted with its source; one in others stays whole with the first', () => {
    const same = say(FOLIO, 'p1', 0, 'Kommen Sie früh. Bringen Sie eine Lampe. Es ist dunkel.');
    const three = write(same, 'p1', partedIntoSentences(rowsOf(same, 'p1'), 0, LANGUAGES)!);
    expect(rowsOf(three, 'p1').map((r) => readable(r.segment.target!))).toEqual([
      'Kommen Sie früh.',
      'Bringen Sie eine Lampe.',
      'Es ist dunkel.',
    ]);
    const other = say(FOLIO, 'p1', 0, 'Kommen Sie früh mit einer Lampe.');
    const one = write(other, 'p1', partedIntoSentences(rowsOf(other, 'p1'), 0, LANGUAGES)!);
    expect(rowsOf(one, 'p1').map((r) => r.segment.target && readable(r.segment.target))).toEqual([
      'Kommen Sie früh mit einer Lampe.',
      null,
      null,
    ]);
  });

  test('where the source is another by now, its pieces are those of today, with what was said of them', () => {
    const said = say(FOLIO, 'p2', 0, 'Sieben');
    const changed = applyEdit(said, {
      kind: 'text.replace',
      args: {
        story: 't',
        from: { paragraphId: 'p2', offset: 0 },
        to: { paragraphId: 'p2', offset: 5 },
        content: [[{ type: 'span', text: 'Nine' }]],
        newIds: [],
      },
    }).folio;
    const rows = rowsOf(changed, 'p2');
    expect(rows.map((r) => [readable(r.segment.source), r.segment.target && readable(r.segment.target), r.changed])).toEqual([
      ['Nine', 'Sieben', true],
      ['Eight', null, true],
    ]);
  });

  test('words are replaced in words, and codes stay where they are', () => {
    const { count, target } = replacedIn(fromReadable('Die {1}Kuppel{/1} und die Kuppel'), 'Kuppel', 'Haube');
    expect([count, readable(target)]).toEqual([2, 'Die {1}Haube{/1} und die Haube']);
    expect(replacedIn(fromReadable('Kuppel'), '', 'x').count).toBe(0);
  });
});

test('what is different between two sources is told word by word', () => {
  expect(differences(fromReadable('Bring a red lamp.'), fromReadable('Bring a warm {1}lamp{/1}.'))).toEqual([
    { text: 'Bring a ', in: 'both' },
    { text: 'red', in: 'before' },
    { text: 'warm', in: 'now' },
    { text: ' lamp.', in: 'both' },
  ]);
});
