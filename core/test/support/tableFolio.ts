import { produce } from 'immer';
import type { Folio } from '../../src/index.ts';
import { tinyFolio } from './tinyFolio.ts';

export interface CellInput {
  row: number;
  column: number;
  text: string;
  [more: string]: unknown;
}
/** A document whose text is one table. */
export function tableFolio(
  columns: object[],
  rows: object[],
  cells: CellInput[],
  more: object = {},
  o: Parameters<typeof tinyFolio>[1] = {},
): Folio {
  return produce(tinyFolio(['x'], o), (d) => {
    const story = d.stories['t']!;
    story.blocks = {};
    const table = {
      kind: 'table',
      id: 'tb',
      columns,
      rows: rows.map((r) => ({ height: 0, exact: false, ...r })),
      headerRows: 0,
      footerRows: 0,
      cells: {} as Record<string, object>,
      ...more,
    };
    cells.forEach((c, i) => {
      const { text, ...cell } = c;
      story.blocks[`q${i}`] = { kind: 'paragraph', id: `q${i}`, style: 'p', content: text ? [{ type: 'span', text }] : [] };
      table.cells[`c${i}`] = { id: `c${i}`, rows: 1, columns: 1, verticalAlign: 'top', header: false, order: [`q${i}`], ...cell };
    });
    story.blocks['tb'] = table as never;
    story.order = ['tb'];
  });
}

/** Cells that say where they stand. */
export const grid = (rows: number, columns: number): CellInput[] =>
  Array.from({ length: rows * columns }, (_, i) => ({
    row: Math.floor(i / columns),
    column: i % columns,
    text: `r${Math.floor(i / columns)}c${i % columns}`,
  }));
