import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { handFormatted } from '../src/check/handFormatted.ts';
import { findingsOf } from '../src/check/index.ts';
import type { Finding } from '../src/check/index.ts';
import { Composer, FontSet } from '../src/compose/index.ts';
import { Item } from '../src/index.ts';
import type { Folio, Paragraph } from '../src/index.ts';
import { fontsOf } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
});

/** Fresh problems each time: a set of fonts remembers what it had to replace. */
const find = (folio: Folio): Finding[] => {
  const set = new FontSet(fonts.faces);
  return findingsOf(folio, new Composer(set).compose(folio), set);
};
const codes = (folio: Folio): string[] => find(folio).map((f) => f.code);
const heading =
  (level: number): ((d: Folio) => void) =>
  (d) => {
    d.head.paragraphStyles['p']!.role = { element: `h${level}` as 'h1', startsSection: false, leaveOut: false };
  };
const withHeading = (folio: Folio): Folio => produce(folio, heading(1));
const picture = (over: object): Item =>
  Item.parse({
    kind: 'picture',
    id: 'pic',
    layer: 'l',
    media: 'm',
    transform: [1, 0, 0, 1, 0, 0],
    size: { width: 72, height: 72 },
    placement: [72, 0, 0, 72, 0, 0],
    ...over,
  });
const withPicture = (over: object, pixels: number): Folio =>
  produce(withHeading(tinyFolio(['x'])), (d) => {
    d.head.media['m'] = {
      id: 'm',
      name: 'Moon',
      file: 'media/m.png',
      mediaType: 'image/png',
      sha256: '',
      bytes: 1,
      width: pixels,
      height: pixels,
    };
    d.spreads['s']!.items['pic'] = picture(over);
    d.spreads['s']!.order.push('pic');
  });

describe('what a designer should look at', () => {
  test('nothing, where nothing is wrong', () => {
    expect(codes(withHeading(tinyFolio(['One heading'])))).toEqual([]);
  });

  test('text that does not fit says how much, on its page and frame', () => {
    const found = find(withHeading(tinyFolio(['one two three'], { width: 30, height: 14 })));
    expect(found).toEqual([
      { code: 'text.overflow', says: expect.stringMatching(/^\d+ characters \(2 lines\) do not fit\.$/), page: 1, subject: 'f1' },
    ]);
  });

  test('a glyph no font has is named with its character', () => {
    expect(find(withHeading(tinyFolio(['a\u{13000}'])))).toEqual([
      { code: 'glyph.missing', says: 'No font has “\u{13000}”.', page: 1, subject: 'p1', item: 'f1' },
    ]);
  });

  test('a glyph no font has is looked for where it stands: in which frame, or in what is left over', () => {
    const text = `${'word '.repeat(30)}\u{13000}`;
    const at = (height: number) =>
      find(withHeading(tinyFolio([text], { width: 60, height, frames: 2 }))).find((f) => f.code === 'glyph.missing')!;
    expect(at(400)).toMatchObject({ page: 1, says: 'No font has “\u{13000}”.' });
    expect(at(30).says).toBe('No font has “\u{13000}”, in text that does not fit.');
    expect(at(30).page).toBeUndefined();
  });

  test('a word that is wider than its line is named by what stands before the cut', () => {
    const found = find(withHeading(tinyFolio(['See the Unterkunftsverzeichnis'], { width: 60 })));
    expect(found.map((f) => [f.code, f.page, f.subject])).toEqual([['word.cut', 1, 'p1']]);
    const says = found[0]!.says;
    const before = /cut after “(.+)”/.exec(says)![1]!;
    expect('Unterkunftsverzeichnis'.startsWith(before) && before.length > 4).toBe(true);
  });

  test('a family nobody has is said once, however often it is used', () => {
    const folio = withHeading(tinyFolio(['a', 'b', 'c'], { character: { fontFamily: 'Nowhere' } }));
    expect(find(folio)).toEqual([
      { code: 'font.substituted', family: 'Nowhere', says: expect.stringMatching(/^Nowhere is not there; .+ stands in for it\.$/) },
    ]);
  });

  test('the same look by hand in many places is one look; without any there is nothing to say', () => {
    const folio = produce(tinyFolio(['one', 'two', 'three']), (d) => {
      for (const id of ['p1', 'p2', 'p3'])
        (d.stories['t']!.blocks[id] as Paragraph).content = [{ type: 'span', text: 'x', overrides: { fontWeight: 700 } }];
    });
    expect(handFormatted(folio)).toMatchObject({ passages: 3, looks: 1, says: '3 passages are formatted by hand, not by a style.' });
    expect(handFormatted(tinyFolio(['one']))).toBeNull();
  });

  test('passages formatted by hand are counted: paragraphs and spans', () => {
    const folio = produce(withHeading(tinyFolio(['one', 'two'])), (d) => {
      (d.stories['t']!.blocks['p1'] as Paragraph).overrides = { align: 'right' };
      (d.stories['t']!.blocks['p2'] as Paragraph).content = [
        { type: 'span', text: 'by ', overrides: { fontWeight: 700 } },
        { type: 'span', text: 'hand' },
      ];
    });
    expect(find(folio)).toEqual([
      {
        code: 'style.handFormatted',
        says: '2 passages are formatted by hand, not by a style, in 2 different looks.',
        page: 1,
        subject: 'f1',
      },
    ]);
  });

  // 72 pt are one inch (CSS Values 4, 6.2): pixels of the file are pixels per inch.
  test.each([
    [300, {}, []],
    [149, { alt: 'The moon' }, ['picture.coarse']],
    [150, { alt: 'The moon' }, ['picture.coarseForPrint']],
    [300, { alt: 'The moon', placement: [180, 0, 0, 180, 0, 0] }, ['picture.coarse']],
    [300, { alt: 'The moon', transform: [2.5, 0, 0, 2.5, 0, 0] }, ['picture.coarse']],
  ])('a picture of %i pixels with %j', (pixels, over, expected) => {
    expect(codes(withPicture({ alt: 'x', ...over }, pixels))).toEqual(expected);
  });

  test('a picture without alt text is a finding unless it is decoration or hidden', () => {
    expect(codes(withPicture({}, 300))).toEqual(['alt.missing']);
    expect(codes(produce(withPicture({}, 300), (d) => void d.head.structure.decorations.push('pic')))).toEqual([]);
    const hidden = produce(withPicture({}, 300), (d) => {
      d.head.layers['h'] = { id: 'h', name: 'Notes', visible: false, printing: false, locked: false };
      d.head.layerOrder.push('h');
      d.spreads['s']!.items['pic']!.layer = 'h';
    });
    expect(find(hidden)).toEqual([{ code: 'layer.hidden', says: 'The layer “Notes” is hidden.', subject: 'h' }]);
  });

  // WCAG 2.2, 1.3.1 (technique G141): headings nest.
  test.each([
    [[], ['heading.none']],
    [[2], ['heading.none']],
    [[1], []],
    [[1, 2, 3], []],
    [[1, 3], ['heading.skip']],
  ])('headings of levels %j', (levels, expected) => {
    const folio = produce(tinyFolio(['a', 'b', 'c']), (d) => {
      levels.forEach((level, i) => {
        d.head.paragraphStyles[`h${level}`] = {
          ...d.head.paragraphStyles['p']!,
          id: `h${level}`,
          role: { element: `h${level}` as 'h1', startsSection: false, leaveOut: false },
        };
        (d.stories['t']!.blocks[`p${i + 1}`] as Paragraph).style = `h${level}`;
      });
    });
    expect(codes(folio).filter((c) => c.startsWith('heading'))).toEqual(expected);
  });
});
