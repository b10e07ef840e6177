import type { z } from 'zod';
import type { Cell, Table, Story } from '../../folio/story.ts';
import { colourOf, integerOf, lengthOf } from './lengths.ts';
import { borderOf } from './textProperties.ts';
import { TextReader } from './textReader.ts';
import type { TextContext, TextStyle } from './textReader.ts';
import { childrenOf } from './xmlTree.ts';
import type { XmlElement } from './xmlTree.ts';

/** A table has no more columns or rows than this; repeated ones beyond are left out. */
const MOST = 2000;

/** A table of a frame (OpenDocument 1.3 part 3, 9.1) as a story with one table. */
export function readTable(table: XmlElement, context: TextContext, style: TextStyle): Pick<Story, 'blocks' | 'order' | 'links'> {
  const { sheet, names } = context;
  const { scope } = style;
  const reader = new TextReader(context, style);
  const columns: z.infer<typeof Table>['columns'] = [];
  const rows: z.infer<typeof Table>['rows'] = [];
  const cells: Record<string, z.infer<typeof Cell>> = {};
  let headerRows = 0;
  const column = (element: XmlElement): void => {
    const width = lengthOf(
      sheet.resolve('table-column', element.attributes['table:style-name'], scope)['table-column']?.['style:column-width'],
    );
    for (let n = repeated(element, 'table:number-columns-repeated'); n > 0 && columns.length < MOST; n--)
      columns.push(width === undefined ? { width: 1, unit: 'share' } : { width: Math.max(0, width), unit: 'pt' });
  };
  const row = (element: XmlElement): void => {
    const own = sheet.resolve('table-row', element.attributes['table:style-name'], scope)['table-row'] ?? {};
    const height = Math.max(0, lengthOf(own['style:row-height'] ?? own['style:min-row-height']) ?? 0);
    const index = rows.length;
    rows.push({ height, exact: false });
    let at = 0;
    for (const cell of childrenOf(element)) {
      const count = repeated(cell, 'table:number-columns-repeated');
      if (cell.name === 'table:table-cell') for (let n = 0; n < count && at + n < MOST; n++) addCell(cell, index, at + n);
      at += count;
    }
  };
  const addCell = (element: XmlElement, rowIndex: number, columnIndex: number): void => {
    const id = names.free('cell');
    const own = sheet.resolve('table-cell', element.attributes['table:style-name'], scope);
    const graphic = { ...own['graphic'], ...own['table-cell'] };
    const fill =
      graphic['draw:fill'] === 'none' ? undefined : (colourOf(graphic['draw:fill-color']) ?? colourOf(graphic['fo:background-color']));
    const border = borderOf(
      own['paragraph']?.['fo:border'] ?? graphic['fo:border'] ?? own['paragraph']?.['fo:border-top'] ?? graphic['fo:border-top'],
    );
    const align = graphic['draw:textarea-vertical-align'] ?? graphic['style:vertical-align'];
    cells[id] = {
      id,
      row: rowIndex,
      column: columnIndex,
      rows: Math.max(1, integerOf(element.attributes['table:number-rows-spanned']) ?? 1),
      columns: Math.max(1, integerOf(element.attributes['table:number-columns-spanned']) ?? 1),
      verticalAlign: align === 'middle' ? 'centre' : align === 'bottom' ? 'bottom' : 'top',
      header: false,
      ...(fill && { fill: { type: 'colour', colour: fill } }),
      ...(border && {
        stroke: { ...border, dashes: [], cap: 'butt', join: 'miter', miterLimit: 4, startMarker: 'none', endMarker: 'none' },
      }),
      order: reader.read(element),
    };
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
  const template = table.attributes['table:use-first-row-styles'] === 'true' && !headerRows && rows.length > 1;
  const widest = Math.max(1, columns.length, ...Object.values(cells).map((c) => c.column + 1));
  while (columns.length < widest) columns.push({ width: 1, unit: 'share' });
  if (!rows.length) rows.push({ height: 0, exact: false });
  const id = names.free('table', table.attributes['xml:id']);
  context.origin(id, table);
  reader.content.blocks[id] = { kind: 'table', id, columns, rows, headerRows: template ? 1 : headerRows, footerRows: 0, cells };
  reader.content.order.push(id);
  return reader.content;
}

const repeated = (element: XmlElement, attribute: string): number =>
  Math.min(MOST, Math.max(1, integerOf(element.attributes[attribute]) ?? 1));
