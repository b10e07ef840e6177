import type { Story } from './story.ts';

export type Table = Extract<Story['blocks'][string], { kind: 'table' }>;
export type Cell = Table['cells'][string];

const ordered = new WeakMap<Table, readonly Cell[]>();

/** A table's cells in reading order: row by row. Worked out once, since a table may be set again and again. */
export function cellsInOrder(table: Table): readonly Cell[] {
  let cells = ordered.get(table);
  if (!cells) ordered.set(table, (cells = Object.values(table.cells).sort((a, b) => a.row - b.row || a.column - b.column)));
  return cells;
}
