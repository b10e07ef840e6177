import type { Paragraph, Table } from '../folio/story.ts';
import { ColumnFill } from './columnFill.ts';
import type { Column } from './columnFill.ts';
import type { Flow, FlowFrame, FlowState } from './flow.ts';
import { linesWithin, partOfNote } from './notes.ts';
import type { CarriedNote, SetNote } from './notes.ts';
import { linesOf, plainRoom } from './prepare.ts';
import { findNote, linesOfAll, preparedIn } from './preparedIn.ts';
import type { ParagraphLines } from './paragraphLines.ts';
import type { Prepared, Room } from './prepare.ts';
import type { BuiltLine } from './setLine.ts';
import { setTable } from './table.ts';
import type { RowGroup, SetTable } from './table.ts';
import { freeIntervals } from './wrap.ts';
import type { Obstacle } from './wrap.ts';

/** A paragraph or table begun in this column, so that it can be given back. */
interface Begun {
  block: number;
  unit: number;
  /** Slabs placed before it. */
  before: number;
  keepWithNext: number;
}

/** Rows that stand together where a table begins and where it ends, as lines do by widows and orphans (common practice). */
const ROWS_TOGETHER = 2;

/** What has been worked out for the columns of a frame: balanced ones are filled again and again. */
export interface FrameMemory {
  prepared: Map<string, Prepared>;
  tables: Map<string, SetTable>;
}

/** Fills one column with paragraphs and tables, minding what must stay together. */
export class ColumnFiller {
  seen = 0;
  private readonly begun: Begun[] = [];
  private readonly plain: Room;
  /** Notes that go on in the next column. */
  private readonly left: CarriedNote[] = [];

  constructor(
    private readonly flow: Flow,
    private readonly at: FlowFrame,
    readonly fill: ColumnFill,
    private readonly column: Column,
    private readonly obstacles: readonly Obstacle[],
    /** Whether the column begins where the frame does. */
    private readonly firstColumn: boolean,
    /** The block before which it stops. */
    private readonly until: number,
    private readonly memory: FrameMemory,
  ) {
    this.plain = plainRoom(column.width);
  }

  propertiesOf(id: string): Prepared['properties'] | undefined {
    return this.memory.prepared.get(id)?.properties;
  }

  private prepare(paragraph: Paragraph): Prepared {
    const prepared = preparedIn(this.flow, paragraph, this.at);
    this.memory.prepared.set(paragraph.id, prepared);
    return prepared;
  }

  /** Places as much as the column holds. */
  fillFrom(state: FlowState): FlowState {
    const { notes, ...start } = state;
    // A note that fills the column leaves no room for text.
    if (notes && !this.goOnWith(notes)) return { ...start, notes: this.left };
    const next = this.fillBlocks(start);
    return this.left.length ? { ...next, notes: this.left } : next;
  }

  /** Puts what earlier notes have left over at the foot; false where not all of it has room. */
  private goOnWith(notes: readonly CarriedNote[]): boolean {
    for (const carried of notes) {
      const note = this.noteById(carried.id);
      if (!note) continue;
      const lines = this.left.length ? 0 : linesWithin(note, carried.from, this.fill.roomBelow());
      if (lines) this.fill.carry(partOfNote(note, carried.from, carried.from + lines));
      if (carried.from + lines < note.lines.length) this.left.push({ id: carried.id, from: carried.from + lines });
    }
    return !this.left.length;
  }

  private fillBlocks(state: FlowState): FlowState {
    const { order, story } = this.flow;
    let now = state;
    while (now.block < this.until) {
      const block = story.blocks[order[now.block]!];
      this.seen = now.block;
      if (!block) {
        now = { ...now, block: now.block + 1, unit: 0, broken: false };
        continue;
      }
      const next = block.kind === 'paragraph' ? this.paragraph(block, now) : this.table(block, now);
      if (next.done) now = { block: now.block + 1, unit: 0, broken: false, skip: null };
      else return next.state;
    }
    return now;
  }

  private paragraph(paragraph: Paragraph, now: FlowState): { done: true } | { done: false; state: FlowState } {
    const prepared = this.prepare(paragraph);
    const { properties } = prepared;
    const starts = now.unit === 0;
    const wanted = starts && !now.broken ? this.breakWanted(properties.breakBefore) : null;
    if (wanted) return { done: false, state: { ...now, broken: true, skip: wanted === 'column' ? null : wanted } };
    const before = this.fill.count;
    if (starts) this.fill.addSpace(properties.spaceBefore);
    const { lines, baselineOf } = this.linesFor(prepared, now.unit);
    let placed = 0;
    for (let line = lines.line(0); line; line = lines.line(placed)) {
      const notes = this.notesIn(prepared, lines.range(placed));
      const baseline = baselineOf?.(placed);
      if (!this.fill.place(line, properties.alignToGrid, notes, baseline)) {
        // At a column's top there is nowhere else to go: the note is divided.
        const cut = this.fill.isEmpty && notes.length ? this.divide(notes, line, properties.alignToGrid) : null;
        if (!cut || !this.fill.place(line, properties.alignToGrid, cut.here, baseline)) break;
        this.left.push(...cut.left);
        placed++;
        if (!lines.has(placed)) break;
        return { done: false, state: { block: now.block, unit: lines.range(placed).start, broken: true, skip: null } };
      }
      placed++;
    }
    if (!lines.has(placed)) {
      this.begun.push({ block: now.block, unit: now.unit, before, keepWithNext: properties.keepWithNext });
      const short = starts && prepared.dropCapital ? prepared.dropCapital.lines - placed : 0;
      this.fill.addSpace(properties.spaceAfter + Math.max(0, short) * prepared.empty.leading);
      return { done: true };
    }
    const stay = this.staying(prepared, starts, before, placed, lines.countFrom(placed, properties.widows));
    if (stay === null) return { done: false, state: this.moveWhole(now, before) };
    this.fill.truncate(before + stay);
    return { done: false, state: { block: now.block, unit: stay ? lines.range(stay).start : now.unit, broken: true, skip: null } };
  }

  /**
   * How many of a paragraph's lines stay in this column, where `rest` (as far as it matters) found no room; null where it
   * moves on whole, with what must stay with it.
   */
  private staying(prepared: Prepared, starts: boolean, before: number, placed: number, rest: number): number | null {
    const { keepLines, orphans, widows } = prepared.properties;
    const stay = rest < widows ? Math.max(0, placed + rest - widows) : placed;
    const own = starts && (keepLines || stay < Math.max(1, orphans, prepared.dropCapital?.lines ?? 1));
    const chained = starts && stay < (this.begun.at(-1)?.keepWithNext ?? 0) && this.chainStart() !== null;
    if (before > 0 && (own || chained)) return null;
    // Nothing else stands here: what cannot be kept together is not.
    return starts && own ? placed : stay;
  }

  /** The first of the paragraphs before that must stay with what follows; null where they fill the column from its top. */
  private chainStart(): Begun | null {
    let first: Begun | null = null;
    for (let i = this.begun.length - 1; i >= 0 && this.begun[i]!.keepWithNext > 0; i--) {
      first = this.begun[i]!;
      // It began in an earlier column, or at this one's top: there is nothing to be gained.
      if (first.unit !== 0 || first.before === 0) return null;
    }
    return first;
  }

  private moveWhole(now: FlowState, before: number): FlowState {
    const chain = this.chainStart();
    this.fill.truncate(chain?.before ?? before);
    return { block: chain?.block ?? now.block, unit: 0, broken: true, skip: null };
  }

  /** Whether a paragraph wants to begin in another column, frame or page than this place. */
  private breakWanted(rule: Prepared['properties']['breakBefore']): 'column' | 'frame' | 'page' | null {
    if (rule === 'none') return null;
    const atTop = this.fill.isEmpty;
    if (rule === 'column') return atTop ? null : 'column';
    if (rule === 'frame') return atTop && this.firstColumn ? null : 'frame';
    return atTop && this.firstColumn && this.at.startsPage ? null : 'page';
  }

  /** A paragraph's lines from a unit on, with their baselines where they keep clear of something. */
  private linesFor(prepared: Prepared, unit: number): { lines: ParagraphLines; baselineOf?: (line: number) => number } {
    if (!this.obstacles.length) return { lines: linesOf(prepared, unit, this.plain) };
    const { room, baselines } = this.roomBeside(prepared);
    return { lines: linesOf(prepared, unit, room), baselineOf: baselines };
  }

  /** Places for lines from here down, keeping clear of obstacles; lines are taken to be evenly apart. */
  private roomBeside(prepared: Prepared): { room: Room; baselines: (line: number) => number } {
    const { leading, ascent, descent } = prepared.empty;
    const probe = { ...prepared.empty, runs: [], x: 0, width: 0 } as unknown as BuiltLine;
    const { x, width, top, height } = this.column;
    const slots: { x: number; width: number; baseline: number }[] = [];
    const end = Math.max(top, ...this.obstacles.map((o) => Math.min(o.bottom, top + height)));
    let baseline = this.fill.nextBaseline(probe, prepared.properties.alignToGrid);
    const step = Math.max(leading, 1);
    for (; baseline - ascent < end && slots.length < 4000; baseline += step)
      for (const free of freeIntervals(this.obstacles, x, x + width, baseline - ascent, baseline + descent))
        slots.push({ ...free, baseline });
    const rest = baseline;
    const at = (line: number): { x: number; width: number; baseline: number } =>
      slots[line] ?? { x: 0, width, baseline: rest + (line - slots.length) * step };
    const key = `beside|${width}|${slots.map((s) => `${s.x.toFixed(3)},${s.width.toFixed(3)}`).join(' ')}`;
    return { room: { key, slot: at }, baselines: (line) => at(line).baseline };
  }

  /** Footnotes whose references stand in a line, set for this column. */
  private notesIn(prepared: Prepared, line: { start: number; next: number }): SetNote[] {
    const { notes } = prepared;
    if (!notes.length) return [];
    return notes
      .filter((n) => n.node.kind === 'footnote' && n.at >= line.start && n.at < Math.max(line.next, line.start + 1))
      .map((n) => this.note(n.node.id, n.node.order, prepared));
  }

  /** As much of a line's notes as has room below it, and what goes on; null where not one line of them has. */
  private divide(notes: readonly SetNote[], line: BuiltLine, alignToGrid: boolean): { here: SetNote[]; left: CarriedNote[] } | null {
    const here: SetNote[] = [];
    const left: CarriedNote[] = [];
    let room = this.fill.roomForNotes(line, alignToGrid);
    for (const note of notes) {
      const lines = left.length ? 0 : linesWithin(note, 0, room);
      if (lines) {
        const part = partOfNote(note, 0, lines);
        here.push(part);
        room -= part.height;
      }
      if (lines < note.lines.length) left.push({ id: note.id, from: lines });
    }
    return here.length ? { here, left } : null;
  }

  /** A note that was begun in an earlier column, set for this one. */
  private noteById(id: string): SetNote | null {
    const found = findNote(this.flow, id);
    return found && this.note(id, found.note.order, this.prepare(found.owner));
  }

  private note(id: string, order: readonly string[], owner: Prepared): SetNote {
    const fill = new ColumnFill(
      { ...this.column, x: 0, top: 0, height: Infinity },
      0,
      { firstBaseline: 'leading', verticalAlign: 'top' },
      null,
    );
    for (const line of linesOfAll(this.flow, order, this.plain, (p) => this.prepare(p))) fill.place(line, false);
    return { id, height: fill.isEmpty ? 0 : fill.bottom, lines: fill.finish().lines, paint: owner.base.fill };
  }

  private setTable(table: Table): SetTable {
    const key = `${table.id} ${this.column.width}`;
    let set = this.memory.tables.get(key);
    if (!set) {
      set = setTable(this.flow.folio.head, table, this.column.width, (id, width) =>
        linesOfAll(this.flow, [id], plainRoom(width), (p) => this.prepare(p)),
      );
      this.memory.tables.set(key, set);
    }
    return set;
  }

  private table(table: Table, now: FlowState): { done: true } | { done: false; state: FlowState } {
    const set = this.setTable(table);
    const before = this.fill.count;
    const place = (groups: readonly RowGroup[]): boolean => groups.every((g) => this.fill.placeBlock(g.height, g.lines, g.boxes));
    const footer = set.footer.reduce((sum, g) => sum + g.height, 0);
    if (!place(set.header)) return this.tableMoves(before, now, now.unit);
    let row = now.unit;
    for (; row < set.body.length; row++) {
      const group = set.body[row]!;
      if (!this.fill.placeBlock(group.height, group.lines, group.boxes)) break;
      // Room for the footer is kept, so that it can stand below whatever row is last here.
      if (this.fill.bottom + footer > this.column.top + this.column.height + 0.01) {
        this.fill.truncate(this.fill.count - 1);
        break;
      }
    }
    const left = set.body.length - row;
    if (left > 0) {
      // As with lines, the last row is not left alone where one more can go with it.
      if (left < ROWS_TOGETHER && row - now.unit > ROWS_TOGETHER) {
        this.fill.truncate(this.fill.count - 1);
        row--;
      }
      // What must stay with the lines after it must stay with as many rows.
      const chained = now.unit === 0 && row < (this.begun.at(-1)?.keepWithNext ?? 0) && this.chainStart() !== null;
      const alone = now.unit === 0 && before > 0 && row < Math.min(ROWS_TOGETHER, set.body.length);
      if (row === now.unit || alone || chained) return this.tableMoves(before, now, now.unit);
    }
    place(set.footer);
    if (row < set.body.length) return { done: false, state: { ...now, unit: row, broken: true, skip: null } };
    this.begun.push({ block: now.block, unit: now.unit, before, keepWithNext: 0 });
    return { done: true };
  }

  /**
   * Not one row fits: on to the next column, with the paragraphs that must stay with it where it only begins. A row
   * higher than any column is left over, and said so as overflow.
   */
  private tableMoves(before: number, now: FlowState, row: number): { done: false; state: FlowState } {
    if (row === 0 && before > 0) return { done: false, state: this.moveWhole(now, before) };
    this.fill.truncate(before);
    return { done: false, state: { ...now, unit: row, skip: null } };
  }
}
