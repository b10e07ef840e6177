import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Fragment, Slice } from 'prosemirror-model';
import { EditorState, TextSelection } from 'prosemirror-state';
import type { Transaction } from 'prosemirror-state';
import { baseKeymap, splitBlock } from 'prosemirror-commands';
import { applyEdit, Folio } from '@elastic-folio/core';
import type { Edit } from '@elastic-folio/core';
import { inlineOf, schema, storyToDoc } from '../src/text/proseSchema.ts';
import { transactionTo } from '../src/text/outsideChange.ts';
import { editsOfTransaction } from '../src/text/proseToEdits.ts';
import { grown, windowAround } from '../src/text/textWindow.ts';

function folioOf(paragraphs: string[]): Folio {
  return Folio.parse({
    head: {
      formatVersion: 1,
      id: 'd',
      metadata: {},
      layers: { l: { id: 'l', name: 'L' } },
      layerOrder: ['l'],
      paragraphStyles: { p: { id: 'p', name: 'P' } },
      spreadOrder: ['s'],
      storyOrder: ['t'],
    },
    spreads: { s: { id: 's', pages: [{ id: 'pg', box: { x: 0, y: 0, width: 10, height: 10 } }] } },
    stories: {
      t: {
        id: 't',
        order: paragraphs.map((_, i) => `p${i}`),
        blocks: Object.fromEntries(
          paragraphs.map((text, i) => [
            `p${i}`,
            { kind: 'paragraph', id: `p${i}`, style: 'p', content: text ? [{ type: 'span', text }] : [] },
          ]),
        ),
      },
    },
  });
}

const open = (folio: Folio): EditorState => EditorState.create({ doc: storyToDoc(folio.head, folio.stories['t']!) });

let named = 0;

/** Takes an editor's change over into the document, and checks that both say the same; the editor's paragraphs have their ids then. */
function carryOver(folio: Folio, tr: Transaction): { folio: Folio; state: EditorState; edits: Edit[]; ids: string[] } {
  const { edits, from, ids } = editsOfTransaction('t', tr, () => `n${++named}`);
  const after = edits.reduce((f, e) => applyEdit(f, e).folio, folio);
  const wanted: unknown[] = [];
  tr.doc.forEach((p) => wanted.push(inlineOf(p)));
  const { order, blocks } = after.stories['t']!;
  expect(order.map((id) => (blocks[id] as { content: unknown }).content)).toEqual(wanted);
  expect(ids).toEqual(order.slice(from, from + ids.length));
  let state = EditorState.create({ doc: tr.doc });
  const naming = transactionTo(state, storyToDoc(after.head, after.stories['t']!));
  if (naming) state = state.apply(naming);
  expect(state.doc.toJSON()).toEqual(storyToDoc(after.head, after.stories['t']!).toJSON());
  return { folio: after, state, edits, ids: order };
}

const text = fc.string({ maxLength: 6 }).map((s) => s.replace(/[\r\n\t\uFFFC\uFFFE\uFFFF]/g, 'x'));

describe('a text as it is shown for editing', () => {
  test('each paragraph has its own direction and language, so that the cursor goes as in the layout', () => {
    const folio = folioOf(['abc', 'שלום world']);
    const [first, second] = [folio.stories['t']!.blocks['p0']!, folio.stories['t']!.blocks['p1']!];
    if (first.kind !== 'paragraph' || second.kind !== 'paragraph') throw new Error('These are paragraphs.');
    second.overrides = { direction: 'rtl' };
    second.character = { language: 'he' };
    const { doc } = open(folio);
    const shown = [0, 1].map((i) => schema.nodes.paragraph.spec.toDOM!(doc.child(i)) as [string, Record<string, string>]);
    expect(shown.map(([tag, { dir, lang }]) => [tag, dir, lang])).toEqual([
      ['p', undefined, 'en'],
      ['p', 'rtl', 'he'],
    ]);
    // Showing a text changes nothing in it.
    const state = EditorState.create({ doc });
    expect(transactionTo(state, storyToDoc(folio.head, folio.stories['t']!))).toBeNull();
    expect(editsOfTransaction('t', state.tr.setMeta('x', 1), () => 'x').edits).toEqual([]);
  });
});

describe('an editor’s change becomes edits', () => {
  test('whatever is typed, deleted, split, joined or pasted', () => {
    const change = fc.tuple(fc.nat(), fc.nat(), fc.constantFrom('type', 'delete', 'split', 'paste'), text);
    fc.assert(
      fc.property(
        fc.array(text, { minLength: 1, maxLength: 5 }),
        fc.array(change, { minLength: 1, maxLength: 4 }),
        (paragraphs, changes) => {
          let folio = folioOf(paragraphs);
          let state = open(folio);
          for (const [a, b, what, typed] of changes) {
            const place = (x: number): number => TextSelection.near(state.doc.resolve(x % (state.doc.content.size + 1))).from;
            const [from, to] = [place(a), place(b)].sort((x, y) => x - y) as [number, number];
            let tr = state.tr;
            if (what === 'type' && typed) tr = tr.insertText(typed, from);
            if (what === 'delete') tr = tr.delete(from, to);
            if (what === 'split') tr = tr.split(from);
            if (what === 'paste')
              tr = tr.replace(
                from,
                to,
                new Slice(Fragment.from([schema.node('paragraph', {}, typed ? [schema.text(typed)] : []), schema.node('paragraph')]), 1, 1),
              );
            ({ folio, state } = carryOver(folio, tr));
          }
        },
      ),
      { numRuns: 300 },
    );
  });

  test('one letter is one small edit in one paragraph, whatever order its keys are kept in, and however long the text is', () => {
    const folio = folioOf(['one', 'two', ...Array.from({ length: 500 }, (_, i) => `paragraph ${i}`)]);
    // As a database gives them back: shorter keys first.
    const block = folio.stories['t']!.blocks['p1'] as { content: unknown[] };
    block.content = [{ text: 'two', type: 'span', overrides: { fontStyle: 'italic', fontWeight: 700 } }];
    const other = folio.stories['t']!.blocks['p0'] as { content: unknown[] };
    other.content = [{ text: 'one', type: 'span', overrides: { fontWeight: 700, fontStyle: 'italic' } }];
    const state = open(folio);
    const { edits } = carryOver(folio, state.tr.insertText('x', 7));
    expect(edits).toEqual([
      {
        kind: 'text.replace',
        args: {
          story: 't',
          from: { paragraphId: 'p1', offset: 1 },
          to: { paragraphId: 'p1', offset: 1 },
          content: [[{ type: 'span', text: 'x', overrides: { fontStyle: 'italic', fontWeight: 700 } }]],
          newIds: [],
        },
      },
    ]);
  });

  test('words that stay as they are in every language stay so', () => {
    const folio = folioOf(['Marrowby Hill']);
    (folio.stories['t']!.blocks['p0'] as { content: unknown[] }).content = [
      { type: 'span', text: 'Marrowby', translate: false },
      { type: 'span', text: ' Hill' },
    ];
    const { folio: after } = carryOver(folio, open(folio).tr.insertText('!', 14));
    expect((after.stories['t']!.blocks['p0'] as { content: unknown[] }).content).toEqual([
      { type: 'span', text: 'Marrowby', translate: false },
      { type: 'span', text: ' Hill!' },
    ]);
  });

  test('Enter splits and keeps the id on the first half; Backspace joins and keeps the first', () => {
    const folio = folioOf(['onetwo']);
    let state = open(folio);
    state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, 4)));
    let split = null as ReturnType<typeof carryOver> | null;
    splitBlock(state, (tr) => (split = carryOver(folio, tr)));
    expect(split!.ids).toEqual(['p0', expect.stringMatching(/^n/)]);
    const again = split!.state.apply(split!.state.tr.setSelection(TextSelection.create(split!.state.doc, 6)));
    let joined = null as ReturnType<typeof carryOver> | null;
    baseKeymap['Backspace']!(again, (tr) => (joined = carryOver(split!.folio, tr)));
    expect(joined!.ids).toEqual(['p0']);
  });
});

describe('what changes elsewhere is followed', () => {
  const change = (folio: Folio, ...edits: Edit[]): Folio => edits.reduce((f, e) => applyEdit(f, e).folio, folio);
  const typed = (paragraphId: string, offset: number, text: string, newIds: string[] = []): Edit => ({
    kind: 'text.replace',
    args: {
      story: 't',
      from: { paragraphId, offset },
      to: { paragraphId, offset },
      content: newIds.length ? [[{ type: 'span', text }], []] : [[{ type: 'span', text }]],
      newIds,
    },
  });

  test.each<[string, Edit[], number, number]>([
    ['before the cursor', [typed('p1', 0, 'ab')], 9, 11],
    ['behind the cursor', [typed('p1', 3, 'ab')], 7, 7],
    ['in other paragraphs on both sides', [typed('p0', 0, 'ab'), typed('p2', 0, 'cd')], 7, 9],
    ['a paragraph more before it', [typed('p0', 3, 'ab', ['new'])], 7, 11],
  ])('%s: the cursor stays with its letter', (_, edits, at, then) => {
    const folio = folioOf(['one', 'two', 'three']);
    let state = open(folio);
    state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, at)));
    const after = change(folio, ...edits);
    const doc = storyToDoc(after.head, after.stories['t']!);
    state = state.apply(transactionTo(state, doc)!);
    expect(state.doc.eq(doc)).toBe(true);
    expect(state.selection.from).toBe(then);
  });

  test('any two texts: the one becomes the other', () => {
    const texts = fc.array(text, { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(texts, texts, fc.boolean(), (a, b, sameIds) => {
        const state = open(folioOf(a));
        const other = folioOf(b);
        const { order, blocks } = other.stories['t']!;
        const renamed = sameIds
          ? other.stories['t']!
          : {
              ...other.stories['t']!,
              order: order.map((id) => `${id}x`),
              blocks: Object.fromEntries(order.map((id) => [`${id}x`, { ...blocks[id]!, id: `${id}x` }])),
            };
        const doc = storyToDoc(other.head, renamed);
        const tr = transactionTo(state, doc);
        expect((tr ? state.apply(tr) : state).doc.eq(doc)).toBe(true);
      }),
      { numRuns: 200 },
    );
  });
});

describe('the part of a long text that is shown', () => {
  test('lies around what is chosen, within the text, and grows at both ends up to a limit', () => {
    expect(windowAround(10, 5)).toEqual({ from: 0, to: 10 });
    expect(windowAround(1000, 500)).toEqual({ from: 470, to: 590 });
    expect(windowAround(1000, 999)).toEqual({ from: 880, to: 1000 });
    let window = windowAround(1000, 500);
    window = grown(window, 1000, 'start');
    expect(window).toEqual({ from: 350, to: 590 });
    for (let i = 0; i < 20; i++) window = grown(window, 1000, 'end');
    expect(window).toEqual({ from: 520, to: 1000 });
    for (let i = 0; i < 20; i++) window = grown(window, 1000, 'start');
    expect(window).toEqual({ from: 0, to: 480 });
  });
});
