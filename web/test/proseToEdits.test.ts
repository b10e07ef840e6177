import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Fragment, Slice } from 'prosemirror-model';
import { EditorState, TextSelection } from 'prosemirror-state';
import { baseKeymap, splitBlock } from 'prosemirror-commands';
import { applyEdit, Folio } from '@elastic-folio/core';
import { inlineOf, schema, storyToDoc } from '../src/text/proseSchema.ts';
import { proseToEdits } from '../src/text/proseToEdits.ts';

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

/** Takes an editor's change over into the document, and checks that both say the same. */
function carryOver(folio: Folio, state: EditorState): { folio: Folio; kinds: number; ids: string[] } {
  let n = 0;
  const { edits, ids } = proseToEdits(folio.stories['t']!, state.doc, () => `n${++n}`);
  const after = edits.reduce((f, e) => applyEdit(f, e).folio, folio);
  const wanted: unknown[] = [];
  state.doc.forEach((p) => wanted.push(inlineOf(p)));
  const { order, blocks } = after.stories['t']!;
  expect(order.map((id) => (blocks[id] as { content: unknown }).content)).toEqual(wanted);
  expect(ids).toEqual(order);
  return { folio: after, kinds: edits.length, ids };
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
    expect(proseToEdits(folio.stories['t']!, doc, () => 'x').edits).toEqual([]);
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
          const folio = folioOf(paragraphs);
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
            state = state.apply(tr);
          }
          carryOver(folio, state);
        },
      ),
      { numRuns: 300 },
    );
  });

  test('one letter is one small edit in one paragraph', () => {
    const folio = folioOf(['one', 'two', 'three']);
    const state = open(folio);
    const { edits } = proseToEdits(folio.stories['t']!, state.apply(state.tr.insertText('x', 7)).doc, () => 'n');
    expect(edits).toEqual([
      {
        kind: 'text.replace',
        args: {
          story: 't',
          from: { paragraphId: 'p1', offset: 1 },
          to: { paragraphId: 'p1', offset: 1 },
          content: [[{ type: 'span', text: 'x' }]],
          newIds: [],
        },
      },
    ]);
  });

  test('Enter splits and keeps the id on the first half; Backspace joins and keeps the first', () => {
    const folio = folioOf(['onetwo']);
    let state = open(folio);
    state = state.apply(state.tr.setSelection(TextSelection.create(state.doc, 4)));
    splitBlock(state, (tr) => (state = state.apply(tr)));
    const split = carryOver(folio, state);
    expect(split.ids).toEqual(['p0', 'n1']);
    const again = open(split.folio);
    let joined = again.apply(again.tr.setSelection(TextSelection.create(again.doc, 6)));
    baseKeymap['Backspace']!(joined, (tr) => (joined = joined.apply(tr)));
    expect(carryOver(split.folio, joined).ids).toEqual(['p0']);
  });
});
