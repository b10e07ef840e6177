import { columnWidths } from '../../compose/table.ts';
import { resolveParagraph } from '../../folio/resolve.ts';
import type { Cell, Story, Table } from '../../folio/story.ts';
import { cellsByPlace, lookOfCell, lookOfCellStyle, styleOfCell } from '../../folio/tableCells.ts';
import { firstColumnHeads } from '../../structure/tableHeads.ts';
import { twips } from '../ooxml/lengths.ts';
import type { Xml } from '../assets/xml.ts';
import { el, sequence, sequenceOrNone } from '../assets/xml.ts';
import { cellLook, cellProperties } from './tableStyle.ts';
import type { WordContext } from './wordContext.ts';
import { paragraphXml } from './wordParagraph.ts';

/** More columns than this a table of the format cannot have (common practice of programs that read it). */
export const MOST_COLUMNS = 63;

const tableProperties = sequence('w:tblPr', ['w:tblStyle', 'w:tblW', 'w:jc', 'w:tblLayout', 'w:tblLook'] as const);
const rowProperties = sequenceOrNone('w:trPr', ['w:cantSplit', 'w:trHeight', 'w:tblHeader'] as const);

const BITS = { firstRow: 0x20, firstColumn: 0x80, noHBand: 0x200, noVBand: 0x400 };

/** The place of a row and a column that a cell covers. */
interface Slot {
  cell: Cell;
  /** The first row, where its text stands; it goes on in the others. */
  begins: boolean;
}

/** A table; one with more columns than the format has is several tables, one below the other. */
export function tableXml(story: Story, table: Table, c: WordContext): Xml[] {
  const widths = columnWidths(table.columns, c.measure);
  const out: Xml[] = [];
  for (let from = 0; from < widths.length; from += MOST_COLUMNS)
    out.push(partOf(story, table, widths, from, Math.min(widths.length, from + MOST_COLUMNS), c));
  return out;
}

function partOf(story: Story, table: Table, widths: readonly number[], from: number, to: number, c: WordContext): Xml {
  const { head } = c.folio;
  const name = c.styles.table(table.style);
  const slots = cellsByPlace(table);
  const inHeader = (row: number): boolean => row < table.headerRows;
  const headsRows = firstColumnHeads(head, story, table);
  const bands = table.style !== undefined && head.tableStyles[table.style]?.alternate !== undefined;
  // The same twice: as bits, for programs of 2007 (17.4.56).
  const flags = { firstRow: table.headerRows > 0, firstColumn: headsRows && from === 0, noHBand: !bands, noVBand: true };
  const bits = Object.entries(flags).reduce((sum, [k, on]) => sum + (on ? BITS[k as keyof typeof flags] : 0), 0);
  const look = {
    'w:val': bits.toString(16).toUpperCase().padStart(4, '0'),
    ...Object.fromEntries(Object.entries(flags).map(([k, on]) => [`w:${k}`, Number(on)])),
  };
  const columns = widths.slice(from, to);
  const rows = table.rows.map((row, at): Xml => {
    const inRow: Xml[] = [];
    for (let column = from; column < to;) {
      const covering = slots[at]?.[column];
      const slot: Slot | null = covering ? { cell: covering, begins: at === covering.row } : null;
      const left = slot ? Math.max(from, slot.cell.column) : column;
      const right = slot ? Math.min(to, slot.cell.column + slot.cell.columns) : column + 1;
      const width = widths.slice(left, right).reduce((a, b) => a + b, 0);
      inRow.push(cellXml(story, table, slot, { width, span: right - left, text: left === (slot?.cell.column ?? left) }, c));
      column = right;
    }
    return el(
      'w:tr',
      {},
      rowProperties({
        'w:cantSplit': el('w:cantSplit'),
        'w:trHeight':
          row.height > 0 &&
          el('w:trHeight', { 'w:val': twips(row.height), 'w:hRule': row.exact || c.tables === 'exact' ? 'exact' : 'atLeast' }),
        'w:tblHeader': inHeader(at) && el('w:tblHeader'),
      }),
      inRow,
    );
  });
  return el(
    'w:tbl',
    {},
    tableProperties({
      'w:tblStyle': name && el('w:tblStyle', { 'w:val': name.id }),
      'w:tblW': el('w:tblW', { 'w:w': twips(columns.reduce((a, b) => a + b, 0)), 'w:type': 'dxa' }),
      'w:tblLayout': el('w:tblLayout', { 'w:type': c.tables === 'exact' ? 'fixed' : 'autofit' }),
      'w:tblLook': el('w:tblLook', look),
    }),
    el(
      'w:tblGrid',
      {},
      columns.map((w) => el('w:gridCol', { 'w:w': twips(w) })),
    ),
    rows,
  );
}

function cellXml(
  story: Story,
  table: Table,
  slot: Slot | null,
  { width, span, text }: { width: number; span: number; text: boolean },
  c: WordContext,
): Xml {
  const { head } = c.folio;
  const cell = slot?.cell;
  const goesOn = slot !== null && !slot.begins;
  const fromStyle =
    cell && c.styles.table(table.style) ? lookOfCellStyle(head, styleOfCell(head, { ...table }, { ...cell, style: undefined })) : null;
  const look = cell ? lookOfCell(head, table, cell) : {};
  const [own, styled] = [cellLook(look, head), fromStyle && cellLook(fromStyle, head)];
  const differs = (part: keyof typeof own): Xml | null => (styled && styled[part] === own[part] ? null : own[part]);
  const properties = cellProperties({
    'w:tcW': el('w:tcW', { 'w:w': twips(width), 'w:type': 'dxa' }),
    'w:gridSpan': span > 1 && el('w:gridSpan', { 'w:val': span }),
    'w:vMerge': cell && cell.rows > 1 && el('w:vMerge', slot!.begins ? { 'w:val': 'restart' } : {}),
    'w:tcBorders': cell && differs('w:tcBorders'),
    'w:shd': cell && differs('w:shd'),
    'w:tcMar': cell && differs('w:tcMar'),
    'w:vAlign': cell && cell.verticalAlign !== 'top' && el('w:vAlign', { 'w:val': cell.verticalAlign === 'centre' ? 'center' : 'bottom' }),
  });
  const onGround = !!look.fill && look.fill.type !== 'none';
  const blocks = cell && !goesOn && text ? cell.order.flatMap((id) => blockInCell(story, id, onGround, width, c)) : [];
  // The last thing in a cell is a paragraph (17.4.66).
  const last = cell && !goesOn && text ? story.blocks[cell.order.at(-1) ?? ''] : undefined;
  return el('w:tc', {}, properties, blocks, last?.kind === 'paragraph' ? null : el('w:p'));
}

function blockInCell(story: Story, id: string, onGround: boolean, width: number, c: WordContext): Xml[] {
  const block = story.blocks[id];
  if (block?.kind === 'table') return tableXml(story, block, { ...c, measure: width });
  if (block?.kind !== 'paragraph') return [];
  const ground = onGround || !!resolveParagraph(c.folio.head, block).paragraph.shading;
  return [paragraphXml(story, block, { page: null, onGround: ground }, { ...c, measure: width, initials: false })];
}
