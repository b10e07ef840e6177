import type { Stroke } from './appearance.ts';
import type { Head } from './head.ts';
import { styleChain } from './resolve.ts';
import type { Cell, Story, Table } from './story.ts';
import type { CellStyle } from './styles.ts';

const ordered = new WeakMap<Table, readonly Cell[]>();

/** A table's cells in reading order: row by row. Worked out once, since a table may be set again and again. */
export function cellsInOrder(table: Table): readonly Cell[] {
  let cells = ordered.get(table);
  if (!cells) ordered.set(table, (cells = Object.values(table.cells).sort((a, b) => a.row - b.row || a.column - b.column)));
  return cells;
}

const places = new WeakMap<Story['blocks'], ReadonlyMap<string, { table: Table; cell: Cell }>>();

/** The cell in which each paragraph of a story's tables stands. */
export function cellsByParagraph(story: Story): ReadonlyMap<string, { table: Table; cell: Cell }> {
  let known = places.get(story.blocks);
  if (!known) {
    const found = new Map<string, { table: Table; cell: Cell }>();
    for (const table of Object.values(story.blocks))
      if (table.kind === 'table')
        for (const cell of Object.values(table.cells)) for (const id of cell.order) found.set(id, { table, cell });
    places.set(story.blocks, (known = found));
  }
  return known;
}

/** The style of a cell: its own, else the one that the table's style gives its row. */
export function styleOfCell(head: Pick<Head, 'tableStyles'>, table: Table, cell: Cell): string | undefined {
  const style = table.style === undefined ? undefined : head.tableStyles[table.style];
  const inHeader = cell.row < table.headerRows || cell.header;
  const bodyRow = cell.row - table.headerRows;
  const { alternate } = style ?? {};
  const alternates = !inHeader && alternate && Math.floor(bodyRow / alternate.every) % 2 === 1;
  return cell.style ?? (inHeader ? (style?.header ?? style?.body) : alternates ? alternate.style : style?.body);
}

/** How a cell looks: by its style; what is only the cell's goes before it. */
export const lookOfCell = (head: Pick<Head, 'cellStyles' | 'tableStyles'>, table: Table, cell: Cell): Partial<CellStyle> => ({
  ...lookOfCellStyle(head, styleOfCell(head, table, cell)),
  ...ofItsOwn(cell),
});
export const lookOfCellStyle = (head: Pick<Head, 'cellStyles'>, id: string | undefined): Partial<CellStyle> =>
  Object.assign({}, ...styleChain(head.cellStyles, id)) as Partial<CellStyle>;
const ofItsOwn = (cell: Cell): Partial<CellStyle> => ({
  ...(cell.fill !== undefined && { fill: cell.fill }),
  ...(cell.stroke !== undefined && { stroke: cell.stroke }),
  ...(cell.sides !== undefined && { sides: cell.sides }),
  ...(cell.inset !== undefined && { inset: cell.inset }),
});

/** The line along a side of a cell: one of that side’s own, else the one all around. */
export function lineOfSide(look: Partial<CellStyle>, side: keyof NonNullable<CellStyle['sides']>): Stroke | null {
  const line = look.sides?.[side] ?? look.stroke;
  return line && line.weight > 0 ? line : null;
}

/** Room inside a cell on every side where no style says otherwise, in points. */
const INSET = 4;

/** Room around a cell's text: top, right, bottom, left. */
export const roomInCell = ({ inset = INSET }: Partial<CellStyle>): readonly [number, number, number, number] =>
  typeof inset === 'number' ? [inset, inset, inset, inset] : inset;

/** Which cell covers each place of a table, row by row; where two would, the first has it. */
export function cellsByPlace(table: Table): (Cell | undefined)[][] {
  const slots: (Cell | undefined)[][] = table.rows.map(() => []);
  for (const cell of cellsInOrder(table))
    for (let row = cell.row; row < Math.min(table.rows.length, cell.row + cell.rows); row++)
      for (let column = cell.column; column < Math.min(table.columns.length, cell.column + cell.columns); column++)
        slots[row]![column] ??= cell;
  return slots;
}
