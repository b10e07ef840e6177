import { beforeAll, describe, expect, test } from '@jest/globals';
import type { ParagraphUnit } from '../src/structure/reading.ts';
import { produce } from 'immer';
import type { Folio, ReadingUnit } from '../src/index.ts';
import { headingsOf, readingOfSpread, textOfLines } from '../src/index.ts';
import { Composer } from '../src/compose/index.ts';
import type { Composition } from '../src/compose/index.ts';
import { fontsOf, sample } from './support/samples.ts';

let folio: Folio;
let composition: Composition;
beforeAll(async () => {
  ({ folio } = await sample('marrowby-almanac'));
  composition = new Composer(await fontsOf(folio)).compose(folio);
});
const visible = (f: Folio) => (item: { layer: string }) => f.head.layers[item.layer]!.visible;
const units = (f: Folio, spread: string, page: string): ReadingUnit[] =>
  readingOfSpread(f, composition, f.spreads[spread]!, visible(f)).get(page)!.units;
const order = (list: ReadingUnit[]): string[] => list.map((u) => (u.kind === 'figure' ? `[${u.item}]` : u.paragraph));

describe('the order in which a page is read', () => {
  // Written down by hand from the layout: the heading lies on the picture and comes before it.
  test('follows the reading path, not the order of painting', () => {
    expect(order(units(folio, 's2', 'page-2'))).toEqual(['night-words-text-1', 'night-words-text-2', '[night-picture]']);
    expect(order(units(folio, 's2', 'page-3')).slice(0, 3)).toEqual(['[telescope-picture]', 'telescope-caption-text-1', 'dome-feature-1']);
  });
  test('groups are read member by member', () => {
    expect(order(units(folio, 's3', 'page-5')).slice(0, 4)).toEqual(['[moon-a]', '[moon-b]', '[moon-c]', 'moons-caption-text-1']);
  });
  test('what the path does not name follows from the top down', () => {
    const without = produce(folio, (d) => void (d.head.structure.strands = []));
    expect(order(units(without, 's2', 'page-3'))[0]).toBe('[telescope-picture]');
    expect(order(units(without, 's5', 'page-8'))[0]).toBe('diary-text-1');
  });
  test('decorations, hidden layers and roles that are left out are not read', () => {
    const read = folio.head.spreadOrder.flatMap((s) => folio.spreads[s]!.pages.flatMap((p) => order(units(folio, s, p.id)))).join(' ');
    expect(read).not.toMatch(/cover-note|copper|number-page|comet|phase-\d/);
    const reading = readingOfSpread(folio, composition, folio.spreads['s4']!, visible(folio)).get('page-7')!;
    expect(reading.decorations).toContain('comet');
  });
  test('a paragraph that goes on in the next frame is read in two parts that know it', () => {
    const parts = [...units(folio, 's3', 'page-4'), ...units(folio, 's3', 'page-5')].filter(
      (u): u is ParagraphUnit => u.kind === 'paragraph' && u.paragraph === 'dome-feature-16',
    );
    expect(parts.map((p) => [p.begins, p.ends])).toEqual([
      [true, false],
      [false, true],
    ]);
    expect(textOfLines(parts[0]!.lines)).toMatch(/^It goes on in another hand/);
  });
  test('headings come with their level and place', () => {
    const reading = readingOfSpread(folio, composition, folio.spreads['s5']!, visible(folio)).get('page-8')!;
    expect(headingsOf(folio, 'page-8', reading).map((h) => [h.level, h.listed])).toEqual([
      [1, 'Diary'],
      [2, 'How to find us'],
    ]);
  });
  test('a tab is read as a space', () => {
    const line = units(folio, 's5', 'page-8').find((u): u is ParagraphUnit => u.kind === 'paragraph' && u.paragraph === 'diary-text-2');
    expect(textOfLines(line!.lines)).toMatch(/^6 March Open dome night/);
  });
});
