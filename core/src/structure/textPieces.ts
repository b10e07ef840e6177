import { columnsOf } from '../compose/columnFill.ts';
import type { Column } from '../compose/columnFill.ts';
import type { ComposedFrame, Composition, FrameBox, SetLine } from '../compose/marks.ts';
import { noteNumbers } from '../compose/notes.ts';
import type { Folio } from '../folio/folio.ts';
import type { Rect } from '../folio/geometry.ts';
import type { TextFrame } from '../folio/items.ts';
import { resolveParagraph } from '../folio/resolve.ts';
import type { Story, Table } from '../folio/story.ts';
import { cellsByParagraph } from '../folio/tableCells.ts';
import { blocksOf, paragraphPart } from './boxBlocks.ts';
import type { BoxBlock } from './boxBlocks.ts';
import { bottomOf, leadOver, roomsOf, topOf } from './boxRooms.ts';
import { framesIn } from './textBoxes.ts';
import type { BoxScope } from './textBoxes.ts';

interface Placed {
  story: Story;
  item: string;
  page: string;
  /** In the space of its frame. */
  rect: Rect;
}
/** Paragraphs that stand in one box, those of notes with the number of the first. */
export interface WordsPiece extends Placed {
  kind: 'words';
  blocks: BoxBlock[];
  columns: { count: number; gutter: number };
  align: 'top' | 'centre' | 'bottom';
  note?: { number: string };
}
/** A table, or the rows of it that a frame shows. */
export interface TablePiece extends Placed {
  kind: 'table';
  table: Table;
  begins: boolean;
  widths: number[];
  heights: number[];
}
export type TextPiece = WordsPiece | TablePiece;

/**
 * What the frames of a document hold, piece by piece, for formats that know no linked boxes, let no text run around anything, and have
 * tables beside text only: every text ends with its box. Pieces of a frame follow one another as they are read.
 */
export function textPieces(folio: Folio, composition: Composition, scope: BoxScope): Map<string, TextPiece[]> {
  const out = new Map<string, TextPiece[]>();
  for (const [id, { frame, composed, page }] of framesIn(composition, scope)) {
    const story = folio.stories[composed.story];
    if (!story || (!composed.lines.length && !composed.boxes.length)) continue;
    const pieces = new FramePieces(folio, story, frame, composed, page).all();
    if (pieces.length) out.set(id, pieces);
  }
  return out;
}

/** Where a line belongs: to the text itself, to a table, or to a note at the foot. */
type Home = { kind: 'text' } | { kind: 'table'; table: Table } | { kind: 'note' };

class FramePieces {
  private readonly cells;
  private readonly tables = new Map<string, Table>();
  private readonly inOrder: ReadonlySet<string>;

  constructor(
    private readonly folio: Folio,
    private readonly story: Story,
    private readonly frame: TextFrame,
    private readonly composed: ComposedFrame,
    private readonly page: string,
  ) {
    this.cells = cellsByParagraph(story);
    this.inOrder = new Set(story.order);
    for (const block of Object.values(story.blocks))
      if (block.kind === 'table') for (const id of Object.keys(block.cells)) this.tables.set(id, block);
  }

  all(): TextPiece[] {
    const columns = columnsOf(this.frame);
    return this.asColumns(columns) ?? columns.flatMap((column, n) => this.inColumn(column, n));
  }

  /** A frame whose columns fill one after another is one box of as many columns. */
  private asColumns(columns: readonly Column[]): TextPiece[] | null {
    const { frame, composed, folio, story } = this;
    if (columns.length === 1 || columns.length > 16 || frame.balance || !composed.lines.length) return null;
    const breaks = (line: SetLine): boolean => {
      const block = story.blocks[line.paragraph];
      return block?.kind !== 'paragraph' || !['none', undefined].includes(resolveParagraph(folio.head, block).paragraph.breakBefore);
    };
    const isPlain = composed.lines.every(
      (l, i) => this.homeOf(l).kind === 'text' && !(i > 0 && l.first && composed.lines[i - 1]!.column !== l.column && breaks(l)),
    );
    const isWhole = columns.every((column, n) => {
      const lines = composed.lines.filter((l) => l.column === n);
      const [room, ...more] = lines.length ? roomsOf(folio, story, column, lines) : [];
      return !more.length && (!room || room.right - room.left > column.width - 1);
    });
    if (!isPlain || !isWhole || this.tableBoxes().size) return null;
    const [top, right, bottom, left] = frame.inset;
    const rect = { x: left, y: top, width: frame.size.width - left - right, height: Math.max(1, frame.size.height - top - bottom) };
    return [
      {
        ...this.placed(rect),
        kind: 'words',
        blocks: blocksOf(story, [composed]),
        columns: { count: columns.length, gutter: frame.gutter },
        align: 'top',
      },
    ];
  }

  private inColumn(column: Column, n: number): TextPiece[] {
    const lines = this.composed.lines.filter((l) => l.column === n);
    const tables = [...this.tableBoxes(column).values()].map((boxes) => this.tablePiece(boxes));
    const stretches: SetLine[][] = [];
    let before: Home['kind'] | undefined;
    const notes: SetLine[] = [];
    for (const line of lines) {
      const { kind } = this.homeOf(line);
      if (kind === 'note') notes.push(line);
      else if (kind === 'text') {
        const last = stretches[stretches.length - 1];
        // A table without a word stands between two texts as well.
        const apart = last && tables.some(({ rect }) => rect.y >= last[last.length - 1]!.baseline - 1 && rect.y < line.baseline);
        if (last && before === 'text' && !apart) last.push(line);
        else stretches.push([line]);
      }
      before = kind;
    }
    const isAlone = !tables.length && !notes.length;
    const words = stretches.flatMap((stretch) => this.wordsPieces(column, stretch, isAlone, stretch === stretches[0]));
    const out: TextPiece[] = [...words, ...tables].sort((a, b) => a.rect.y - b.rect.y);
    return [...out, ...this.notePieces(column, notes)];
  }

  /** Text that stands alone in its column has all of it; else each part has the room of its lines. */
  private wordsPieces(column: Column, lines: readonly SetLine[], isAlone: boolean, isFirst: boolean): WordsPiece[] {
    const rooms = roomsOf(this.folio, this.story, column, lines);
    return rooms.map((room, i) => {
      const whole = isAlone && rooms.length === 1;
      const y = isFirst && i === 0 && (whole || this.frame.verticalAlign === 'top') ? column.top : topOf(room);
      const end = whole ? Math.max(column.top + column.height, bottomOf(room)) : bottomOf(room) + leadOver(room);
      const { verticalAlign } = this.frame;
      return {
        ...this.placed({ x: room.left, y, width: room.right - room.left, height: Math.max(1, end - y) }),
        kind: 'words',
        blocks: blocksOf(this.story, [{ lines: room.lines, boxes: [] }]),
        columns: { count: 1, gutter: 0 },
        align: whole && verticalAlign !== 'justify' ? verticalAlign : 'top',
      };
    });
  }

  /** Notes at the foot of a column: a box each, with the number by which the text refers to them. */
  private notePieces(column: Column, lines: readonly SetLine[]): WordsPiece[] {
    const { numbers } = noteNumbers(this.story, this.story.order);
    const heads = new Map<string, string>();
    for (const block of Object.values(this.story.blocks))
      if (block.kind === 'paragraph')
        for (const node of block.content)
          if (node.type === 'note' && node.order[0] !== undefined) heads.set(node.order[0], numbers.get(node.id) ?? '');
    const byParagraph = new Map<string, SetLine[]>();
    for (const line of lines) byParagraph.set(line.paragraph, [...(byParagraph.get(line.paragraph) ?? []), line]);
    return [...byParagraph].flatMap(([id, own]): WordsPiece[] => {
      const block = this.story.blocks[id];
      if (block?.kind !== 'paragraph') return [];
      const room = { left: column.x, right: column.x + column.width, lines: own };
      const y = topOf(room);
      const number = own[0]!.first ? heads.get(id) : undefined;
      return [
        {
          ...this.placed({ x: column.x, y, width: column.width, height: Math.max(1, bottomOf(room) + leadOver(room) - y) }),
          kind: 'words',
          blocks: [paragraphPart(block, own)],
          columns: { count: 1, gutter: 0 },
          align: 'top',
          ...(number && { note: { number } }),
        },
      ];
    });
  }

  private tablePiece(boxes: readonly FrameBox[]): TablePiece {
    const [part] = blocksOf(this.story, [{ lines: [], boxes }]);
    const shown = part!.block as Table;
    const byCell = new Map(boxes.map((b) => [b.subject!, b.box]));
    const x = Math.min(...boxes.map((b) => b.box.x));
    const y = Math.min(...boxes.map((b) => b.box.y));
    const measured = (count: number, from: number, edge: (c: Table['cells'][string], box: Rect) => [number, number][]): number[] => {
      const ends: (number | undefined)[] = Array.from({ length: count + 1 });
      ends[0] = from;
      for (const [id, cell] of Object.entries(shown.cells)) {
        const box = byCell.get(id);
        if (box) for (const [at, where] of edge(cell, box)) if (at > 0 && at <= count) ends[at] = Math.max(ends[at] ?? 0, where);
      }
      for (let i = 1; i <= count; i++) ends[i] ??= ends[i - 1]!;
      return Array.from({ length: count }, (_, i) => Math.max(0, ends[i + 1]! - ends[i]!));
    };
    const widths = measured(shown.columns.length, x, (c, b) => [
      [c.column, b.x],
      [c.column + c.columns, b.x + b.width],
    ]);
    const heights = measured(shown.rows.length, y, (c, b) => [
      [c.row, b.y],
      [c.row + c.rows, b.y + b.height],
    ]);
    const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);
    const rect = { x, y, width: sum(widths), height: sum(heights) };
    return { ...this.placed(rect), kind: 'table', table: shown, begins: part!.begins, widths, heights };
  }

  /** Boxes of cells by the table that they are of; in a column, where one is given. */
  private tableBoxes(column?: Column): Map<Table, FrameBox[]> {
    const out = new Map<Table, FrameBox[]>();
    for (const box of this.composed.boxes) {
      const table = box.kind === 'cell' && box.subject !== undefined ? this.tables.get(box.subject) : undefined;
      if (!table || (column && (box.box.x < column.x - 1 || box.box.x > column.x + column.width + 1))) continue;
      out.set(table, [...(out.get(table) ?? []), box]);
    }
    return out;
  }

  private homeOf({ paragraph }: SetLine): Home {
    const table = this.cells.get(paragraph)?.table;
    if (table) return { kind: 'table', table };
    return { kind: this.inOrder.has(paragraph) ? 'text' : 'note' };
  }

  private readonly placed = (rect: Rect): Placed => ({ story: this.story, item: this.frame.id, page: this.page, rect });
}
