import { columnsOf } from '../compose/columnFill.ts';
import type { ComposedFrame, Composition, SetLine } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import type { Rect } from '../folio/geometry.ts';
import type { Item, TextFrame } from '../folio/items.ts';
import { isMasterInstance } from '../folio/masters.ts';
import { leadingOf, resolveParagraph } from '../folio/resolve.ts';
import type { Paragraph, Story, Table } from '../folio/story.ts';
import { cellsByParagraph } from '../folio/tableCells.ts';
import { contentLength, sliceContent } from '../folio/text.ts';
import { pageOfItem } from '../folio/traverse.ts';
import type { PagePlace } from '../folio/traverse.ts';

/** A box that text flows through, in the space of its frame: a column of it, or the part of one beside something that text runs around. */
interface BoxArea {
  item: string;
  page: string;
  rect: Rect;
}
/** What stands in a chain of boxes: a paragraph or a table, or the part of one where the text is cut. */
interface BoxBlock {
  block: Paragraph | Table;
  /** False where the beginning, or the end, stands in boxes elsewhere. */
  begins: boolean;
  ends: boolean;
}
/** Boxes that one text runs through, one after another. */
export interface BoxChain {
  story: Story;
  areas: BoxArea[];
  blocks: BoxBlock[];
}

export interface BoxScope {
  pages: readonly PagePlace[];
  shown(item: Item): boolean;
}

interface TakenFrame {
  frame: TextFrame;
  composed: ComposedFrame;
  page: string;
}

/**
 * The frames of a document as boxes of formats that know no columns and let no text run around anything: every column is a box, and
 * so is each part of one that is narrower. `most`: how many boxes a chain may have; where it has more, and where `linked` is false
 * at the end of every frame, the text is cut.
 */
export function boxChains(
  folio: Folio,
  composition: Composition,
  scope: BoxScope,
  { most, linked }: { most: number; linked: boolean },
): BoxChain[] {
  const frames = framesIn(composition, scope);
  const out: BoxChain[] = [];
  for (const story of Object.values(folio.stories))
    for (const run of runsOf(story, frames, linked)) {
      const areas = run.map((f) => ({ ...f, areas: areasOf(folio, story, f) }));
      for (let from = 0; from < areas.length;) {
        let to = from;
        let count = 0;
        // A frame is not taken apart; one with more boxes than a chain can have is a chain of its own.
        while (to < areas.length && (to === from || count + areas[to]!.areas.length <= most)) count += areas[to++]!.areas.length;
        const part = areas.slice(from, to);
        out.push({ story, areas: asHighAsTheirText(part.flatMap((f) => f.areas)), blocks: blocksOf(story, part) });
        from = to;
      }
    }
  return out;
}

/** Frames of pages in scope that are shown, by their ids. */
function framesIn(composition: Composition, { pages, shown }: BoxScope): Map<string, TakenFrame> {
  const out = new Map<string, TakenFrame>();
  for (const { page, spread } of pages)
    for (const item of Object.values(spread.items)) {
      const composed = item.kind === 'textFrame' ? composition.frames.get(item.id) : undefined;
      if (item.kind === 'textFrame' && composed && shown(item) && pageOfItem(spread, item).id === page.id)
        out.set(item.id, { frame: item, composed, page: page.id });
    }
  return out;
}

/** Frames of a text that follow one another and are all there: a text of a master page has such on every page. */
function runsOf(story: Story, frames: ReadonlyMap<string, TakenFrame>, linked: boolean): TakenFrame[][] {
  const order = story.frames.map((f) => f.item);
  const rank = new Map(order.map((id, i) => [id, i]));
  const ownName = (id: string): string => (isMasterInstance(id) ? id.slice(id.indexOf('/') + 1) : id);
  const groups = new Map<string, TakenFrame[]>();
  for (const [id, f] of frames) {
    if (f.composed.story !== story.id) continue;
    const key = isMasterInstance(id) ? id.slice(0, id.indexOf('/')) : rank.has(id) ? '' : id;
    groups.set(key, [...(groups.get(key) ?? []), f]);
  }
  const out: TakenFrame[][] = [];
  for (const group of groups.values()) {
    group.sort((a, b) => (rank.get(ownName(a.frame.id)) ?? 0) - (rank.get(ownName(b.frame.id)) ?? 0));
    let run: TakenFrame[] = [];
    let last = -1;
    for (const f of group) {
      const at = rank.get(ownName(f.frame.id)) ?? 0;
      if (run.length && (!linked || at !== last + 1)) {
        out.push(run);
        run = [];
      }
      run.push(f);
      last = at;
    }
    out.push(run);
  }
  return out.filter((run) => run.some((f) => f.composed.lines.length));
}

/** A box as its column is, and how high its text is in the layout. */
interface FilledArea extends BoxArea {
  filled: number;
}

/** Text goes on in the next box where it does in the layout: no box but the last has room for more than it holds. */
const asHighAsTheirText = (areas: readonly FilledArea[]): BoxArea[] =>
  areas.map(({ filled, rect, ...area }, i) => ({
    ...area,
    rect: i < areas.length - 1 ? { ...rect, height: Math.min(rect.height, filled) } : rect,
  }));

/** Lines this much narrower than their column stand beside something, in points. */
const NARROWER = 1;
/** A place beside something is a box of its own from so many lines on. */
const OWN_BOX = 3;

interface Room {
  left: number;
  right: number;
  lines: SetLine[];
}

/** The boxes of a frame, from its first column to its last, each from top to bottom. */
function areasOf(folio: Folio, story: Story, { frame, composed, page }: TakenFrame): FilledArea[] {
  const cells = cellsByParagraph(story);
  return columnsOf(frame).flatMap((column, n): FilledArea[] => {
    const lines = composed.lines.filter((l) => l.column === n);
    if (!lines.length) return [];
    const whole = { left: column.x, right: column.x + column.width };
    const rooms: Room[] = [];
    let inCapital = 0;
    for (const line of lines) {
      const block = story.blocks[line.paragraph];
      const isPlain = block?.kind === 'paragraph' && !cells.has(block.id) && story.order.includes(block.id);
      const { dropCapital } = block?.kind === 'paragraph' ? resolveParagraph(folio.head, block).paragraph : { dropCapital: null };
      inCapital = line.first ? (dropCapital?.lines ?? 0) : Math.max(0, inCapital - 1);
      const room = isPlain && !inCapital ? roomOf(folio, block, line, whole) : null;
      const last = rooms[rooms.length - 1];
      const here = room ?? (last && !isPlain ? whole : (last ?? whole));
      if (last && Math.abs(last.left - here.left) < NARROWER && Math.abs(last.right - here.right) < NARROWER) last.lines.push(line);
      else rooms.push({ left: here.left, right: here.right, lines: [line] });
    }
    const joined = together(rooms, whole);
    const top = (r: Room): number => r.lines[0]!.baseline - r.lines[0]!.ascent;
    return joined.map((room, i): FilledArea => {
      const y = i === 0 ? column.top : top(room);
      const end = i + 1 < joined.length ? top(joined[i + 1]!) : Math.max(column.top + column.height, bottomOf(room));
      const filled = bottomOf(room) - y + leadOver(room);
      return { item: frame.id, page, filled, rect: { x: room.left, y, width: room.right - room.left, height: Math.max(1, end - y) } };
    });
  });
}

/** A little more than the last line needs by its distance from the one above, where that is more than its letters need; in points. */
const SPARE = 1;
const leadOver = ({ lines }: Room): number => {
  const last = lines[lines.length - 1]!;
  const pitch = Math.max(0, ...last.runs.map((r) => leadingOf(r.look)));
  return Math.max(0, pitch - last.ascent - last.descent) + SPARE;
};

const bottomOf = ({ lines }: Room): number => lines[lines.length - 1]!.baseline + lines[lines.length - 1]!.descent;

/** The room that a line was set in, without its paragraph’s indents. */
function roomOf(
  folio: Folio,
  paragraph: Paragraph,
  line: SetLine,
  whole: { left: number; right: number },
): { left: number; right: number } {
  const { paragraph: p } = resolveParagraph(folio.head, paragraph);
  const levels = p.list ? folio.head.listStyles[p.list.style]?.levels : undefined;
  const hanging = levels?.[Math.min(p.list!.level, levels.length - 1)]?.indent ?? 0;
  const indent = p.startIndent + hanging + (line.first ? p.firstLineIndent - hanging : 0);
  const width = line.measure + indent + p.endIndent;
  if (whole.right - whole.left - width <= NARROWER) return whole;
  const free = Math.max(0, line.measure - line.width);
  const aligned = p.align === 'right' ? free : p.align === 'centre' ? free / 2 : 0;
  const left = line.x - indent - aligned;
  return { left, right: left + width };
}

/** Short narrow rooms that follow one another are one, as wide as all of them allow. */
function together(rooms: readonly Room[], whole: { left: number; right: number }): Room[] {
  const out: Room[] = [];
  const isNarrow = (r: Room): boolean => whole.right - whole.left - (r.right - r.left) > NARROWER;
  for (const room of rooms) {
    const last = out[out.length - 1];
    const isShort = last && (last.lines.length < OWN_BOX || room.lines.length < OWN_BOX);
    if (last && isNarrow(last) && isNarrow(room) && isShort && Math.min(last.right, room.right) - Math.max(last.left, room.left) > 20) {
      last.left = Math.max(last.left, room.left);
      last.right = Math.min(last.right, room.right);
      last.lines.push(...room.lines);
    } else out.push({ ...room, lines: [...room.lines] });
  }
  return out;
}

/** What stands in frames that follow one another: whole paragraphs and tables, cut where they begin or end elsewhere. */
function blocksOf(story: Story, frames: readonly TakenFrame[]): BoxBlock[] {
  const cells = cellsByParagraph(story);
  const lines = new Map<string, SetLine[]>();
  const rows = new Map<string, Set<number>>();
  const tables = new Map<string, Table>();
  for (const block of Object.values(story.blocks))
    if (block.kind === 'table') for (const id of Object.keys(block.cells)) tables.set(id, block);
  for (const { composed } of frames) {
    for (const line of composed.lines) {
      const id = cells.get(line.paragraph)?.table.id ?? line.paragraph;
      const known = lines.get(id);
      if (known) known.push(line);
      else lines.set(id, [line]);
    }
    for (const box of composed.boxes) {
      const table = box.kind === 'cell' && box.subject !== undefined ? tables.get(box.subject) : undefined;
      if (!table) continue;
      const cell = table.cells[box.subject!]!;
      if (!lines.has(table.id)) lines.set(table.id, []);
      const known = rows.get(table.id) ?? new Set<number>();
      rows.set(table.id, known);
      for (let r = cell.row; r < cell.row + cell.rows; r++) known.add(r);
    }
  }
  const order = new Map(story.order.map((id, i) => [id, i]));
  return [...lines.keys()]
    .filter((id) => order.has(id))
    .sort((a, b) => order.get(a)! - order.get(b)!)
    .map((id): BoxBlock => {
      const block = story.blocks[id]!;
      if (block.kind === 'table') return tablePart(block, rows.get(id) ?? new Set());
      return paragraphPart(block, lines.get(id)!);
    });
}

function paragraphPart(block: Paragraph, lines: readonly SetLine[]): BoxBlock {
  const [first, last] = [lines[0]!, lines[lines.length - 1]!];
  if (first.first && last.last) return { block, begins: true, ends: true };
  const content = sliceContent(block.content, first.first ? 0 : first.start, last.last ? contentLength(block.content) : last.end);
  const cut: Paragraph = {
    ...block,
    content,
    overrides: {
      ...block.overrides,
      ...(!first.first && { firstLineIndent: 0, spaceBefore: 0, list: null, dropCapital: null }),
      ...(!last.last && { spaceAfter: 0 }),
    },
  };
  return { block: cut, begins: first.first, ends: last.last };
}

/** The rows of a table that stand somewhere, those that head it included. */
function tablePart(table: Table, shown: ReadonlySet<number>): BoxBlock {
  const kept = table.rows.map((_, i) => i).filter((i) => i < table.headerRows || shown.has(i));
  if (kept.length === table.rows.length) return { block: table, begins: true, ends: true };
  const at = new Map(kept.map((row, i) => [row, i]));
  const cells = Object.fromEntries(
    Object.entries(table.cells).flatMap(([id, cell]) => {
      const row = at.get(cell.row);
      const count = kept.filter((r) => r >= cell.row && r < cell.row + cell.rows).length;
      return row === undefined ? [] : [[id, { ...cell, row, rows: Math.max(1, count) }]];
    }),
  );
  const body = kept.filter((r) => r >= table.headerRows);
  return {
    block: { ...table, rows: kept.map((r) => table.rows[r]!), cells, footerRows: 0 },
    begins: body[0] === table.headerRows,
    ends: body[body.length - 1] === table.rows.length - 1,
  };
}
