import type { Head } from '../folio/head.ts';
import type { Paint } from '../folio/colour.ts';
import { cellsInOrder, lookOfCell, roomInCell } from '../folio/tableCells.ts';
import type { Cell, Table } from '../folio/story.ts';
import type { CellStyle } from '../folio/styles.ts';
import { ColumnFill, placed } from './columnFill.ts';
import type { Rect } from '../folio/geometry.ts';
import type { FrameBox, SetLine } from './marks.ts';
import type { BuiltLine } from './setLine.ts';

/** Rows that stay together because cells span them: lines and boxes from the group's top left. */
export interface RowGroup {
  /** Rows `[from, to)` of the table. */
  from: number;
  to: number;
  height: number;
  lines: SetLine[];
  boxes: FrameBox[];
}
export interface SetTable {
  header: RowGroup[];
  body: RowGroup[];
  footer: RowGroup[];
  width: number;
}

/** Column widths: fixed ones as they are, the rest by their shares of what is left; never negative. */
export function columnWidths(columns: Table['columns'], room: number): number[] {
  const fixed = columns.reduce((sum, c) => sum + (c.unit === 'pt' ? c.width : 0), 0);
  const shares = columns.reduce((sum, c) => sum + (c.unit === 'share' ? c.width : 0), 0);
  const left = Math.max(0, room - fixed);
  return columns.map((c) => (c.unit === 'pt' ? c.width : shares > 0 ? (left * c.width) / shares : 0));
}

/** Sets a table for a room: cells with their text, rows as high as their contents or their exact heights. */
export function setTable(head: Head, table: Table, room: number, linesOf: (paragraph: string, width: number) => BuiltLine[]): SetTable {
  const widths = columnWidths(table.columns, room);
  const lefts = widths.reduce<number[]>((at, w) => [...at, at[at.length - 1]! + w], [0]);
  const rowCount = table.rows.length;
  const cells = cellsInOrder(table)
    .filter((c) => c.row < rowCount && c.column < widths.length)
    .map((cell) => {
      const rows = Math.min(cell.rows, rowCount - cell.row);
      const right = lefts[Math.min(cell.column + cell.columns, widths.length)]!;
      const style = lookOfCell(head, table, cell);
      const [insetTop, insetRight, insetBottom, insetLeft] = roomInCell(style);
      const left = lefts[cell.column]!;
      const width = Math.max(0, right - left - insetLeft - insetRight);
      const fill = new ColumnFill({ x: 0, top: 0, width, height: Infinity }, 0, { firstBaseline: 'ascent', verticalAlign: 'top' }, null);
      for (const id of cell.order) for (const line of linesOf(id, width)) fill.place(line, false);
      const height = (fill.isEmpty ? 0 : fill.bottom) + insetTop + insetBottom;
      return { cell, rows, left, width: right - left, style, insetTop, insetLeft, lines: fill.finish().lines, height };
    });
  const heights = table.rows.map((r) => r.height);
  for (const single of [true, false])
    for (const c of cells) {
      if ((c.rows === 1) !== single) continue;
      const last = c.cell.row + c.rows - 1;
      if (table.rows[last]!.exact) continue;
      const have = heights.slice(c.cell.row, last + 1).reduce((a, b) => a + b, 0);
      heights[last] = heights[last]! + Math.max(0, c.height - have);
    }
  const groups = rowGroups(rowCount, cells).map(([from, to]): RowGroup => {
    const tops = heights.slice(from, to).reduce<number[]>((at, h) => [...at, at[at.length - 1]! + h], [0]);
    const group: RowGroup = { from, to, height: tops[to - from]!, lines: [], boxes: [] };
    for (const c of cells) {
      if (c.cell.row < from || c.cell.row >= to) continue;
      const [top, bottom] = [tops[c.cell.row - from]!, tops[c.cell.row + c.rows - from]!];
      const box = { x: c.left, y: top, width: c.width, height: bottom - top };
      const { stroke } = c.style;
      const paint: Paint | undefined = c.style.fill;
      group.boxes.push({
        kind: 'cell',
        box,
        subject: c.cell.id,
        ...(paint && paint.type !== 'none' && { fill: paint }),
        ...(stroke && stroke.weight > 0 && { stroke: { paint: stroke.paint, weight: stroke.weight, dashes: stroke.dashes } }),
      });
      group.boxes.push(...sideLines(c.style.sides, box, c.cell.id));
      const free = bottom - top - c.height;
      const shift =
        top + c.insetTop + Math.max(0, free) * (c.cell.verticalAlign === 'centre' ? 0.5 : c.cell.verticalAlign === 'bottom' ? 1 : 0);
      for (const line of c.lines) group.lines.push(placed(line, line.x + c.left + c.insetLeft, line.baseline + shift, 0));
    }
    return group;
  });
  const { headerRows, footerRows } = table;
  return {
    header: groups.filter((g) => g.to <= headerRows),
    body: groups.filter((g) => g.to > headerRows && g.from < rowCount - footerRows),
    footer: groups.filter((g) => g.to > headerRows && g.from >= rowCount - footerRows),
    width: lefts[widths.length]!,
  };
}

/** Lines on single sides of a cell, centred on its edges; those with dashes as a row of short ones. */
function sideLines(sides: CellStyle['sides'], { x, y, width, height }: Rect, subject: string): FrameBox[] {
  if (!sides) return [];
  const out: FrameBox[] = [];
  const edges = { top: [x, y, width, 0], right: [x + width, y, 0, height], bottom: [x, y + height, width, 0], left: [x, y, 0, height] };
  for (const [side, [ex, ey, along, down]] of Object.entries(edges) as [keyof typeof edges, [number, number, number, number]][]) {
    const stroke = sides[side];
    if (!stroke || stroke.weight <= 0) continue;
    const half = stroke.weight / 2;
    for (const [from, to] of strokesOf(along || down, stroke.dashes)) {
      const box: Rect =
        along > 0
          ? { x: ex + from, y: ey - half, width: to - from, height: stroke.weight }
          : { x: ex - half, y: ey + from, width: stroke.weight, height: to - from };
      out.push({ kind: 'rule', box, fill: stroke.paint, subject });
    }
  }
  return out;
}

/** What a line with dashes covers of its length; one with more dashes than can be told apart is drawn through. */
function strokesOf(length: number, dashes: readonly number[]): [number, number][] {
  const pattern = dashes.length % 2 ? [...dashes, ...dashes] : dashes;
  const period = pattern.reduce((a, b) => a + b, 0);
  if (period <= 0 || length / period > 1000) return [[0, length]];
  const out: [number, number][] = [];
  for (let at = 0, i = 0; at < length; at += pattern[i]!, i = (i + 1) % pattern.length)
    if (i % 2 === 0 && pattern[i]! > 0) out.push([at, Math.min(length, at + pattern[i]!)]);
  return out;
}

/** Rows joined where a cell spans them. */
function rowGroups(count: number, cells: readonly { cell: Cell; rows: number }[]): [number, number][] {
  const out: [number, number][] = [];
  for (let from = 0; from < count;) {
    let to = from + 1;
    for (let row = from; row < to; row++) for (const c of cells) if (c.cell.row === row) to = Math.max(to, row + c.rows);
    out.push([from, to]);
    from = to;
  }
  return out;
}
