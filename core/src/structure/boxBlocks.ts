import type { FrameBox, SetLine } from '../compose/marks.ts';
import type { Paragraph, Story, Table } from '../folio/story.ts';
import { cellsByParagraph } from '../folio/tableCells.ts';
import { contentLength, sliceContent } from '../folio/text.ts';

/** What stands in a box: a paragraph or a table, or the part of one where the text is cut. */
export interface BoxBlock {
  block: Paragraph | Table;
  /** False where the beginning, or the end, stands in boxes elsewhere. */
  begins: boolean;
  ends: boolean;
  /** Its lines, where it is a part of a paragraph. */
  lines?: readonly SetLine[];
}

/** The part of a paragraph that stands in a box, in its own offsets; null where all of it does. */
export function partOf({ block, begins, ends, lines }: BoxBlock): { from: number; to: number } | null {
  if (block.kind !== 'paragraph' || (begins && ends)) return null;
  const from = begins ? 0 : (lines?.[0]?.start ?? 0);
  return { from, to: ends ? from + contentLength(block.content) : (lines?.at(-1)?.end ?? from) };
}

/** What was set at some place of a text: its lines, and the boxes drawn with them. */
export interface SetPart {
  lines: readonly SetLine[];
  boxes: readonly FrameBox[];
}

/** What stands in parts of a text that follow one another: whole paragraphs and tables, cut where they begin or end elsewhere. */
export function blocksOf(story: Story, parts: readonly SetPart[]): BoxBlock[] {
  const cells = cellsByParagraph(story);
  const lines = new Map<string, SetLine[]>();
  const rows = new Map<string, Set<number>>();
  const tables = new Map<string, Table>();
  for (const block of Object.values(story.blocks))
    if (block.kind === 'table') for (const id of Object.keys(block.cells)) tables.set(id, block);
  for (const part of parts) {
    for (const line of part.lines) {
      const id = cells.get(line.paragraph)?.table.id ?? line.paragraph;
      const known = lines.get(id);
      if (known) known.push(line);
      else lines.set(id, [line]);
    }
    for (const box of part.boxes) {
      const table = box.kind === 'cell' && box.subject !== undefined ? tables.get(box.subject) : undefined;
      if (!table) continue;
      const cell = table.cells[box.subject!]!;
      if (!lines.has(table.id)) lines.set(table.id, []);
      const known = rows.get(table.id) ?? new Set<number>();
      rows.set(table.id, known);
      for (let r = cell.row; r < cell.row + cell.rows; r++) known.add(r);
    }
  }
  const order = new Map(story.order.map((id, i) => [id, i]));
  return [...lines.keys()]
    .filter((id) => order.has(id))
    .sort((a, b) => order.get(a)! - order.get(b)!)
    .map((id): BoxBlock => {
      const block = story.blocks[id]!;
      if (block.kind === 'table') return tablePart(block, rows.get(id) ?? new Set());
      return paragraphPart(block, lines.get(id)!);
    });
}

/** The part of a paragraph that some of its lines show. */
export function paragraphPart(block: Paragraph, lines: readonly SetLine[]): BoxBlock {
  const [first, last] = [lines[0]!, lines[lines.length - 1]!];
  if (first.first && last.last) return { block, begins: true, ends: true };
  const content = sliceContent(block.content, first.first ? 0 : first.start, last.last ? contentLength(block.content) : last.end);
  const cut: Paragraph = {
    ...block,
    content,
    overrides: {
      ...block.overrides,
      ...(!first.first && { firstLineIndent: 0, spaceBefore: 0, list: null, dropCapital: null }),
      ...(!last.last && { spaceAfter: 0 }),
    },
  };
  return { block: cut, begins: first.first, ends: last.last, lines };
}

/** The rows of a table that stand somewhere, those that head it included. */
function tablePart(table: Table, shown: ReadonlySet<number>): BoxBlock {
  const kept = table.rows.map((_, i) => i).filter((i) => i < table.headerRows || shown.has(i));
  if (kept.length === table.rows.length) return { block: table, begins: true, ends: true };
  const at = new Map(kept.map((row, i) => [row, i]));
  const cells = Object.fromEntries(
    Object.entries(table.cells).flatMap(([id, cell]) => {
      const row = at.get(cell.row);
      const count = kept.filter((r) => r >= cell.row && r < cell.row + cell.rows).length;
      return row === undefined ? [] : [[id, { ...cell, row, rows: Math.max(1, count) }]];
    }),
  );
  const body = kept.filter((r) => r >= table.headerRows);
  return {
    block: { ...table, rows: kept.map((r) => table.rows[r]!), cells, footerRows: 0 },
    begins: body[0] === table.headerRows,
    ends: body[body.length - 1] === table.rows.length - 1,
  };
}
