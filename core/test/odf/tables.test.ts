import { describe, expect, test } from '@jest/globals';
import { resolveParagraph } from '../../src/folio/resolve.ts';
import { lookOfCell } from '../../src/folio/tableCells.ts';
import type { Folio, Paragraph, Table } from '../../src/index.ts';
import { incoherences } from '../../src/folio/coherence.ts';
import { readFlat } from './support/flatFile.ts';

/** OpenDocument 1.3 part 3: 9.1 tables, 16.18 table:table-template, 19.615 table:default-cell-style-name. */
const cellStyle = (name: string, fill: string, more = '', text = ''): string =>
  `<style:style style:name="${name}" style:family="table-cell" ${more}><style:graphic-properties draw:fill="solid" draw:fill-color="${fill}"/>${text}</style:style>`;
const STYLES = `
  <style:style style:name="plain" style:family="table-cell"><style:graphic-properties draw:fill="none" fo:padding="0.1cm" fo:padding-left="0.25cm"/>
    <style:paragraph-properties fo:border="0.5pt solid #336699"/><style:text-properties fo:font-size="12pt"/></style:style>
  ${cellStyle('head', '#111111', 'style:parent-style-name="plain"', '<style:text-properties fo:font-weight="bold"/>')}
  ${cellStyle('odd', '#222222', 'style:parent-style-name="plain"')}
  ${cellStyle('body', '#333333', 'style:parent-style-name="plain"')}
  ${cellStyle('side', '#444444', 'style:parent-style-name="plain"')}
  <table:table-template table:name="striped"><table:first-row table:style-name="head"/><table:last-column table:style-name="side"/>
    <table:odd-rows table:style-name="odd"/><table:body table:style-name="body"/></table:table-template>`;
const grid = (rows: number, attributes: string, rowAttributes = '', cellAttributes = ''): string =>
  `<draw:frame svg:x="1cm" svg:y="1cm" svg:width="8cm" svg:height="4cm"><table:table ${attributes}><table:table-column table:number-columns-repeated="3"/>${Array.from(
    { length: rows },
    (_, r) =>
      `<table:table-row ${rowAttributes}>${['a', 'b', 'c'].map((c) => `<table:table-cell ${cellAttributes}><text:p>${c}${r}</text:p></table:table-cell>`).join('')}</table:table-row>`,
  ).join('')}</table:table></draw:frame>`;
const read = async (table: string, automatic = ''): Promise<{ folio: Folio; table: Table; fills: string[][] }> => {
  const { folio } = await readFlat({
    styles: STYLES,
    automatic,
    pages: `<draw:page draw:name="P1" draw:master-page-name="M">${table}</draw:page>`,
  });
  const found = Object.values(Object.values(folio.stories)[0]!.blocks).find((b): b is Table => b.kind === 'table')!;
  const fills = found.rows.map((_, row) => found.columns.map((__, column) => fillOf(folio, found, row, column)));
  return { folio, table: found, fills };
};
/** The fill that a cell gets in the end, as a grey from 0 to f. */
function fillOf({ head }: Folio, table: Table, row: number, column: number): string {
  const paint = lookOfCell(
    head,
    table,
    Object.values(table.cells).find((c) => c.row === row && c.column === column)!,
  ).fill;
  return paint?.type === 'colour' && paint.colour.space === 'rgb' ? Math.round(paint.colour.r * 15).toString(16) : 'none';
}

describe('looks of tables', () => {
  test('a template gives cells their named style by place: first row, last column, rows in turn, the rest', async () => {
    const { fills, table, folio } = await read(
      grid(
        4,
        'table:template-name="striped" table:use-first-row-styles="true" table:use-banding-rows-styles="true" table:use-last-column-styles="true"',
      ),
    );
    expect(fills).toEqual([
      ['1', '1', '1'],
      ['2', '2', '4'],
      ['3', '3', '4'],
      ['2', '2', '4'],
    ]);
    expect(table.headerRows).toBe(1);
    // Only the last column differs from what the table's own style gives.
    expect(Object.values(table.cells).filter((c) => c.style !== undefined)).toHaveLength(3);
    expect(Object.values(folio.head.tableStyles)).toHaveLength(1);
  });

  test('parts of a template that the table does not ask for have no effect', async () => {
    const { fills, table } = await read(grid(3, 'table:template-name="striped"'));
    expect(fills.flat()).toEqual(Array(9).fill('3'));
    expect(table.headerRows).toBe(0);
  });

  test('text in a cell has its cell style’s look; room and lines are the style’s', async () => {
    const { folio, table } = await read(grid(2, 'table:template-name="striped" table:use-first-row-styles="true"'));
    const [story] = Object.values(folio.stories);
    const look = (row: number) => {
      const cell = Object.values(table.cells).find((c) => c.row === row)!;
      return resolveParagraph(folio.head, story!.blocks[cell.order[0]!] as Paragraph).character;
    };
    expect([look(0).fontWeight, look(0).size, look(1).fontWeight]).toEqual([700, 12, 400]);
    const plain = Object.values(folio.head.cellStyles).find((s) => s.name === 'plain')!;
    expect(plain.inset).toEqual([2.83, 2.83, 2.83, 7.09].map((n) => expect.closeTo(n, 2)));
    expect(plain.stroke).toMatchObject({ weight: 0.5, paint: { colour: { r: 0.2, g: 0.4, b: 0.6 } } });
    // A cell's line is no border of its paragraphs.
    expect(Object.values(folio.head.paragraphStyles).some((s) => s.paragraph.border)).toBe(false);
  });

  test('a cell without a style of its own has its row’s, else its column’s; automatic ones add to the template', async () => {
    const automatic =
      '<style:style style:name="ce1" style:family="table-cell"><style:paragraph-properties fo:text-align="center"/></style:style>' +
      '<style:style style:name="ce2" style:family="table-cell"><style:table-cell-properties fo:border-bottom="1pt solid #ff0000" fo:border-top="none"/></style:style>';
    const { folio, table, fills } = await read(
      grid(2, 'table:template-name="striped" table:use-first-row-styles="true"', 'table:default-cell-style-name="ce1"'),
      automatic,
    );
    const text = Object.values(folio.stories)[0]!.blocks[Object.values(table.cells)[0]!.order[0]!] as Paragraph;
    expect(text.overrides?.align).toBe('centre');
    expect(fills[0]).toEqual(['1', '1', '1']);
    const other = await read(grid(1, '', '', 'table:style-name="ce2"'), automatic);
    expect(Object.values(other.table.cells)[0]!.sides).toMatchObject({ top: null, bottom: { weight: 1 } });
    expect(Object.values(other.table.cells)[0]!.stroke).toBeNull();
  });

  test('a table that stands in a text is a block of that text', async () => {
    const table = grid(2, '')
      .replace(/^.*?(<table:table)/, '$1')
      .replace('</draw:frame>', '');
    const { folio } = await readFlat({
      pages: `<draw:page draw:name="P1" draw:master-page-name="M"><draw:frame svg:width="9cm" svg:height="9cm"><draw:text-box><text:p>Before</text:p>${table}<text:p>After</text:p></draw:text-box></draw:frame></draw:page>`,
    });
    const [story] = Object.values(folio.stories);
    expect(story!.order.map((id) => story!.blocks[id]!.kind)).toEqual(['paragraph', 'table', 'paragraph']);
    expect(incoherences(folio)).toEqual([]);
  });
});
