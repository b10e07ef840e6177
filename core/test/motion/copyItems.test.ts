import { describe, expect, test } from '@jest/globals';
import { applyEdit, applyLogged, Clip, copyCues, copyItems, Folio, incoherences, Item, pathOfCopy, readText } from '../../src/index.ts';
import type { Item as AnyItem } from '../../src/index.ts';
import { motionFolio } from '../support/motionFolio.ts';
import { tinyFolio } from '../support/tinyFolio.ts';

const paste = (to: Folio, clip: Clip, as: string, spread = 's') =>
  applyEdit(to, {
    kind: 'items.paste',
    args: { spread, page: to.spreads[spread]!.pages[0]!.id, clip: Clip.parse(JSON.parse(JSON.stringify(clip))), as },
  });
const added = (before: Folio, after: Folio): AnyItem[] =>
  Object.values(after.spreads['s']!.items).filter((i) => !before.spreads['s']!.items[i.id]);

describe('a copy on the same page', () => {
  const before = motionFolio();
  const clip = copyItems(before, before.spreads['s']!, ['sw', 'later']);
  const { folio, inverse } = paste(before, clip, 'k1');

  test('brings what stands on cards, and its cues act on the copy', () => {
    const fresh = added(before, folio);
    expect(fresh.map((i) => i.kind).sort()).toEqual(['shape', 'shape', 'shape', 'switcher']);
    const switcher = fresh.find((i) => i.kind === 'switcher')!;
    const held = switcher.kind === 'switcher' ? switcher.cards.flatMap((c) => c.items) : [];
    expect(held.every((id) => fresh.some((i) => i.id === id))).toBe(true);
    const cue = fresh.flatMap((i) => Object.values(i.cues))[0]!;
    expect(cue.steps[0]).toMatchObject({ do: 'showCard', switcher: switcher.id, card: 'next' });
    expect(incoherences(folio)).toEqual([]);
  });

  test('is taken back whole, and can be put down twice but not twice as the same', () => {
    expect(applyLogged(folio, inverse)).toEqual(before);
    expect(added(before, paste(folio, clip, 'k2').folio)).toHaveLength(8);
    expect(() => paste(folio, clip, 'k1')).toThrow('already');
  });
});

describe('a copy in another document', () => {
  const from = motionFolio();
  const other = Folio.parse(structuredClone(tinyFolio(['There'], { height: 40 })));
  other.spreads['s']!.pages[0]!.box = { x: 0, y: 0, width: 500, height: 500 };

  test('brings texts with words that look like ids as they are, and styles that are not there', () => {
    const source = structuredClone(from);
    source.head.paragraphStyles['only'] = { ...Object.values(source.head.paragraphStyles)[0]!, id: 'only', name: 'Only here' };
    const story = Object.values(source.stories)[0]!;
    const block = Object.values(story.blocks)[0]!;
    if (block.kind !== 'paragraph') throw new Error('a paragraph');
    block.style = 'only';
    block.content = [{ type: 'span', text: 'sw' }];
    const { folio } = paste(other, copyItems(source, source.spreads['s']!, ['f1']), 'k1');
    expect(folio.head.paragraphStyles['only']).toMatchObject({ name: 'Only here' });
    const texts = Object.values(folio.stories).flatMap((s) => s.order.map((id) => readText(s.blocks[id] as never)));
    expect(texts).toContain('sw');
    expect(incoherences(folio)).toEqual([]);
  });

  test('a file is known again by its content, else it comes with the name that its content gives it', () => {
    const file = { id: 'film', name: 'dome.mp4', file: 'media/dome.mp4', mediaType: 'video/mp4', sha256: 'a'.repeat(64), bytes: 10 };
    const source = structuredClone(from);
    source.head.media['film'] = file;
    source.spreads['s']!.items['m'] = Item.parse({
      kind: 'media',
      id: 'm',
      layer: 'l',
      transform: [1, 0, 0, 1, 0, 0],
      size: { width: 9, height: 9 },
      media: 'film',
    });
    source.spreads['s']!.order.push('m');
    const clip = copyItems(source, source.spreads['s']!, ['m']);
    const fresh = paste(other, clip, 'k1').folio;
    expect(fresh.head.media['film']).toMatchObject({ file: pathOfCopy(file), sha256: file.sha256 });
    const there = structuredClone(other);
    there.head.media['film'] = { ...file, sha256: 'b'.repeat(64) };
    there.head.media['same'] = { ...file, id: 'same', file: 'media/same.mp4' };
    const known = paste(there, clip, 'k1').folio;
    expect(added(there, known)[0]).toMatchObject({ media: 'same' });
    expect(Object.keys(known.head.media)).toEqual(['film', 'same']);
  });

  test('cues find what has the same name and kind there; what has none is told to be gone', () => {
    const there = structuredClone(motionFolio());
    const spread = there.spreads['s']!;
    const { sw, ...rest } = spread.items;
    spread.items = { ...rest, turning: { ...sw!, id: 'turning' } };
    spread.order = spread.order.map((id) => (id === 'sw' ? 'turning' : id));
    const copied = copyCues(from, Object.values(from.spreads['s']!.items['later']!.cues));
    const { folio } = applyEdit(there, { kind: 'cues.paste', args: { spread: 's', holder: 'veil', copied, as: 'k1' } });
    expect(Object.values(folio.spreads['s']!.items['veil']!.cues)[0]!.steps[0]).toMatchObject({ switcher: 'turning' });
  });
});

test('a text that flows on is copied with all its frames or not at all', () => {
  const folio = structuredClone(motionFolio());
  const s = folio.spreads['s']!;
  s.items['f2'] = { ...s.items['f1']!, id: 'f2' };
  s.order.push('f2');
  Object.values(folio.stories)[0]!.frames.push({ spread: 's', item: 'f2' });
  expect(() => copyItems(folio, s, ['f1'])).toThrow('flows on');
  expect(copyItems(folio, s, ['f1', 'f2']).order).toEqual(['f1', 'f2']);
});

test('ids that say the same as words of the format are given new names as ids only', () => {
  const folio = structuredClone(motionFolio());
  const s = folio.spreads['s']!;
  // Things that are called as the entries and values of a cue are.
  for (const id of ['when', 'press', 'do', 'go']) {
    s.items[id] = {
      ...s.items['later']!,
      id,
      cues: { [`of-${id}`]: { id: `of-${id}`, trigger: { when: 'press' }, steps: [{ do: 'hide', items: ['press'], after: 0 }] } },
    };
    s.order.push(id);
  }
  const { folio: after } = paste(folio, copyItems(folio, s, ['when', 'press', 'do', 'go']), 'k1');
  const cues = added(folio, after).flatMap((i) => Object.values(i.cues));
  expect(cues).toHaveLength(4);
  for (const cue of cues) {
    expect(cue.trigger).toEqual({ when: 'press' });
    expect(cue.steps[0]).toMatchObject({ do: 'hide', items: [expect.stringMatching(/^press\.k1-/)] });
  }
});

test('what is not called anything is not taken for something else that is not', () => {
  const from = structuredClone(motionFolio());
  delete from.spreads['s']!.items['second']!.alt;
  const cue = { id: 'c', trigger: { when: 'press' as const }, steps: [{ do: 'hide' as const, items: ['second'], after: 0 }] };
  const there = structuredClone(from);
  delete there.spreads['s']!.items['second'];
  const { folio } = applyEdit(there, {
    kind: 'cues.paste',
    args: { spread: 's', holder: 'veil', copied: copyCues(from, [cue]), as: 'k1' },
  });
  expect(Object.values(folio.spreads['s']!.items['veil']!.cues)[0]!.steps[0]).toMatchObject({ items: ['second'] });
});
