import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { contentLength } from '../src/index.ts';
import type { Folio } from '../src/index.ts';
import { Composer, loadFonts } from '../src/compose/index.ts';
import type { FontSet } from '../src/compose/index.ts';
import { shippedFontSource } from '../src/ports/node.ts';
import { flowOf } from '../src/structure/flow.ts';
import type { FlowBlock, FlowSection } from '../src/structure/flow.ts';
import { scopeOf } from '../src/write/scope.ts';
import { sample } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let fonts: FontSet;
let almanac: Folio;
let handbook: Folio;
beforeAll(async () => {
  ({ folio: almanac } = await sample('marrowby-almanac'));
  ({ folio: handbook } = await sample('observers-handbook'));
  fonts = await loadFonts(almanac.head, [await shippedFontSource()]);
});

const flow = (folio: Folio, pages = ''): FlowSection[] => {
  const composition = new Composer(fonts).compose(folio);
  return flowOf(folio, composition, scopeOf(folio, composition, { pages, hiddenLayers: 'out' }));
};
const name = (b: FlowBlock): string => {
  if (b.kind === 'paragraph') return b.paragraph.id;
  if (b.kind === 'table') return `<${b.table.id}>`;
  if (b.kind === 'figure') return `[${[b.item.id, ...b.captions.map((c) => c.paragraph.id)].join(' ')}]`;
  return b.kind === 'box' ? `(${b.blocks.map(name).join(' ')})` : `#${b.page}`;
};
const named = (sections: FlowSection[]): string[] => sections.flatMap((s) => s.blocks.map(name));

describe('a document as it is read on', () => {
  test('a paragraph that runs over two pages is one, and knows where the second begins', () => {
    const found = flow(handbook).flatMap((s) => s.blocks.flatMap((b) => (b.kind === 'paragraph' && b.breaks.length ? [b] : [])));
    expect(found.length).toBeGreaterThan(10);
    for (const { breaks, paragraph } of found)
      for (const { offset } of breaks) {
        expect(offset).toBeGreaterThan(0);
        expect(offset).toBeLessThan(contentLength(paragraph.content));
      }
    expect(named(flow(almanac)).filter((n) => n === 'dome-feature-16')).toHaveLength(1);
  });

  test('captions are part of their figures', () => {
    expect(named(flow(almanac))).toContain('[telescope-picture telescope-caption-text-1]');
  });

  test('sections begin where a style or a mark says so, with the pictures that open their page', () => {
    const starts = (f: Folio): string[] => flow(f).flatMap((s) => s.start?.paragraph.id ?? []);
    const before = starts(almanac);
    const marked = produce(almanac, (d) => void d.head.structure.sectionStarts.push('dome-feature-9'));
    expect(starts(marked)).toEqual(expect.arrayContaining([...before, 'dome-feature-9']));
    const none = produce(almanac, (d) => {
      for (const style of Object.values(d.head.paragraphStyles)) if (style.role) style.role.startsSection = false;
    });
    expect(flow(none)).toHaveLength(1);
  });

  test('every paragraph of the book stands in it once, notes and cells apart', () => {
    const all = named(flow(handbook)).filter((n) => !/^[#<[(]/.test(n));
    expect(new Set(all).size).toBe(all.length);
    expect(all.length).toBeGreaterThan(250);
  });

  test('every page of the layout is marked once, in order', () => {
    const pages = flow(handbook).flatMap((s) =>
      s.blocks.flatMap((b) => (b.kind === 'pageMark' ? [b.page] : b.kind === 'paragraph' ? b.breaks.map((x) => x.page) : [])),
    );
    const wanted = handbook.head.spreadOrder.flatMap((s) => handbook.spreads[s]!.pages.map((p) => p.id));
    expect([...pages].sort()).toEqual([...wanted].sort());
  });

  test('figures anchored in a paragraph of their own stand where that paragraph does', () => {
    const order = named(flow(handbook));
    const at = order.findIndex((n) => n.includes('fig-section'));
    expect(order[at]).toMatch(/^\[\S+ fig-section\]$/);
  });

  test('text that fits no frame is read all the same', () => {
    const long = tinyFolio(['First.', ...Array.from({ length: 40 }, (_, i) => `Paragraph ${i + 2}.`)], { height: 60 });
    expect(named(flow(long)).filter((n) => n.startsWith('p'))).toHaveLength(41);
  });

  test('only what is asked for is in it', () => {
    const part = named(flow(almanac, '2-3'));
    expect(part).toContain('night-words-text-1');
    expect(part).not.toContain('diary-text-1');
    expect(part.join(' ')).not.toMatch(/cover-note/);
  });
});

describe('what is pinned', () => {
  const pin = (as: 'inline' | 'before' | 'after' | 'float', item = 'map-picture', paragraph = 'dome-feature-9'): Folio =>
    produce(almanac, (d) => void (d.head.structure.pins['pin'] = { id: 'pin', item, paragraph, offset: 4, as }));
  const around = (f: Folio, id: string): [string | undefined, string | undefined] => {
    const order = named(flow(f)).filter((n) => !n.startsWith('#'));
    const at = order.indexOf(id);
    return [order[at - 1], order[at + 1]];
  };

  test('stands before or after its paragraph, and nowhere else', () => {
    expect(around(pin('before'), 'dome-feature-9')[0]).toMatch(/^\[map-picture/);
    expect(around(pin('after'), 'dome-feature-9')[1]).toMatch(/^\[map-picture/);
    expect(around(pin('float'), 'dome-feature-9')[0]).toMatch(/^\[map-picture/);
    expect(named(flow(pin('after'))).filter((n) => n.startsWith('[map-picture'))).toHaveLength(1);
  });
  test('stands in the line', () => {
    const block = flow(pin('inline'))
      .flatMap((s) => s.blocks)
      .find((b) => b.kind === 'paragraph' && b.paragraph.id === 'dome-feature-9');
    expect(block).toMatchObject({ inline: [{ offset: 4, figure: { item: { id: 'map-picture' } } }] });
  });
  test('takes a whole box of text along', () => {
    const box = flow(pin('after', 'letter'))
      .flatMap((s) => s.blocks)
      .find((b) => b.kind === 'box');
    expect(box && name(box)).toMatch(/^\(letter-text-1 letter-text-2/);
  });
  test('stays in the path where the place that it is pinned to is not in the output, or is in itself', () => {
    expect(named(flow(pin('after', 'map-picture', 'no-such')))).toEqual(named(flow(almanac)));
    expect(named(flow(pin('after', 'letter', 'letter-text-1')))).toEqual(named(flow(almanac)));
  });
});
