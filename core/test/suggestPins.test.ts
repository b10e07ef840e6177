import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import type { Folio, Inline, Item } from '../src/index.ts';
import { paragraphPlaces, rolesByName, rolesFromSet, RoleSet, suggestPins } from '../src/index.ts';
import { Composer, composedSpread } from '../src/compose/index.ts';
import { fontsOf, sample } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const suggested = async (folio: Folio) => suggestPins(folio, new Composer(await fontsOf(folio)).compose(folio));

/** A text and, far below it, a picture with a caption. */
const withFigure = (caption: string, texts: (string | Inline[])[]): Folio => {
  const d = structuredClone(tinyFolio(texts));
  d.head.paragraphStyles['c'] = {
    ...d.head.paragraphStyles['p']!,
    id: 'c',
    name: 'Caption',
    role: { element: 'figcaption', startsSection: false, leaveOut: false },
  };
  const { items, order } = d.spreads['s']!;
  const frame = items['f1']!;
  items['fig'] = {
    ...frame,
    kind: 'picture',
    id: 'fig',
    media: null,
    placement: [1, 0, 0, 1, 0, 0],
    transform: [1, 0, 0, 1, 300, 500],
    size: { width: 100, height: 100 },
  } as Item;
  items['cap'] = { ...frame, id: 'cap', transform: [1, 0, 0, 1, 300, 605], size: { width: 200, height: 40 } } as Item;
  order.push('fig', 'cap');
  d.head.storyOrder.push('ct');
  d.stories['ct'] = {
    ...d.stories['t']!,
    id: 'ct',
    frames: [{ spread: 's', item: 'cap' }],
    order: ['cp'],
    blocks: { cp: { kind: 'paragraph', id: 'cp', style: 'c', content: [{ type: 'span', text: caption }] } },
  };
  return d;
};

describe('a pin suggests itself', () => {
  test('where a caption’s number is named in words, at the first of them', async () => {
    const folio = withFigure('Figure 3. The dome.', ['Nothing.', 'As figure 3 shows, it turns.', 'Again Figure 3.']);
    expect(await suggested(folio)).toEqual([{ item: 'fig', paragraph: 'p2', reason: '“Figure 3” is named there' }]);
  });
  test('not where another number is, nor by the caption itself', async () => {
    expect(await suggested(withFigure('Figure 3. The dome.', ['See Figure 31.', 'See Figure 2.']))).toEqual([]);
  });
  test('where a field refers to the caption', async () => {
    const field: Inline = { type: 'field', id: 'x', field: 'label', target: 'cp' };
    const folio = withFigure('The dome.', ['Nothing.', [{ type: 'span', text: 'See ' }, field]]);
    expect(await suggested(folio)).toEqual([{ item: 'fig', paragraph: 'p2', reason: 'its caption is referred to there' }]);
  });
  test('for nothing that is pinned already, or is decoration', async () => {
    const folio = withFigure('Figure 3. The dome.', ['See Figure 3.']);
    const pin = { id: 'x', item: 'fig', paragraph: 'p1', offset: 0, as: 'after' as const };
    expect(await suggested(produce(folio, (d) => void (d.head.structure.pins['x'] = pin)))).toEqual([]);
    expect(await suggested(produce(folio, (d) => void d.head.structure.decorations.push('fig')))).toEqual([]);
  });
  test('beside the paragraph at whose height a picture stands', async () => {
    const beside = produce(
      withFigure('The dome.', ['One line.', 'Another text that is long enough to fill some lines of its narrow frame. '.repeat(6)]),
      (d) => {
        d.spreads['s']!.items['fig']!.transform = [1, 0, 0, 1, 220, 20];
      },
    );
    expect(await suggested(beside)).toEqual([{ item: 'fig', paragraph: 'p2', reason: 'it stands beside this paragraph' }]);
  });
  test('in the Almanac for the map, at the text beside it', async () => {
    const { folio } = await sample('marrowby-almanac');
    expect((await suggested(folio)).find((s) => s.item === 'map-picture')).toMatchObject({ reason: 'it stands beside this paragraph' });
  });
});

test('paragraphs are found where they stand, each part in its frame', async () => {
  const { folio } = await sample('marrowby-almanac');
  const composition = new Composer(await fontsOf(folio)).compose(folio);
  const spread = composedSpread(folio, composition, folio.spreads['s3']!);
  const places = paragraphPlaces(composition, spread).filter((p) => p.paragraph === 'dome-feature-16');
  expect(places).toHaveLength(2);
  for (const { frame, box } of places) {
    const item = spread.items[frame] as { transform: number[]; size: { width: number; height: number } };
    expect(box.x).toBeGreaterThanOrEqual(item.transform[4]! - 1);
    expect(box.y + box.height).toBeLessThanOrEqual(item.transform[5]! + item.size.height + 12);
  }
});

describe('a set of roles', () => {
  test('is taken from one document and applied to another by the names of styles', async () => {
    const { folio } = await sample('marrowby-almanac');
    const set = RoleSet.parse({ id: 'x', name: 'Almanac', ...rolesByName(folio) });
    expect(rolesFromSet(folio, set)).toEqual({ paragraph: {}, character: {} });
    const other = produce(folio, (d) => {
      delete d.head.paragraphStyles['caption']!.role;
      d.head.paragraphStyles['head']!.name = '  ' + d.head.paragraphStyles['head']!.name.toUpperCase();
      d.head.paragraphStyles['head']!.role!.element = 'h5';
    });
    expect(rolesFromSet(other, set)).toEqual({
      paragraph: { caption: folio.head.paragraphStyles['caption']!.role, head: folio.head.paragraphStyles['head']!.role },
      character: {},
    });
  });
});
