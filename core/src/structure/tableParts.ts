import type { ComposedFrame } from '../compose/marks.ts';
import type { Head } from '../folio/head.ts';
import type { Cell, Story, Table } from '../folio/story.ts';
import { cellHeads } from './tableHeads.ts';

/** A cell as it is read: whether it heads its column or its row. */
interface ReadCell {
  cell: Cell;
  heads: 'column' | 'row' | null;
}

/** As much of a table as is read in one go: all of it, or what a column or frame holds, with the rows that head it. */
export interface TablePart {
  table: Table;
  rows: { at: number; heading: boolean; cells: ReadCell[] }[];
}

/**
 * The parts of tables that a frame shows, by cell, in the order in which they stand. Rows that head a table are shown
 * again where it goes on: there a new part begins.
 */
export class TableParts {
  private readonly byTable = new Map<string, TablePart[]>();

  constructor(
    private readonly head: Head,
    composed: ComposedFrame,
    private readonly story: Story,
  ) {
    const owners = new Map<string, Table>();
    for (const block of Object.values(story.blocks))
      if (block.kind === 'table') for (const id of Object.keys(block.cells)) owners.set(id, block);
    for (const box of composed.boxes) {
      const table = box.kind === 'cell' && box.subject !== undefined ? owners.get(box.subject) : undefined;
      if (table) this.add(table, table.cells[box.subject!]!);
    }
  }

  private add(table: Table, cell: Cell): void {
    const parts = this.byTable.get(table.id) ?? [];
    this.byTable.set(table.id, parts);
    let part = parts[parts.length - 1];
    if (!part || holds(part, cell)) parts.push((part = { table, rows: [] }));
    const heading = cell.row < table.headerRows;
    let row = part.rows[part.rows.length - 1];
    if (row?.at !== cell.row) {
      // Rows in which cells from above take all the room are rows as well.
      for (let at = row ? row.at + 1 : cell.row; at < cell.row && isCovered(part, at); at++)
        part.rows.push({ at, heading: at < table.headerRows, cells: [] });
      part.rows.push((row = { at: cell.row, heading, cells: [] }));
    }
    row.cells.push({ cell, heads: cellHeads(this.head, this.story, table, cell) });
  }

  /** The part in which a cell stands for the first time, or after so many times. */
  of(table: string, cell: Cell, times: number): TablePart | undefined {
    return this.byTable.get(table)?.filter((part) => holds(part, cell))[times];
  }
}

const holds = (part: TablePart, cell: Cell): boolean => part.rows.some((r) => r.cells.some((c) => c.cell === cell));

const isCovered = (part: TablePart, row: number): boolean =>
  part.rows.some((r) => r.cells.some(({ cell }) => cell.row < row && cell.row + cell.rows > row));
