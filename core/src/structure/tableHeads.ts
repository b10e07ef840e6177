import type { Head } from '../folio/head.ts';
import type { Cell, Story, Table } from '../folio/story.ts';
import { paragraphRole } from '../folio/resolve.ts';
import { cellsInOrder } from '../folio/tableCells.ts';

/**
 * Whether a cell heads its column or its row: as one of the table’s heading rows, as a heading of its own, or because the style
 * of its text means a table heading.
 */
export function cellHeads(head: Head, story: Story, table: Table, cell: Cell): 'column' | 'row' | null {
  if (cell.row < table.headerRows) return 'column';
  if (cell.header) return 'row';
  const [first] = cell.order.flatMap((id) => (story.blocks[id]?.kind === 'paragraph' ? [story.blocks[id]] : []));
  if (!first || paragraphRole(head, first.style).element !== 'th') return null;
  return cell.row === 0 ? 'column' : 'row';
}

/** Whether cells of a table's first column head their rows. */
export const firstColumnHeads = (head: Head, story: Story, table: Table): boolean =>
  cellsInOrder(table).some((c) => c.column === 0 && c.row >= table.headerRows && cellHeads(head, story, table, c) === 'row');

/** Whether a cell heads others in formats that tell it by its row and its column alone. */
export const headsByPlace = (head: Head, story: Story, table: Table, cell: Cell): boolean =>
  cell.row < table.headerRows || (cell.column === 0 && firstColumnHeads(head, story, table));
