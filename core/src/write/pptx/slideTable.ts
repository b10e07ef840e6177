import { cellsByPlace, lineOfSide, lookOfCell, roomInCell } from '../../folio/tableCells.ts';
import type { Cell, Paragraph, Story, Table } from '../../folio/story.ts';
import { firstColumnHeads } from '../../structure/tableHeads.ts';
import type { TablePiece } from '../../structure/textPieces.ts';
import { lineXml } from '../ooxml/drawing/line.ts';
import { fillXml } from '../ooxml/drawing/paint.ts';
import { emu } from '../ooxml/lengths.ts';
import type { Xml } from '../assets/xml.ts';
import { el } from '../assets/xml.ts';
import type { SlideContext } from './slideContext.ts';
import { paragraphsXml } from './slideText.ts';
import { tableStyleId } from './tableStyles.ts';

/** More columns than this a table of a slide cannot have (common practice of programs). */
export const MOST_COLUMNS = 75;

/** A table as several side by side, where it has more columns than the format; a cell that reaches over their edge is cut there. */
export function tableParts(piece: TablePiece): TablePiece[] {
  const { table, widths, rect } = piece;
  if (widths.length <= MOST_COLUMNS) return [piece];
  const out: TablePiece[] = [];
  let x = rect.x;
  for (let from = 0; from < widths.length; from += MOST_COLUMNS) {
    const to = Math.min(widths.length, from + MOST_COLUMNS);
    const own = widths.slice(from, to);
    const width = own.reduce((a, b) => a + b, 0);
    const cells = Object.fromEntries(
      Object.entries(table.cells).flatMap(([id, cell]) => {
        const [left, right] = [Math.max(from, cell.column), Math.min(to, cell.column + cell.columns)];
        const order = left === cell.column ? cell.order : [];
        return left < right ? [[id, { ...cell, column: left - from, columns: right - left, order }]] : [];
      }),
    );
    const part = { ...table, columns: table.columns.slice(from, to), cells };
    out.push({ ...piece, table: part, widths: own, rect: { ...rect, x, width } });
    x += width;
  }
  return out;
}

/** A table of a slide (ISO/IEC 29500-1, 21.1.3.13): its columns as wide and its rows as high as they are in the layout. */
export function tableXml({ story, table, widths, heights }: TablePiece, c: SlideContext): Xml {
  const { head } = c.folio;
  const slots = cellsByPlace(table);
  return el(
    'a:tbl',
    {},
    el(
      'a:tblPr',
      {
        firstRow: table.headerRows > 0 ? 1 : undefined,
        firstCol: firstColumnHeads(head, story, table) ? 1 : undefined,
        bandRow: table.style !== undefined && head.tableStyles[table.style]?.alternate ? 1 : undefined,
      },
      el('a:tableStyleId', {}, tableStyleId(head, table.style) as Xml),
    ),
    el(
      'a:tblGrid',
      {},
      widths.map((w) => el('a:gridCol', { w: emu(w) })),
    ),
    heights.map((h, row) =>
      el(
        'a:tr',
        { h: emu(h) },
        widths.map((_, column) => cellXml(story, table, slots[row]?.[column], row, column, c)),
      ),
    ),
  );
}

const ANCHORED: Record<Cell['verticalAlign'], string | undefined> = { top: undefined, centre: 'ctr', bottom: 'b' };

/** The place of a row and a column: a cell, or what a cell covers that is merged with it (21.1.3.16). */
function cellXml(story: Story, table: Table, cell: Cell | undefined, row: number, column: number, c: SlideContext): Xml {
  const { swatches } = c.folio.head;
  const body = (content: Xml): Xml => el('a:txBody', {}, el('a:bodyPr'), el('a:lstStyle'), content);
  const look = cell ? lookOfCell(c.folio.head, table, cell) : {};
  const [top, right, bottom, left] = roomInCell(look);
  const ground = { swatches, opacity: 1, box: { x: 0, y: 0, width: 1, height: 1 } };
  const begins = cell?.row === row && cell.column === column;
  const line = (name: string, side: 'left' | 'right' | 'top' | 'bottom'): Xml =>
    lineXml(lineOfSide(look, side), ground)
      .replace(/^<a:ln\b/, `<${name}`)
      .replace(/<\/a:ln>$/, `</${name}>`) as Xml;
  const properties = el(
    'a:tcPr',
    { marL: emu(left), marR: emu(right), marT: emu(top), marB: emu(bottom), anchor: cell && ANCHORED[cell.verticalAlign] },
    line('a:lnL', 'left'),
    line('a:lnR', 'right'),
    line('a:lnT', 'top'),
    line('a:lnB', 'bottom'),
    fillXml(look.fill ?? { type: 'none' }, ground),
  );
  const [rows, columns] = cell
    ? [Math.min(cell.rows, table.rows.length - row), Math.min(cell.columns, table.columns.length - column)]
    : [1, 1];
  const blocks = begins ? paragraphsIn(story, cell.order).map((block) => ({ block, begins: true, ends: true })) : [];
  return el(
    'a:tc',
    {
      rowSpan: begins && rows > 1 ? rows : undefined,
      gridSpan: begins && columns > 1 ? columns : undefined,
      hMerge: cell && column > cell.column ? 1 : undefined,
      vMerge: cell && row > cell.row ? 1 : undefined,
    },
    body(paragraphsXml(story, blocks, c)),
    properties,
  );
}

/** Paragraphs of a cell; a cell of the format holds no tables, so those inside it give their words. */
function paragraphsIn(story: Story, order: readonly string[], depth = 0): Paragraph[] {
  return order.flatMap((id): Paragraph[] => {
    const block = story.blocks[id];
    if (block?.kind === 'paragraph') return [block];
    if (!block || depth > 8) return [];
    return Object.values(block.cells)
      .sort((a, b) => a.row - b.row || a.column - b.column)
      .flatMap((cell) => paragraphsIn(story, cell.order, depth + 1));
  });
}
