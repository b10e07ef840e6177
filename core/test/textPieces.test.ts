import { describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Composer } from '../src/compose/index.ts';
import { pagesOf } from '../src/index.ts';
import type { Folio, Paragraph, TextFrame } from '../src/index.ts';
import { textPieces } from '../src/structure/textPieces.ts';
import type { TextPiece, WordsPiece } from '../src/structure/textPieces.ts';
import { lookPage, square } from './support/looks.ts';
import { fontsOf } from './support/samples.ts';
import { grid, tableFolio } from './support/tableFolio.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const LONG = Array.from(
  { length: 8 },
  (_, i) => `Paragraph ${i + 1} of a text that goes on and on, so that it fills more than one column of its frame.`,
);
async function piecesOf(folio: Folio): Promise<ReadonlyMap<string, readonly TextPiece[]>> {
  const composition = new Composer(await fontsOf(folio)).compose(folio);
  return textPieces(folio, composition, { pages: pagesOf(folio), shown: () => true });
}
const wordsOf = (piece: TextPiece | undefined): string =>
  piece?.kind === 'words'
    ? piece.blocks
        .map(({ block }) => (block.kind === 'paragraph' ? block.content.map((n) => (n.type === 'span' ? n.text : '')).join('') : ''))
        .join('|')
    : '';
const frameOf = (d: Folio): TextFrame => d.spreads['s']!.items['f1'] as TextFrame;

describe('a frame of words alone', () => {
  test('is one piece as large as the room inside it, and stands where its text stands', async () => {
    const folio = produce(tinyFolio(['One', 'Two'], { width: 200, height: 300 }), (d) => {
      frameOf(d).inset = [10, 20, 30, 40];
      frameOf(d).verticalAlign = 'bottom';
    });
    const [piece, ...more] = (await piecesOf(folio)).get('f1')!;
    expect(more).toEqual([]);
    // 200 less 20 and 40, 300 less 10 and 30.
    expect(piece).toMatchObject({ kind: 'words', rect: { x: 40, y: 10, width: 140, height: 260 }, align: 'bottom', page: 'pg' });
    expect(wordsOf(piece)).toBe('One|Two');
  });
  test('ends with its frame: a paragraph that goes on is cut, without a line or a letter twice', async () => {
    const pieces = await piecesOf(tinyFolio(LONG, { width: 200, height: 70, frames: 3 }));
    const all = ['f1', 'f2', 'f3'].flatMap((f) => (pieces.get(f) ?? []) as WordsPiece[]);
    expect(all.length).toBe(3);
    const said = all.map(wordsOf).join('|').replace(/\s+/g, ' ');
    for (const n of [1, 2, 3]) expect(said.split(`Paragraph ${n} of`)).toHaveLength(2);
    const cut = all.flatMap((p) => p.blocks).filter((b) => !b.begins || !b.ends);
    expect(cut.length).toBeGreaterThan(0);
    for (const b of cut) expect(b.lines!.length).toBeGreaterThan(0);
    // What goes on has no first line, no room above it and no number.
    for (const b of cut.filter((c) => !c.begins))
      expect((b.block as Paragraph).overrides).toMatchObject({ firstLineIndent: 0, spaceBefore: 0, list: null, dropCapital: null });
  });
});

describe('columns', () => {
  test('that fill one after another are one piece of as many columns', async () => {
    const folio = produce(tinyFolio(LONG, { width: 420, height: 140 }), (d) => void Object.assign(frameOf(d), { columns: 2, gutter: 20 }));
    const list = (await piecesOf(folio)).get('f1')!;
    expect(list).toHaveLength(1);
    expect(list[0]).toMatchObject({ columns: { count: 2, gutter: 20 }, rect: { x: 0, y: 0, width: 420, height: 140 } });
  });
  test('that are balanced are pieces of their own, side by side', async () => {
    const folio = produce(
      tinyFolio(LONG, { width: 420, height: 400 }),
      (d) => void Object.assign(frameOf(d), { columns: 2, gutter: 20, balance: true }),
    );
    const list = (await piecesOf(folio)).get('f1')!;
    expect(list.map((p) => p.rect.x)).toEqual([0, 220]);
    expect(list.map((p) => p.rect.width)).toEqual([200, 200]);
  });
  test('that begin anew where a paragraph asks for it do not fill one another', async () => {
    const folio = produce(tinyFolio(['Left', 'Right'], { width: 420, height: 400 }), (d) => {
      Object.assign(frameOf(d), { columns: 2, gutter: 20 });
      (d.stories['t']!.blocks['p2'] as Paragraph).overrides = { breakBefore: 'column' };
    });
    const list = (await piecesOf(folio)).get('f1')!;
    expect(list.map(wordsOf)).toEqual(['Left', 'Right']);
    expect(list[1]!.rect.x).toBe(220);
  });
});

describe('what stands beside words', () => {
  test('a table is a piece of its own between two texts, with its rows and columns as they were set', async () => {
    const table = tableFolio(
      [
        { width: 60, unit: 'pt' },
        { width: 90, unit: 'pt' },
      ],
      [{ height: 20 }, { height: 30 }],
      grid(2, 2),
      {},
      { width: 200, height: 300 },
    );
    const folio = produce(table, (d) => {
      const story = d.stories['t']!;
      for (const id of ['before', 'after']) story.blocks[id] = { kind: 'paragraph', id, style: 'p', content: [{ type: 'span', text: id }] };
      story.order = ['before', 'tb', 'after'];
    });
    const list = (await piecesOf(folio)).get('f1')!;
    expect(list.map((p) => (p.kind === 'table' ? 'table' : wordsOf(p)))).toEqual(['before', 'table', 'after']);
    const [before, middle, after] = list;
    expect(middle).toMatchObject({ widths: [60, 90], begins: true });
    expect(middle!.kind === 'table' && middle!.heights[0]).toBeGreaterThanOrEqual(20);
    expect(middle!.kind === 'table' && middle!.heights[1]).toBeGreaterThanOrEqual(30);
    expect(middle!.rect.y).toBeGreaterThanOrEqual(before!.rect.y + 11);
    expect(after!.rect.y).toBeGreaterThan(middle!.rect.y + middle!.rect.height - 1);
  });
  test('merged cells leave widths and heights as they are', async () => {
    const cells = [
      { row: 0, column: 0, columns: 2, text: 'over both' },
      { row: 1, column: 0, text: 'left' },
      { row: 1, column: 1, text: 'right' },
    ];
    const list = (
      await piecesOf(
        tableFolio(
          [
            { width: 50, unit: 'pt' },
            { width: 70, unit: 'pt' },
          ],
          [{ height: 20 }, { height: 25 }],
          cells,
        ),
      )
    ).get('f1')!;
    expect(list).toHaveLength(1);
    expect(list[0]).toMatchObject({ kind: 'table', widths: [50, 70], rect: { width: 120 } });
  });
  test('a note is a piece at the foot, with the number by which the text refers to it', async () => {
    const folio = produce(
      tinyFolio(
        [
          [
            { type: 'span', text: 'Text' },
            { type: 'note', id: 'n', kind: 'footnote', order: ['np'] },
          ],
        ],
        { height: 200 },
      ),
      (d) => void (d.stories['t']!.blocks['np'] = { kind: 'paragraph', id: 'np', style: 'p', content: [{ type: 'span', text: 'A note' }] }),
    );
    const list = (await piecesOf(folio)).get('f1')! as WordsPiece[];
    expect(list.map(wordsOf)).toEqual(['Text', 'A note']);
    expect(list[1]!.note).toEqual({ number: '1' });
    expect(list[1]!.rect.y).toBeGreaterThan(150);
    // The text above it does not reach down to it.
    expect(list[0]!.rect.y + list[0]!.rect.height).toBeLessThan(list[1]!.rect.y);
  });
  test('text that runs around something stands in pieces beside it, and none lies over it', async () => {
    const folio = produce(tinyFolio(LONG, { width: 300, height: 400 }), (d) => {
      const stone = lookPage([square('stone', 200, 60)]).spreads['s']!.items['stone']!;
      d.spreads['s']!.items['stone'] = { ...stone, wrap: { kind: 'box', side: 'both', offset: 0 } };
      d.spreads['s']!.order.push('stone');
    });
    const list = (await piecesOf(folio)).get('f1')!;
    expect(list.length).toBeGreaterThanOrEqual(3);
    for (const { rect } of list) {
      // The frame stands at (10, 10), the stone from (200, 60) to (300, 160).
      const across = Math.min(rect.x + 10 + rect.width, 300) - Math.max(rect.x + 10, 200);
      const down = Math.min(rect.y + 10 + rect.height, 160) - Math.max(rect.y + 10, 60);
      expect(across > 1 && down > 14).toBe(false);
    }
  });
  test('a frame without text has no pieces', async () => {
    expect((await piecesOf(tinyFolio([''], { frames: 2 }))).get('f2')).toBeUndefined();
  });
});
