import { describe, expect, test } from '@jest/globals';
import { applyEdit, Folio } from '@elastic-folio/core';
import { repairOf } from '../src/stages/repairs.ts';

/** Texts in styles that are headings of these levels, each once; the size of the type goes down with the level. */
function headings(...elements: (string | null)[]): Folio {
  const style = (i: number, element: string | null) => ({
    id: `st${i}`,
    name: `Style ${i}`,
    character: { fontFamily: 'Work Sans', size: element === null ? 30 - 6 * i : 10, leading: 12 },
    ...(element !== null && { role: { element } }),
  });
  const ids = elements.map((_, i) => `p${i}`);
  return Folio.parse({
    head: {
      formatVersion: 1,
      id: 'headings',
      metadata: { title: 'Headings', language: 'en' },
      layers: { l: { id: 'l', name: 'Layer' } },
      layerOrder: ['l'],
      paragraphStyles: {
        ...Object.fromEntries(elements.map((e, i) => [`st${i}`, style(i, e)])),
        body: { id: 'body', name: 'Body', character: { fontFamily: 'Work Sans', size: 10, leading: 12 } },
      },
      spreadOrder: ['s'],
      storyOrder: ['t'],
    },
    spreads: {
      s: {
        id: 's',
        pages: [{ id: 'pg', box: { x: 0, y: 0, width: 595, height: 842 } }],
        items: { f: { kind: 'textFrame', id: 'f', layer: 'l', transform: [1, 0, 0, 1, 10, 10], size: { width: 500, height: 800 } } },
        order: ['f'],
      },
    },
    stories: {
      t: {
        id: 't',
        frames: [{ spread: 's', item: 'f' }],
        order: ids.flatMap((id) => [id, `${id}-body`]),
        blocks: Object.fromEntries(
          ids.flatMap((id, i) => [
            [id, { kind: 'paragraph', id, style: `st${i}`, content: [{ type: 'span', text: `Number ${i}` }] }],
            [
              `${id}-body`,
              {
                kind: 'paragraph',
                id: `${id}-body`,
                style: 'body',
                content: [{ type: 'span', text: 'Words enough to be a text. '.repeat(20) }],
              },
            ],
          ]),
        ),
      },
    },
    editions: {},
    recipes: {},
  });
}
const after = (folio: Folio, code: string): string[] => {
  const repair = repairOf({ code, says: '' } as never, folio)!;
  const mended = repair.edits.reduce((f, e) => applyEdit(f, e).folio, folio);
  return [repair.label, ...Object.values(mended.head.paragraphStyles).map((s) => s.role?.element ?? '')];
};

describe('the repair of headings', () => {
  test('that skip a level closes the gap', () => {
    expect(after(headings('h1', 'h4', 'h6'), 'heading.skip')).toEqual(['Close the gap', 'h1', 'h2', 'h3', '']);
  });
  test('that begin below the first level begins them there', () => {
    expect(after(headings('h3', 'h4'), 'heading.none')).toEqual(['Close the gap', 'h1', 'h2', '']);
  });
  test('where there are none makes one of the style that looks like it', () => {
    expect(after(headings(null, 'p'), 'heading.none')).toEqual(['Make “Style 0” the first level', 'h1', 'p', '']);
  });
  test('is none where nothing looks like a heading', () => {
    expect(repairOf({ code: 'heading.none', says: '' } as never, headings('p'))).toBeNull();
  });
});
