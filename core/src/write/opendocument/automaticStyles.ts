import { solidHex } from '../../folio/colour.ts';
import type { Stroke } from '../../folio/appearance.ts';
import type { Head } from '../../folio/head.ts';
import type { Cell, Table } from '../../folio/story.ts';
import { lookOfCell, roomInCell } from '../../folio/tableCells.ts';
import { el, pt } from './element.ts';
import type { Xml } from './element.ts';

type Attributes = Record<string, string>;

/** Styles of single places: made once for each look, and called by numbers. */
export class AutomaticStyles {
  readonly nodes: Xml[] = [];
  private readonly names = new Map<string, string>();

  /** A name for what a place adds to a named style; the named style's own where it adds nothing. */
  paragraph(style: string | undefined, properties: Xml[]): string {
    return properties.length || style === undefined ? this.make('P', 'paragraph', style, properties) : style;
  }
  /** Of a paragraph that has no style of the document’s. */
  plainParagraph(attributes: Attributes): string {
    return this.make('P', 'paragraph', undefined, [el('style:paragraph-properties', attributes)]);
  }
  /** Of a paragraph that only begins a page of a master, with a number where the count begins anew (16.27.38, 20.340). */
  pageStart(master: string | undefined, number: number | undefined): string {
    const paragraph = el('style:paragraph-properties', { 'fo:line-height': '1pt', 'fo:margin': '0pt', 'style:page-number': number });
    const properties = [paragraph, el('style:text-properties', { 'fo:font-size': '1pt' })];
    return this.make('B', 'paragraph', undefined, properties, { 'style:master-page-name': master });
  }
  text(style: string | undefined, attributes: Attributes): string {
    return this.make('T', 'text', style, [el('style:text-properties', attributes)]);
  }
  graphic(style: string | undefined, attributes: Attributes, inside: Xml[] = []): string {
    return this.make('G', 'graphic', style, [el('style:graphic-properties', attributes, inside)]);
  }
  /** Of a section in columns (16.27). */
  columns(count: number, gap: number): string {
    const columns = el('style:columns', { 'fo:column-count': count, 'fo:column-gap': pt(gap) });
    return this.make('S', 'section', undefined, [el('style:section-properties', {}, [columns])]);
  }
  page(attributes: Record<string, string | undefined>): string {
    return this.make('D', 'drawing-page', undefined, [el('style:drawing-page-properties', attributes)]);
  }
  /** Of a row that is so high, or at least (20.346, 20.310). */
  rowHeight(length: string, isExact: boolean): string {
    const height = isExact ? { 'style:row-height': length, 'style:use-optimal-row-height': 'false' } : { 'style:min-row-height': length };
    return this.make('R', 'table-row', undefined, [el('style:table-row-properties', height)]);
  }
  columnWidth(length: string): string {
    return this.make('C', 'table-column', undefined, [el('style:table-column-properties', { 'style:column-width': length })]);
  }

  /** The whole look of a cell: there it has no style that its table's could change. */
  cell(head: Head, table: Table, cell: Cell): string {
    const look = lookOfCell(head, table, cell);
    const line = (s: Stroke | null | undefined): string =>
      s && s.weight > 0 && s.paint.type !== 'none' && s.paint.type !== 'gradient'
        ? `${pt(s.weight)} solid ${solidHex(s.paint, head.swatches)}`
        : 'none';
    const [top, right, bottom, left] = roomInCell(look);
    const sides = look.sides ? Object.fromEntries(Object.entries(look.sides).map(([side, s]) => [`fo:border-${side}`, line(s)])) : {};
    const fill = look.fill;
    return this.make('Z', 'table-cell', undefined, [
      el('style:table-cell-properties', {
        'fo:background-color': fill && fill.type !== 'none' && fill.type !== 'gradient' ? solidHex(fill, head.swatches) : 'transparent',
        'style:vertical-align': { top: 'top', centre: 'middle', bottom: 'bottom' }[cell.verticalAlign],
        'fo:border': line(look.stroke),
        ...sides,
        'fo:padding-top': pt(top),
        'fo:padding-right': pt(right),
        'fo:padding-bottom': pt(bottom),
        'fo:padding-left': pt(left),
      }),
    ]);
  }

  private make(
    stem: string,
    family: string,
    parent: string | undefined,
    properties: Xml[],
    more: Record<string, string | undefined> = {},
  ): string {
    const key = JSON.stringify([family, parent, properties, more]);
    let name = this.names.get(key);
    if (name === undefined) {
      name = `${stem}${this.names.size + 1}`;
      this.names.set(key, name);
      this.nodes.push(
        el('style:style', { 'style:name': name, 'style:family': family, 'style:parent-style-name': parent, ...more }, properties),
      );
    }
    return name;
  }
}
