import type { TextFrame } from '../folio/items.ts';
import type { FrameBox, SetLine } from './marks.ts';
import type { BuiltLine } from './setLine.ts';
import type { SetNote } from './notes.ts';

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
  const columns: Column[] = [];
  for (let i = 0; i < frame.columns; i++) columns.push({ x: left + i * (width + frame.gutter), top, width, height });
  return columns;
}

/** A grid of baselines in a frame's own space. */
export interface BaselineGrid {
  start: number;
  step: number;
}

/** Room for descenders is taken as there is when it is no more than this short, in points. */
const NEAR = 0.01;

/** Something placed in a column: a line of text, or a row of a table with its own lines and boxes. */
interface Slab {
  lines: SetLine[];
  boxes: readonly FrameBox[];
  /** How low it reaches, and where its baseline stands (for a row: its bottom). */
  bottom: number;
  baseline: number;
  notes: SetNote[];
}

const NO_BOXES: readonly FrameBox[] = [];

/** A line in its place: written out, since copies by spreading are the dearest part of filling a column. */
export const placed = (line: SetLine, x: number, baseline: number, column: number): SetLine => ({
  paragraph: line.paragraph,
  start: line.start,
  end: line.end,
  x,
  baseline,
  width: line.width,
  measure: line.measure,
  ascent: line.ascent,
  descent: line.descent,
  spaceAtEnd: line.spaceAtEnd,
  cut: line.cut,
  column,
  first: line.first,
  last: line.last,
  runs: line.runs,
  rise: line.rise,
  anchored: line.anchored,
});

const heightOf = (notes: readonly SetNote[]): number => {
  let height = 0;
  for (const note of notes) height += note.height;
  return height;
};

/** How far below a column's top the first baseline stands. */
function firstBaseline(line: BuiltLine, rule: TextFrame['firstBaseline']): number {
  if (rule === 'leading') return line.leading;
  const rise = line.rise ?? 0;
  const run = line.runs.find((r) => !r.shift) ?? line.runs[0];
  if (rule === 'ascent' || !run) return line.ascent + rise;
  return ((rule === 'capHeight' ? run.font.capHeight : run.font.xHeight) / run.font.unitsPerEm) * run.size + rise;
}

/**
 * A column being filled: places lines and table rows one under another until one does not fit, keeps room for
 * the notes of what it holds, and can give back what was placed last.
 */
export class ColumnFill {
  private slabs: Slab[] = [];
  /** What notes of earlier columns have left over stands first at the foot. */
  private readonly carried: SetNote[] = [];
  private pending = 0;
  /** Height of the notes of all that stands here. */
  private noteHeight = 0;

  constructor(
    readonly column: Column,
    readonly index: number,
    private readonly frame: Pick<TextFrame, 'firstBaseline' | 'verticalAlign'>,
    private readonly grid: BaselineGrid | null,
  ) {}

  get count(): number {
    return this.slabs.length;
  }

  get isEmpty(): boolean {
    return this.slabs.length === 0;
  }

  /** Room between paragraphs; at the top of a column there is none. */
  addSpace(points: number): void {
    if (!this.isEmpty) this.pending += points;
  }

  /** Room that what stands last wants below itself. */
  get spaceAfter(): number {
    return this.pending;
  }

  /** Where the next line's baseline would stand. */
  nextBaseline(line: BuiltLine, alignToGrid: boolean): number {
    const last = this.slabs[this.slabs.length - 1];
    const natural = !last
      ? this.column.top + firstBaseline(line, this.frame.firstBaseline)
      : last.baseline + this.pending + this.leadAfter(last, line);
    if (!alignToGrid || !this.grid) return natural;
    const { start, step } = this.grid;
    return start + Math.ceil((natural - start) / step - 1e-4) * step;
  }

  /** After a table row a line stands below the row by its own ascent. */
  private leadAfter(last: Slab, line: BuiltLine): number {
    return last.boxes.length || last.lines.length !== 1 ? line.ascent + (line.rise ?? 0) : line.leading;
  }

  /** Places a line, at `baseline` where its place is given; false where the column has no room for it and its notes. */
  place(line: BuiltLine, alignToGrid: boolean, notes: SetNote[] = [], baseline = this.nextBaseline(line, alignToGrid)): boolean {
    const bottom = baseline + line.descent;
    if (bottom > this.limit(notes) + NEAR) return false;
    this.push({ lines: [placed(line, this.column.x + line.x, baseline, this.index)], boxes: NO_BOXES, bottom, baseline, notes });
    return true;
  }

  /** Takes in what a note of an earlier column has left over. */
  carry(note: SetNote): void {
    this.carried.push(note);
    this.noteHeight += note.height;
  }

  /** The height that is left for notes if a line were placed next: below it, above what stands at the foot already. */
  roomForNotes(line: BuiltLine, alignToGrid: boolean): number {
    return this.roomBelow(this.nextBaseline(line, alignToGrid) + line.descent);
  }
  /** The same, below all that stands here. */
  roomBelow(bottom = this.bottom): number {
    return this.column.top + this.column.height - NOTE_GAP - this.noteHeight - bottom;
  }

  /** Places a block of a known height: table rows. Their lines and boxes are told from its top left. */
  placeBlock(height: number, lines: readonly SetLine[], boxes: readonly FrameBox[], notes: SetNote[] = []): boolean {
    const last = this.slabs[this.slabs.length - 1];
    const top = last ? last.bottom + this.pending : this.column.top;
    if (top + height > this.limit(notes) + NEAR) return false;
    const { x } = this.column;
    this.push({
      lines: lines.map((l) => placed(l, l.x + x, l.baseline + top, this.index)),
      boxes: boxes.map((b) => ({ ...b, box: { ...b.box, x: b.box.x + x, y: b.box.y + top } })),
      bottom: top + height,
      baseline: top + height,
      notes,
    });
    return true;
  }

  private push(slab: Slab): void {
    this.slabs.push(slab);
    this.noteHeight += heightOf(slab.notes);
    this.pending = 0;
  }

  /** How low text may reach above the notes of all that stands here. */
  private limit(more: readonly SetNote[]): number {
    const height = this.noteHeight + heightOf(more);
    return this.column.top + this.column.height - (height > 0 ? height + NOTE_GAP : 0);
  }

  /** Takes back everything after the first `count` slabs. */
  truncate(count: number): void {
    for (const slab of this.slabs.splice(count)) this.noteHeight -= heightOf(slab.notes);
    this.pending = 0;
  }

  /** Where the last line ends; the column's top while it is empty. */
  get bottom(): number {
    return this.slabs[this.slabs.length - 1]?.bottom ?? this.column.top;
  }

  /** Moves what was placed to the frame's vertical alignment, sets the notes at the foot, and gives all out. */
  finish(): { lines: SetLine[]; boxes: FrameBox[] } {
    const notes = this.noteHeight > 0 ? [...this.carried, ...this.slabs.flatMap((s) => s.notes)] : [];
    const free = this.limit([]) - this.bottom;
    const { verticalAlign } = this.frame;
    const last = this.slabs.length - 1;
    const share = (i: number): number =>
      verticalAlign === 'centre' ? 0.5 : verticalAlign === 'bottom' ? 1 : verticalAlign === 'justify' && last > 0 ? i / last : 0;
    const lines: SetLine[] = [];
    const boxes: FrameBox[] = [];
    this.slabs.forEach((slab, i) => {
      const shift = verticalAlign === 'top' ? 0 : free * share(i);
      for (const line of slab.lines) lines.push(shift ? placed(line, line.x, line.baseline + shift, this.index) : line);
      for (const b of slab.boxes) boxes.push(shift ? { ...b, box: { ...b.box, y: b.box.y + shift } } : b);
    });
    if (notes.length) {
      let top = this.column.top + this.column.height - notes.reduce((sum, n) => sum + n.height, 0);
      boxes.push({
        kind: 'noteRule',
        box: { x: this.column.x, y: top - NOTE_GAP / 2, width: this.column.width / 3, height: 0.5 },
        fill: notes[0]!.paint,
      });
      for (const note of notes) {
        for (const line of note.lines) lines.push(placed(line, line.x + this.column.x, line.baseline + top, this.index));
        top += note.height;
      }
    }
    return { lines, boxes };
  }
}

/** Room between text and notes, in points; a thin rule stands in its middle (common practice). */
const NOTE_GAP = 10;
