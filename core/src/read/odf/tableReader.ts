import type { z } from 'zod';
import type { Cell, Table } from '../../folio/story.ts';
import { integerOf, lengthOf } from './lengths.ts';
import { TableLook } from './tableLook.ts';
import { TextReader } from './textReader.ts';
import type { Content, TextContext, TextStyle } from './textReader.ts';
import { childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** A table has no more columns or rows than this; repeated ones beyond are left out. */
const MOST = 2000;

/** A cell as the file has it, where it stands, and the name of its style: its own, its row's or its column's (19.615). */
interface FoundCell {
  element: XmlElement;
  row: number;
  column: number;
  style: string | undefined;
}

/** A table of a frame (OpenDocument 1.3 part 3, 9.1) as a story with one table. */
export function readTable(table: XmlElement, context: TextContext, frame: TextStyle): Content {
  const content: Content = { blocks: {}, order: [], links: {}, items: {} };
  content.order.push(readTableInto(table, context, frame, content));
  return content;
}

/** A table that stands in a text: its blocks and links go to the text's; its id. */
export function readTableInto(table: XmlElement, context: TextContext, frame: TextStyle, content: Content): string {
  const { names } = context;
  const { columns, rows, found, headerRows } = readGrid(table, context, frame);
  const look = new TableLook(table, context, frame.scope);
  const cells: Record<string, z.infer<typeof Cell>> = {};
  for (const { element, row, column, style } of found) {
    const id = names.free('cell');
    const { named, look: own, verticalAlign } = look.cell(style, { row, column, rows: rows.length, columns: columns.length });
    const text: TextStyle = { family: 'table-cell', name: style, paragraph: undefined, scope: frame.scope, given: named };
    cells[id] = {
      id,
      row,
      column,
      rows: Math.max(1, integerOf(element.attributes['table:number-rows-spanned']) ?? 1),
      columns: Math.max(1, integerOf(element.attributes['table:number-columns-spanned']) ?? 1),
      verticalAlign,
      header: false,
      ...own,
      order: new TextReader(context, text, content).read(element),
    };
  }
  const id = names.free('table', table.attributes['xml:id']);
  context.origin(id, table);
  const head = headerRows || (look.firstRow && rows.length > 1 ? 1 : 0);
  content.blocks[id] = {
    kind: 'table',
    id,
    ...(look.style !== undefined && { style: look.style }),
    columns,
    rows,
    headerRows: head,
    footerRows: 0,
    cells,
  };
  return id;
}

/** A table's columns and rows, and the cells that are not covered by others. */
function readGrid(table: XmlElement, { sheet }: TextContext, { scope }: TextStyle) {
  const columns: z.infer<typeof Table>['columns'] = [];
  const columnStyles: (string | undefined)[] = [];
  const rows: z.infer<typeof Table>['rows'] = [];
  const found: FoundCell[] = [];
  let headerRows = 0;
  const column = (element: XmlElement): void => {
    const a = element.attributes;
    const width = lengthOf(sheet.resolve('table-column', a['table:style-name'], scope)['table-column']?.['style:column-width']);
    for (let n = repeated(element, 'table:number-columns-repeated'); n > 0 && columns.length < MOST; n--) {
      columns.push(width === undefined ? { width: 1, unit: 'share' } : { width: Math.max(0, width), unit: 'pt' });
      columnStyles.push(a['table:default-cell-style-name']);
    }
  };
  const row = (element: XmlElement): void => {
    const a = element.attributes;
    const own = sheet.resolve('table-row', a['table:style-name'], scope)['table-row'] ?? {};
    const height = Math.max(0, lengthOf(own['style:row-height'] ?? own['style:min-row-height']) ?? 0);
    const index = rows.length;
    rows.push({ height, exact: false });
    let at = 0;
    for (const cell of childrenOf(element)) {
      const count = repeated(cell, 'table:number-columns-repeated');
      if (cell.name === 'table:table-cell')
        for (let n = 0; n < count && at + n < MOST; n++) {
          const style = cell.attributes['table:style-name'] ?? a['table:default-cell-style-name'] ?? columnStyles[at + n];
          found.push({ element: cell, row: index, column: at + n, style });
        }
      at += count;
    }
  };
  const walk = (parent: XmlElement, header: boolean): void => {
    for (const child of childrenOf(parent)) {
      if (child.name === 'table:table-column') column(child);
      else if (child.name === 'table:table-row') {
        for (let n = repeated(child, 'table:number-rows-repeated'); n > 0 && rows.length < MOST; n--) row(child);
        if (header) headerRows = rows.length;
      } else if (/^table:table-(columns|header-columns|column-group|rows|row-group)$/.test(child.name)) walk(child, false);
      else if (child.name === 'table:table-header-rows') walk(child, true);
    }
  };
  walk(table, false);
  const widest = found.reduce((most, c) => Math.max(most, c.column + 1), Math.max(1, columns.length));
  while (columns.length < widest) columns.push({ width: 1, unit: 'share' });
  if (!rows.length) rows.push({ height: 0, exact: false });
  return { columns, rows, found, headerRows };
}

const repeated = (element: XmlElement, attribute: string): number =>
  Math.min(MOST, Math.max(1, integerOf(element.attributes[attribute]) ?? 1));
