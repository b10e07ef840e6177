import type { Head } from '../folio/head.ts';
import type { Cell, Story, Table } from '../folio/story.ts';
import { paragraphRole } from '../folio/resolve.ts';

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
