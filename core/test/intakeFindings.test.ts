import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { findingsOf } from '../src/check/index.ts';
import type { Finding } from '../src/check/index.ts';
import { Composer } from '../src/compose/index.ts';
import type { FontSet } from '../src/compose/index.ts';
import { Item } from '../src/index.ts';
import type { Folio, Inline, Paragraph } from '../src/index.ts';
import { fontsOf } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
});
const find = (folio: Folio, code: string): Finding[] =>
  findingsOf(folio, new Composer(fonts).compose(folio), fonts).filter((f) => f.code === code);
const withItem = (item: object, change: (d: Folio) => void = () => undefined): Folio =>
  produce(tinyFolio(['text']), (d) => {
    const made = Item.parse({ id: 'it', layer: Object.keys(d.head.layers)[0], transform: [1, 0, 0, 1, 100, 100], ...item });
    d.spreads['s']!.items['it'] = made;
    d.spreads['s']!.order.push('it');
    change(d);
  });
const file = (id: string, more: object = {}) => ({
  id,
  name: `${id}.png`,
  file: `media/${id}.png`,
  mediaType: 'image/png',
  sha256: id,
  bytes: 1000,
  width: 600,
  height: 600,
  ...more,
});
/** A picture two inches wide. */
const picture = (media: string | null) => ({
  kind: 'picture',
  alt: 'x',
  size: { width: 144, height: 144 },
  media,
  placement: [144, 0, 0, 144, 0, 0],
});

describe('pictures', () => {
  // Pixels of the file over inches on the page; 150 and 300 are common practice.
  test.each([
    [240, 'picture.coarse', '120 pixels per inch'],
    [400, 'picture.coarseForPrint', '200 pixels per inch'],
  ])('%i pixels over two inches: %s', (width, code, says) => {
    const folio = withItem(picture('m'), (d) => void (d.head.media['m'] = file('m', { width }) as never));
    expect(find(folio, code)).toEqual([expect.objectContaining({ subject: 'it', page: 1, says: expect.stringContaining(says) })]);
  });
  test('enough pixels are no finding; as many over a picture drawn twice as large are', () => {
    const at = (scale: number): number => {
      const folio = withItem(
        { ...picture('m'), transform: [scale, 0, 0, scale, 0, 0] },
        (d) => void (d.head.media['m'] = file('m') as never),
      );
      return find(folio, 'picture.coarseForPrint').length;
    };
    expect([at(1), at(2)]).toEqual([0, 1]);
  });
  test('a place without its file, a file that is heavy, one that is there twice', () => {
    expect(find(withItem(picture(null)), 'picture.missing')).toHaveLength(1);
    const folio = withItem(picture('a'), (d) => {
      d.head.media['a'] = file('a', { bytes: 6 * 2 ** 20, sha256: 'same' }) as never;
      d.head.media['b'] = file('b', { sha256: 'same' }) as never;
    });
    expect(find(folio, 'picture.heavy').map((f) => [f.says, f.subject])).toEqual([['The file a.png weighs 6.0 MiB.', 'it']]);
    expect(find(folio, 'picture.twice').map((f) => f.says)).toEqual(['The same picture is in the document 2 times: a.png, b.png.']);
  });
});

describe('texts put in their places by hand', () => {
  test('empty paragraphs between others, not those at the ends', () => {
    expect(find(tinyFolio(['', 'one', '', '', 'two', '']), 'text.emptyParagraphs').map((f) => f.says)).toEqual([
      '2 empty paragraphs make room in a text.',
    ]);
    expect(find(tinyFolio(['one', '']), 'text.emptyParagraphs')).toEqual([]);
  });
  test('rows of spaces and tabs', () => {
    const content: Inline[] = [
      { type: 'span', text: 'a   b  c \u00A0 d' },
      { type: 'tab' },
      { type: 'tab' },
      { type: 'tab' },
      { type: 'span', text: 'e' },
    ];
    const folio = produce(tinyFolio(['x']), (d) => void ((d.stories['t']!.blocks['p1'] as Paragraph).content = content));
    expect(find(folio, 'text.rowsOfSpaces').map((f) => [f.says, f.subject])).toEqual([
      ['3 places are spaced by rows of spaces or tabs.', 'f1'],
    ]);
    expect(find(tinyFolio(['a  b']), 'text.rowsOfSpaces')).toEqual([]);
  });
});

describe('styles, places and layers', () => {
  test('styles that look the same are named together, where both are used', () => {
    const folio = (use: boolean): Folio =>
      produce(tinyFolio(['one', 'two']), (d) => {
        d.head.paragraphStyles['q'] = { ...d.head.paragraphStyles['p']!, id: 'q', name: 'Other' };
        if (use) (d.stories['t']!.blocks['p2'] as Paragraph).style = 'q';
      });
    const name = folio(false).head.paragraphStyles['p']!.name;
    expect(find(folio(true), 'style.alike').map((f) => f.says)).toEqual([`These styles look the same: “${name}”, “Other”.`]);
    expect(find(folio(false), 'style.alike')).toEqual([]);
  });
  test.each([
    ['beside its page', [1, 0, 0, 1, -300, 100], 50, 'item.outside'],
    ['too small to see', [1, 0, 0, 1, 100, 100], 1, 'item.tiny'],
    ['reaching onto its page', [1, 0, 0, 1, -20, 100], 50, null],
  ])('an item %s', (_, transform, size, code) => {
    const folio = withItem({ kind: 'shape', name: 'Star', transform, path: [['M', 0, 0], ['L', size, 0], ['L', size, size], ['Z']] });
    expect([...find(folio, 'item.outside'), ...find(folio, 'item.tiny')].map((f) => [f.code, f.says.startsWith('“Star”')])).toEqual(
      code ? [[code, true]] : [],
    );
  });
  test('a straight line is neither outside nor tiny', () => {
    const folio = withItem({
      kind: 'shape',
      path: [
        ['M', 0, 0],
        ['L', 100, 0],
      ],
    });
    expect([...find(folio, 'item.outside'), ...find(folio, 'item.tiny')]).toEqual([]);
  });
  test('pages without text are told at once', () => {
    const folio = produce(tinyFolio(['x']), (d) => {
      for (const id of ['b', 'c']) {
        d.spreads[id] = { ...d.spreads['s']!, id, pages: [{ ...d.spreads['s']!.pages[0]!, id: `pg-${id}` }], items: {}, order: [] };
        d.head.spreadOrder.push(id);
      }
    });
    expect(find(folio, 'page.noText').map((f) => [f.says, f.page])).toEqual([['Pages 2, 3 have no text.', 2]]);
  });
  test('layers that are shown and not printed', () => {
    const folio = produce(tinyFolio(['x']), (d) => void (Object.values(d.head.layers)[0]!.printing = false));
    expect(find(folio, 'layer.notPrinted')).toHaveLength(1);
  });
});
