import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import { applyEdit, applyLogged, plainText, rebaseEdits } from '../src/index.ts';
import type { Edit, Folio, Inline, LogRow, Rebased } from '../src/index.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const span = (text: string): Inline[] => (text ? [{ type: 'span', text }] : []);
const replace = (from: [string, number], to: [string, number], content: string[], newIds: string[] = []): Edit => ({
  kind: 'text.replace',
  args: {
    story: 't',
    from: { paragraphId: from[0], offset: from[1] },
    to: { paragraphId: to[0], offset: to[1] },
    content: content.map(span),
    newIds,
  },
});
const type = (paragraph: string, offset: number, text: string): Edit => replace([paragraph, offset], [paragraph, offset], [text]);
const cut = (paragraph: string, from: number, to: number): Edit => replace([paragraph, from], [paragraph, to], ['']);

/** Rows as the log has them, from edits made one after another. */
function rowsOf(base: Folio, edits: readonly Edit[]): LogRow[] {
  let now = base;
  return edits.map((edit, i) => {
    const { folio, patches, inverse, touched } = applyEdit(now, edit);
    now = folio;
    // As they come out of a database.
    return JSON.parse(JSON.stringify({ seq: i + 1, base: 0, actor: 'ben', at: '', group: 'b', edit, patches, inverse, touched })) as LogRow;
  });
}
const textsOf = (folio: Folio): string[] =>
  folio.stories['t']!.order.map((id) => plainText((folio.stories['t']!.blocks[id] as { content: Inline[] }).content));
const applied = (folio: Folio, edits: readonly Edit[]): Folio => edits.reduce((f, e) => applyEdit(f, e).folio, folio);

function merged(base: Folio, theirs: readonly Edit[], mine: readonly Edit[]): { texts: string[]; outcomes: Rebased[]; folio: Folio } {
  const rows = rowsOf(base, theirs);
  const { folio, outcomes } = rebaseEdits(base, rows, mine);
  // What is given as edits leads to the document that is given.
  const there = rows.reduce((f, r) => applyLogged(f, r.patches), base);
  const edits = outcomes.flatMap((o) => (o.outcome === 'kept' ? o.edits : []));
  expect(edits.reduce((f, e) => applyEdit(f, e.edit).folio, there)).toEqual(folio);
  return { texts: textsOf(folio), outcomes, folio };
}

describe('two people in one paragraph', () => {
  const base = tinyFolio(['The dome turns.', 'Stars rise.', '']);
  test.each<[string, Edit[], Edit[], string[]]>([
    [
      'typing at different places',
      [type('p1', 4, 'old ')],
      [type('p1', 15, ' Slowly.')],
      ['The old dome turns. Slowly.', 'Stars rise.', ''],
    ],
    [
      'typing at the same place: one after the other',
      [type('p1', 8, ' AB')],
      [type('p1', 8, 'x'), type('p1', 9, 'y')],
      ['The dome ABxy turns.', 'Stars rise.', ''],
    ],
    ['typing inside what the other deletes', [cut('p1', 4, 9)], [type('p1', 6, 'XY')], ['The XYturns.', 'Stars rise.', '']],
    ['deleting around what the other types', [type('p1', 6, 'XY')], [cut('p1', 4, 9)], ['The XYturns.', 'Stars rise.', '']],
    [
      'writing over a word in which the other types',
      [type('p1', 6, 'XY')],
      [replace(['p1', 4], ['p1', 8], ['roof'])],
      ['The roofXY turns.', 'Stars rise.', ''],
    ],
    ['deleting the same words', [cut('p1', 3, 8)], [cut('p1', 6, 14)], ['The.', 'Stars rise.', '']],
    [
      'splitting and typing behind',
      [replace(['p1', 8], ['p1', 8], ['', ''], ['n1'])],
      [type('p1', 15, '!')],
      ['The dome', ' turns.!', 'Stars rise.', ''],
    ],
    [
      'splitting at one place',
      [replace(['p1', 8], ['p1', 8], ['', ''], ['n1'])],
      [replace(['p1', 8], ['p1', 8], ['', ''], ['m1'])],
      ['The dome', '', ' turns.', 'Stars rise.', ''],
    ],
    [
      'joining and typing in the second',
      [replace(['p1', 15], ['p2', 0], [''])],
      [type('p2', 5, ' will')],
      ['The dome turns.Stars will rise.', ''],
    ],
    [
      'typing at the end, where the other goes on with a new paragraph',
      [replace(['p1', 15], ['p1', 15], ['', 'New'], ['n1'])],
      [type('p1', 15, ' More.')],
      ['The dome turns. More.', 'New', 'Stars rise.', ''],
    ],
    [
      'two paragraphs are split at the same time',
      [replace(['p2', 5], ['p2', 5], ['', ''], ['n1'])],
      [replace(['p1', 3], ['p1', 3], ['', ''], ['m1'])],
      ['The', ' dome turns.', 'Stars', ' rise.', ''],
    ],
  ])('%s', (_, theirs, mine, texts) => {
    const result = merged(base, theirs, mine);
    expect(result.texts).toEqual(texts);
    expect(result.outcomes.every((o) => o.outcome === 'kept')).toBe(true);
  });

  test('what was typed into a paragraph that the other deleted is refused and given back, with all that was typed into it', () => {
    const { texts, outcomes } = merged(
      base,
      [replace(['p1', 15], ['p2', 11], [''])],
      [type('p2', 5, ' will'), type('p2', 10, ' soon'), type('p1', 0, '*')],
    );
    expect(texts).toEqual(['*The dome turns.', '']);
    expect(outcomes.map((o) => (o.outcome === 'refused' ? [o.text, o.by] : 'kept'))).toEqual([[' will', [1]], [' soon', [1]], 'kept']);
  });

  test('deleting what is gone already is nothing to do', () => {
    const { outcomes } = merged(base, [cut('p1', 3, 8)], [cut('p1', 4, 6)]);
    expect(outcomes).toEqual([{ outcome: 'kept', edits: [] }]);
  });

  test('rows of which only the outcome is known are followed: undoing somebody’s typing', () => {
    const typed = rowsOf(base, [type('p1', 4, 'old ')]);
    const there = applyLogged(base, typed[0]!.patches);
    const undone: LogRow = {
      ...typed[0]!,
      edit: { kind: 'undo', args: { rows: [1] } },
      patches: typed[0]!.inverse,
      inverse: typed[0]!.patches,
    };
    const { folio, outcomes } = rebaseEdits(there, [undone], [type('p1', 12, ' there'), type('p1', 6, 'X')]);
    expect(textsOf(folio)[0]).toBe('The Xdome there turns.');
    expect(outcomes.map((o) => o.outcome)).toEqual(['kept', 'kept']);
  });

  test('words that are marked are the same words, wherever they are now', () => {
    const german: Edit = { kind: 'words.language', args: { story: 't', paragraph: 'p1', from: 4, to: 8, language: 'de' } };
    const { folio } = merged(base, [type('p1', 0, 'Look: '), type('p1', 12, '-')], [german]);
    expect((folio.stories['t']!.blocks['p1'] as { content: Inline[] }).content).toEqual([
      { type: 'span', text: 'Look: The ' },
      { type: 'span', text: 'do-me', overrides: { language: 'de' } },
      { type: 'span', text: ' turns.' },
    ]);
  });

  test('a pin stands behind the same letter', () => {
    const pin: Edit = { kind: 'pin.set', args: { id: 'x', item: 'f1', paragraph: 'p1', offset: 8, as: 'inline' } };
    expect(merged(base, [type('p1', 0, 'Look: ')], [pin]).folio.head.structure.pins['x']?.offset).toBe(14);
  });

  test('a cell and a note are texts of their own', () => {
    const withNote = produce(base, (d) => {
      const { blocks } = d.stories['t']!;
      (blocks['p2'] as { content: Inline[] }).content.push({ type: 'note', id: 'n', kind: 'footnote', order: ['np'] });
      blocks['np'] = { kind: 'paragraph', id: 'np', style: 'p', content: span('See the map.') };
    });
    const { folio } = merged(withNote, [type('np', 0, 'Note: '), type('p2', 5, '!')], [type('np', 12, ' Twice.'), type('p2', 0, '*')]);
    const text = (id: string): string => plainText((folio.stories['t']!.blocks[id] as { content: Inline[] }).content);
    expect([text('np'), text('p2')]).toEqual(['Note: See the map. Twice.', '*Stars! rise.\uFFFC']);
  });
});

describe('edits of other things', () => {
  const base = produce(tinyFolio(['one', 'two']), (d) => {
    d.head.paragraphStyles['q'] = { id: 'q', name: 'Quiet', paragraph: {}, character: {} };
    d.head.paragraphStyles['r'] = { id: 'r', name: 'Loud', paragraph: {}, character: {} };
  });
  const style = (s: string): Edit => ({ kind: 'paragraph.style', args: { story: 't', paragraph: 'p1', style: s } });
  const title = (t: string): Edit => ({ kind: 'document.metadata', args: { title: t } });
  const outcomes = (theirs: Edit[], mine: Edit[]): string[] => merged(base, theirs, mine).outcomes.map((o) => o.outcome);

  test.each<[string, Edit[], Edit[], string[]]>([
    ['the same field twice', [title('A')], [title('B')], ['refused']],
    ['two fields of one thing', [title('A')], [{ kind: 'document.metadata', args: { description: 'B' } }], ['kept']],
    ['a paragraph’s style and its words', [type('p1', 0, 'x')], [style('q')], ['kept']],
    ['a paragraph’s style twice', [style('q')], [style('r')], ['refused']],
    [
      'the style of a paragraph that went',
      [replace(['p1', 0], ['p2', 0], [''])],
      [{ kind: 'paragraph.style', args: { story: 't', paragraph: 'p2', style: 'q' } }],
      ['refused'],
    ],
    [
      'two entries of one list',
      [{ kind: 'item.leftOut', args: { item: 'f1', leftOut: true } }],
      [{ kind: 'item.leftOut', args: { item: 'f2', leftOut: true } }],
      ['kept'],
    ],
    [
      'the same change twice',
      [{ kind: 'item.leftOut', args: { item: 'f1', leftOut: true } }],
      [{ kind: 'item.leftOut', args: { item: 'f1', leftOut: true } }],
      ['kept'],
    ],
    ['one of several changes meets', [title('A')], [type('p1', 0, 'x'), title('B'), type('p2', 0, 'y')], ['kept', 'refused', 'kept']],
  ])('%s', (_, theirs, mine, expected) => expect(outcomes(theirs, mine)).toEqual(expected));

  test('both entries of a list are in it', () => {
    const left = (item: string): Edit => ({ kind: 'item.leftOut', args: { item, leftOut: true } });
    expect(merged(base, [left('f1')], [left('f2')]).folio.head.structure.leftOut).toEqual(['f1', 'f2']);
  });
});

/** What one person does at random: letters of their own are typed, ranges deleted, paragraphs split and joined. */
const doing = fc.array(
  fc.tuple(fc.constantFrom('type', 'type', 'type', 'cut', 'split', 'join'), fc.nat(), fc.nat(), fc.integer({ min: 1, max: 4 })),
  { minLength: 1, maxLength: 8 },
);
type Doing = [string, number, number, number][];

function perform(base: Folio, what: Doing, letters: string, name: string): Edit[] {
  let now = base;
  let n = 0;
  return what.flatMap(([kind, a, b, many]): Edit[] => {
    const { order, blocks } = now.stories['t']!;
    const paragraph = order[a % order.length]!;
    const length = plainText((blocks[paragraph] as { content: Inline[] }).content).length;
    const at = b % (length + 1);
    const next = order[(a % order.length) + 1];
    const typed = Array.from({ length: many }, () => letters[n++ % letters.length]!).join('');
    const edit =
      kind === 'type'
        ? type(paragraph, at, typed)
        : kind === 'cut'
          ? cut(paragraph, at, Math.min(length, at + many))
          : kind === 'split'
            ? replace([paragraph, at], [paragraph, at], ['', ''], [`${name}${n++}`])
            : next && replace([paragraph, length], [next, 0], ['']);
    if (!edit) return [];
    now = applyEdit(now, edit).folio;
    return [edit];
  });
}

describe('whatever two people do', () => {
  // Every letter stands for itself: nobody’s letters occur in another’s.
  const OURS = 'abcdefghijklmnopqrstuvwxyz';
  const THEIRS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
  const BASE = ['0123', '45', '6789'];
  const of = (texts: readonly string[], letters: string): string =>
    texts
      .join('')
      .split('')
      .filter((c) => letters.includes(c))
      .join('');

  test('the letters of each are there, in their order, save for what was refused; what either deleted of the text is gone', () => {
    fc.assert(
      fc.property(doing, doing, (a, b) => {
        const base = tinyFolio(BASE);
        const [theirs, mine] = [perform(base, a as Doing, THEIRS, 'b'), perform(base, b as Doing, OURS, 'a')];
        const { texts, outcomes } = merged(base, theirs, mine);
        const [theirsAlone, mineAlone] = [textsOf(applied(base, theirs)), textsOf(applied(base, mine))];
        const digits = BASE.join('')
          .split('')
          .filter((c) => theirsAlone.join('').includes(c) && mineAlone.join('').includes(c));
        expect(of(texts, '0123456789')).toBe(digits.join(''));
        expect(of(texts, THEIRS)).toBe(of(theirsAlone, THEIRS));
        if (outcomes.every((o) => o.outcome === 'kept')) expect(of(texts, OURS)).toBe(of(mineAlone, OURS));
        else {
          const lost = outcomes.flatMap((o) => (o.outcome === 'refused' ? o.text.split('') : []));
          const kept = of(mineAlone, OURS)
            .split('')
            .filter((c) => !lost.includes(c) || of(texts, OURS).includes(c));
          expect(of(texts, OURS)).toBe(kept.join(''));
        }
      }),
      { numRuns: 150 },
    );
  });

  test('where nobody meets anybody it is as if they had come one after the other', () => {
    fc.assert(
      fc.property(doing, doing, (a, b) => {
        const base = tinyFolio(['0123', '45', '6789', 'fence', 'abcd', 'ef']);
        const within = (folio: Folio, ids: string[], what: Doing, letters: string, name: string): Edit[] =>
          perform(
            produce(folio, (d) => void (d.stories['t']!.order = ids)),
            what,
            letters,
            name,
          );
        const theirs = within(base, ['p1', 'p2', 'p3'], a as Doing, THEIRS, 'b');
        const mine = within(base, ['p5', 'p6'], b as Doing, '+-*/', 'a');
        expect(merged(base, theirs, mine).texts).toEqual(textsOf(applied(applied(base, theirs), mine)));
      }),
      { numRuns: 80 },
    );
  });
});
