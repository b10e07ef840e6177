import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import {
  applyEdit,
  applyLogged,
  currentParagraph,
  historyOf,
  isGraphemeBoundary,
  mapPlace,
  meets,
  plainText,
  toGraphemeBoundary,
} from '../src/index.ts';
import type { Edit, Folio, Inline, LogRow, Place, TextReplacement } from '../src/index.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const textOf = (folio: Folio): string =>
  folio.stories['t']!.order.map((id) => plainText((folio.stories['t']!.blocks[id] as { content: Inline[] }).content)).join('¶');
const contentOf = (folio: Folio, id: string): string => plainText((folio.stories['t']!.blocks[id] as { content: Inline[] }).content);

const word = fc
  .oneof(fc.string({ maxLength: 8 }), fc.constantFrom('👩‍🚀', 'é', 'ﬁ', 'क्षि', '日本', ''))
  .map((s) => s.replace(/[\n\t\uFFFC¶]/g, 'x'));
const texts = fc.array(word, { minLength: 1, maxLength: 5 });
const at = fc.tuple(fc.nat(), fc.nat());

/** A random, valid replacement in a document of these paragraphs. */
function replacement(folio: Folio, [a, b, pieces]: [[number, number], [number, number], string[]]): TextReplacement {
  const { order } = folio.stories['t']!;
  const place = ([p, o]: [number, number]): Place => {
    const paragraphId = order[p % order.length]!;
    const text = contentOf(folio, paragraphId);
    return { paragraphId, offset: toGraphemeBoundary(text, o % (text.length + 1)) };
  };
  const [x, y] = [place(a), place(b)];
  const before = order.indexOf(x.paragraphId) - order.indexOf(y.paragraphId) || x.offset - y.offset;
  const [from, to] = before <= 0 ? [x, y] : [y, x];
  return {
    from,
    to,
    content: pieces.map((text): Inline[] => (text ? [{ type: 'span', text }] : [])),
    newIds: pieces.slice(1).map((_, i) => `n${i}`),
  };
}

describe('places in text', () => {
  test('a replacement does to the whole text what it says', () => {
    fc.assert(
      fc.property(texts, fc.tuple(at, at, fc.array(word, { minLength: 1, maxLength: 3 })), (paragraphs, input) => {
        const folio = tinyFolio(paragraphs);
        const edit = replacement(folio, input);
        const { folio: after } = applyEdit(folio, { kind: 'text.replace', args: { story: 't', ...edit } });
        const { order } = folio.stories['t']!;
        const flat = (p: Place): number =>
          order.slice(0, order.indexOf(p.paragraphId)).reduce((n, id) => n + contentOf(folio, id).length + 1, 0) + p.offset;
        const whole = textOf(folio);
        expect(textOf(after)).toBe(whole.slice(0, flat(edit.from)) + edit.content.map(plainText).join('¶') + whole.slice(flat(edit.to)));
        expect(after.stories['t']!.order[order.indexOf(edit.from.paragraphId)]).toBe(edit.from.paragraphId);
      }),
    );
  });

  test('every place outside the replaced text keeps the letter behind it', () => {
    fc.assert(
      fc.property(texts, fc.tuple(at, at, fc.array(word, { minLength: 1, maxLength: 3 })), at, (paragraphs, input, [p, o]) => {
        const folio = tinyFolio(paragraphs);
        const edit = replacement(folio, input);
        const { order } = folio.stories['t']!;
        const paragraphId = order[p % order.length]!;
        const text = contentOf(folio, paragraphId);
        const place = { paragraphId, offset: toGraphemeBoundary(text, o % (text.length + 1)) };
        const { folio: after } = applyEdit(folio, { kind: 'text.replace', args: { story: 't', ...edit } });
        const mapped = mapPlace(place, edit, order);
        const newText = contentOf(after, mapped.paragraphId);
        expect(mapped.offset).toBeGreaterThanOrEqual(0);
        expect(mapped.offset).toBeLessThanOrEqual(newText.length);
        const position = (q: Place): number => order.indexOf(q.paragraphId) * 1e6 + q.offset;
        if (position(place) >= position(edit.to)) expect(newText.slice(mapped.offset)).toBe(text.slice(place.offset));
        if (position(place) < position(edit.from)) expect(newText.slice(0, mapped.offset)).toBe(text.slice(0, place.offset));
      }),
    );
  });

  test('what is pinned stays behind its words, or at its paragraph, also where paragraphs become one', () => {
    const pinned = (as: 'inline' | 'after', paragraph: string, offset: number) =>
      produce(tinyFolio(['one two', 'three']), (d) => {
        d.head.structure.pins['x'] = { id: 'x', item: 'f', paragraph, offset, as };
      });
    const edited = (folio: Folio, from: [string, number], to: [string, number], content: Inline[][] = [[]]) => {
      const place = ([paragraphId, offset]: [string, number]) => ({ paragraphId, offset });
      const args = { story: 't', from: place(from), to: place(to), content, newIds: [] };
      const { paragraph, offset } = applyEdit(folio, { kind: 'text.replace', args }).folio.head.structure.pins['x']!;
      return [paragraph, offset];
    };
    const words: Inline[][] = [[{ type: 'span', text: 'then ' }]];
    expect(edited(pinned('inline', 'p1', 3), ['p1', 0], ['p1', 0], words)).toEqual(['p1', 8]);
    expect(edited(pinned('inline', 'p1', 3), ['p1', 3], ['p1', 3], words)).toEqual(['p1', 3]);
    expect(edited(pinned('inline', 'p2', 2), ['p1', 7], ['p2', 0])).toEqual(['p1', 9]);
    expect(edited(pinned('after', 'p1', 0), ['p1', 0], ['p1', 0], words)).toEqual(['p1', 0]);
    expect(edited(pinned('after', 'p2', 0), ['p1', 7], ['p2', 0])).toEqual(['p1', 0]);
    // Nothing of the structure is touched where nothing of it moves.
    const args = { story: 't', from: { paragraphId: 'p1', offset: 5 }, to: { paragraphId: 'p1', offset: 5 }, content: words, newIds: [] };
    expect(applyEdit(pinned('inline', 'p1', 3), { kind: 'text.replace', args }).touched).toEqual(['p1/content']);
  });

  test('offsets between the parts of one character are moved to its beginning', () => {
    expect(isGraphemeBoundary('a👩‍🚀b', 2)).toBe(false);
    expect(toGraphemeBoundary('a👩‍🚀b', 3)).toBe(1);
  });

  test('merging keeps the first paragraph and leaves an alias for the other', () => {
    const folio = tinyFolio(['one', 'two']);
    const { folio: after } = applyEdit(folio, {
      kind: 'text.replace',
      args: { story: 't', from: { paragraphId: 'p1', offset: 3 }, to: { paragraphId: 'p2', offset: 0 }, content: [[]], newIds: [] },
    });
    expect(textOf(after)).toBe('onetwo');
    expect(currentParagraph(after.stories['t']!, 'p2')).toBe('p1');
  });
});

describe('edits and their log', () => {
  const type = (paragraphId: string, text: string, offset = 0): Edit => ({
    kind: 'text.replace',
    args: { story: 't', from: { paragraphId, offset }, to: { paragraphId, offset }, content: [[{ type: 'span', text }]], newIds: [] },
  });

  test('the inverse brings back the same document', () => {
    fc.assert(
      fc.property(
        texts,
        fc.array(fc.tuple(at, at, fc.array(word, { minLength: 1, maxLength: 3 })), { minLength: 1, maxLength: 4 }),
        (paragraphs, inputs) => {
          const folio = tinyFolio(paragraphs);
          let now = folio;
          const inverses: LogRow['inverse'][] = [];
          inputs.forEach((input, i) => {
            const edit = replacement(now, input);
            const applied = applyEdit(now, {
              kind: 'text.replace',
              args: { story: 't', ...edit, newIds: edit.newIds.map((id) => `${id}-${i}`) },
            });
            now = applied.folio;
            inverses.unshift(applied.inverse);
          });
          expect(inverses.reduce((f, inverse) => applyLogged(f, inverse), now)).toEqual(folio);
        },
      ),
      { numRuns: 50 },
    );
  });

  test('patches alone lead another copy to the same document', () => {
    const folio = tinyFolio(['one', 'two']);
    const { folio: after, patches } = applyEdit(folio, type('p1', 'x'));
    expect(applyLogged(folio, JSON.parse(JSON.stringify(patches)) as LogRow['patches'])).toEqual(after);
  });

  test('writing in two paragraphs does not meet, writing in one does', () => {
    const folio = tinyFolio(['one', 'two']);
    const [a, b, c] = [applyEdit(folio, type('p1', 'x')), applyEdit(folio, type('p2', 'y')), applyEdit(folio, type('p1', 'z'))];
    const row = { seq: 5, touched: a.touched };
    expect(meets([row], 4, b.touched)).toEqual([]);
    expect(meets([row], 4, c.touched)).toEqual([5]);
    expect(meets([row], 5, c.touched)).toEqual([]);
  });

  test('bursts are undone together; undoing the undoing brings them back; others’ rows are left alone', () => {
    const row = (seq: number, actor: string, group: string, rows?: number[]): LogRow => ({
      seq,
      base: seq - 1,
      actor,
      at: '',
      group,
      edit: rows ? { kind: 'undo', args: { rows } } : type('p1', 'x'),
      patches: [],
      inverse: [],
      touched: [],
    });
    const log = [row(1, 'me', 'a'), row(2, 'me', 'a'), row(3, 'you', 'b'), row(4, 'me', 'c')];
    expect(historyOf(log, 'me')).toEqual({ undo: [[1, 2], [4]], redo: [] });
    const undone = [...log, row(5, 'me', 'u', [4])];
    expect(historyOf(undone, 'me')).toEqual({ undo: [[1, 2]], redo: [[5]] });
    expect(historyOf([...undone, row(6, 'me', 'v', [5])], 'me')).toEqual({ undo: [[1, 2], [6]], redo: [] });
    expect(historyOf([...undone, row(6, 'me', 'w')], 'me').redo).toEqual([]);
  });

  test.each([
    [
      {
        kind: 'text.replace',
        args: { story: 't', from: { paragraphId: 'gone', offset: 0 }, to: { paragraphId: 'gone', offset: 0 }, content: [[]], newIds: [] },
      },
      /no paragraph/,
    ],
    [
      {
        kind: 'text.replace',
        args: { story: 't', from: { paragraphId: 'p2', offset: 0 }, to: { paragraphId: 'p1', offset: 0 }, content: [[]], newIds: [] },
      },
      /must follow/,
    ],
    [
      {
        kind: 'text.replace',
        args: { story: 't', from: { paragraphId: 'p1', offset: 0 }, to: { paragraphId: 'p1', offset: 0 }, content: [[], []], newIds: [] },
      },
      /every new paragraph/,
    ],
    [{ kind: 'style.role', args: { style: 'none', role: { element: 'h1' } } }, /not in the document/],
  ] as [Edit, RegExp][])('an impossible edit is refused in words: %#', (edit, says) => {
    expect(() => applyEdit(tinyFolio(['one', 'two']), edit)).toThrow(says);
  });
});
