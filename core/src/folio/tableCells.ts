import type { Cell, Story, Table } from './story.ts';

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
