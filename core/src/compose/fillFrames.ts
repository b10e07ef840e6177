import type { TextFrame } from '../folio/items.ts';
import type { SetLine } from './marks.ts';
import type { BuiltLine } from './setLine.ts';

/** A column of a frame in the frame's own space. */
export interface Column {
  x: number;
  top: number;
  width: number;
  height: number;
}

/** The columns of a frame: insets off, the rest shared equally with gutters between. Never negative. */
export function columnsOf(frame: Pick<TextFrame, 'size' | 'inset' | 'columns' | 'gutter'>): Column[] {
  const [top, right, bottom, left] = frame.inset;
  const width = Math.max(0, (frame.size.width - left - right - frame.gutter * (frame.columns - 1)) / frame.columns);
  const height = Math.max(0, frame.size.height - top - bottom);
  return Array.from({ length: frame.columns }, (_, i) => ({ x: left + i * (width + frame.gutter), top, width, height }));
}

/** How far below a column's top the first baseline stands. */
function firstBaseline(line: BuiltLine, rule: TextFrame['firstBaseline']): number {
  if (rule === 'leading') return line.leading;
  const run = line.runs[0];
  if (rule === 'ascent' || !run) return line.ascent;
  return ((rule === 'capHeight' ? run.font.capHeight : run.font.xHeight) / run.font.unitsPerEm) * run.size;
}

/** A column being filled: places lines one under another until one does not fit. */
export class ColumnFill {
  readonly lines: SetLine[] = [];
  private baseline = 0;
  private pending = 0;
  private gaps: number[] = [];

  constructor(
    private readonly column: Column,
    private readonly index: number,
    private readonly frame: Pick<TextFrame, 'firstBaseline' | 'verticalAlign'>,
  ) {}

  get isEmpty(): boolean {
    return this.lines.length === 0;
  }

  /** Room between paragraphs; at the top of a column there is none. */
  addSpace(points: number): void {
    if (!this.isEmpty) this.pending += points;
  }

  /** Places a line; false where the column has no room for it (its descenders included). */
  place(line: BuiltLine): boolean {
    const baseline = this.isEmpty
      ? this.column.top + firstBaseline(line, this.frame.firstBaseline)
      : this.baseline + this.pending + line.leading;
    if (baseline + line.descent > this.column.top + this.column.height + 0.01) return false;
    if (!this.isEmpty) this.gaps.push(this.pending);
    this.baseline = baseline;
    this.pending = 0;
    const { leading, ...set } = line;
    void leading;
    this.lines.push({ ...set, x: this.column.x + line.x, baseline, column: this.index });
    return true;
  }

  /** Moves the lines to the frame's vertical alignment and gives them out. */
  finish(): SetLine[] {
    const last = this.lines[this.lines.length - 1];
    if (!last || this.frame.verticalAlign === 'top') return this.lines;
    const free = this.column.top + this.column.height - (last.baseline + last.descent);
    const justify = this.frame.verticalAlign === 'justify' && this.lines.length > 1;
    return this.lines.map((line, i) => {
      const share =
        this.frame.verticalAlign === 'centre' ? 0.5 : this.frame.verticalAlign === 'bottom' ? 1 : justify ? i / (this.lines.length - 1) : 0;
      return { ...line, baseline: line.baseline + free * share };
    });
  }
}
