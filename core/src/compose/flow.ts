import type { Folio } from '../folio/folio.ts';
import type { TextFrame } from '../folio/items.ts';
import { resolveParagraph } from '../folio/resolve.ts';
import type { Paragraph, Story } from '../folio/story.ts';
import { isUpright } from '../folio/geometry.ts';
import { shownSpread } from '../folio/shownSpread.ts';
import { spans } from './blockFacts.ts';
import { ColumnFill, columnsOf } from './columnFill.ts';
import type { BaselineGrid, Column } from './columnFill.ts';
import type { FieldKind } from './blockFacts.ts';
import { ColumnFiller } from './columnFiller.ts';
import type { FrameMemory } from './columnFiller.ts';
import type { FontSet } from './fontSet.ts';
import type { ListLabel } from './listLabels.ts';
import type { ComposedFrame, MissingGlyph } from './marks.ts';
import { paragraphBoxes } from './paragraphBoxes.ts';
import type { CarriedNote } from './notes.ts';
import type { ParagraphCache, ParagraphTexts } from './prepare.ts';
import type { InnerBlock } from './storyChange.ts';
import { obstaclesFor } from './wrap.ts';
import type { Obstacle } from './wrap.ts';

/** Where a story goes on: at a unit of a paragraph's set text, or at a row group of a table. */
export interface FlowState {
  block: number;
  unit: number;
  /** A break before the paragraph has been made. */
  broken: boolean;
  /** Columns are left empty until here. */
  skip: 'frame' | 'page' | null;
  /** Notes that go on at the foot of the next column. */
  notes?: readonly CarriedNote[] | undefined;
}
export const STORY_START: FlowState = { block: 0, unit: 0, broken: true, skip: null };

/** A story being set: what every frame of it needs. */
export interface Flow {
  folio: Folio;
  story: Story;
  fonts: FontSet;
  cache: ParagraphCache;
  /** Blocks in the order in which they are set: the story's own, then its endnotes. */
  order: readonly string[];
  labels: ReadonlyMap<string, ListLabel | { text: string }>;
  noteNumbers: ReadonlyMap<string, string>;
  /** Blocks that stand inside those: of notes and of cells. */
  inner: readonly InnerBlock[];
  /** Kinds of field it shows. */
  fieldKinds: ReadonlySet<FieldKind>;
  /** What a field shows on a page. */
  field(node: Parameters<ParagraphTexts['field']>[0], frame: FlowFrame | null): string;
  missing: Map<string, MissingGlyph[]>;
}
export interface FlowFrame {
  spread: string;
  item: string;
  frame: TextFrame;
  page: string;
  /** The frame before is on another page. */
  startsPage: boolean;
}

/** A frame that has been filled. */
export interface FilledFrame {
  composed: ComposedFrame;
  /** The state the next frame begins with. */
  next: FlowState;
  /** The last block that had a say in it: one that did not fit any more. */
  seen: number;
}

/** Columns are balanced to within this many points: lines stand further apart, so a finer search finds nothing new. */
const BALANCE_STEP = 3;

/** Columns filled from a state on, with what they hold. */
interface Filled extends Pick<ComposedFrame, 'lines' | 'boxes'> {
  next: FlowState;
  seen: number;
  /** How low they reach, and the room that is wanted below. */
  bottom: number;
  spaceAfter: number;
}

/** Fills one frame from a state on. */
export function fillFrame(flow: Flow, at: FlowFrame, state: FlowState): FilledFrame {
  const bare = flow.folio.spreads[at.spread];
  const spread = bare && shownSpread(flow.folio, bare);
  const setup: Setup = {
    flow,
    at,
    obstacles: spread ? obstaclesFor(flow.folio, spread, at.frame) : [],
    grid: gridOf(flow.folio, at),
    memory: { prepared: new Map(), tables: new Map() },
  };
  let now = state;
  if (now.skip === 'page' && at.startsPage) now = { ...now, skip: null };
  if (now.skip === 'frame') now = { ...now, skip: null };
  const columns = columnsOf(at.frame);
  // A frame without room holds nothing: its text goes on in the next.
  if (columns[0]!.width <= 0)
    return { composed: { item: at.item, spread: at.spread, story: flow.story.id, lines: [], boxes: [] }, next: now, seen: now.block };
  let filled =
    at.frame.balance && columns.length > 1
      ? fillBalanced(setup, now, columns, flow.order.length, true)
      : fillColumns(setup, now, columns, flow.order.length, true);
  if (columns.length > 1 && nextSpan(flow, now.block, filled.seen) <= filled.seen) filled = fillAroundSpans(setup, now, columns);
  const composed: ComposedFrame = { item: at.item, spread: at.spread, story: flow.story.id, lines: filled.lines, boxes: filled.boxes };
  if (composed.lines.some((l) => l.anchored)) composed.holdsItems = true;
  return { composed, next: filled.next, seen: filled.seen };
}

interface Setup {
  flow: Flow;
  at: FlowFrame;
  obstacles: readonly Obstacle[];
  grid: BaselineGrid | null;
  memory: FrameMemory;
}

/** Whether a block of the text stands across all columns of its frame. */
function spansColumns({ story, order, folio }: Flow, block: number): boolean {
  const found = story.blocks[order[block]!];
  return found?.kind === 'paragraph' && spans(folio.head, found);
}

/** The first block from one on that stands across all columns; the text's end where none does up to `last`. */
function nextSpan(flow: Flow, from: number, last: number): number {
  for (let block = from; block <= last && block < flow.order.length; block++) if (spansColumns(flow, block)) return block;
  return flow.order.length;
}
/** No frame holds more blocks than this, as far as spans are looked for. */
const FAR = 2000;

/** Fills columns with the blocks before `until`. */
function fillColumns(
  { flow, at, obstacles, grid, memory }: Setup,
  state: FlowState,
  columns: readonly Column[],
  until: number,
  atTop: boolean,
): Filled {
  const out: Filled = { lines: [], boxes: [], next: state, seen: state.block, bottom: columns[0]!.top, spaceAfter: 0 };
  columns.forEach((column, index) => {
    if (out.next.skip || (out.next.block >= until && !out.next.notes)) return;
    const filler = new ColumnFiller(
      flow,
      at,
      new ColumnFill(column, index, at.frame, grid),
      column,
      obstacles,
      atTop && index === 0,
      until,
      memory,
    );
    out.next = filler.fillFrom(out.next);
    out.seen = Math.max(out.seen, filler.seen);
    out.bottom = Math.max(out.bottom, filler.fill.bottom);
    out.spaceAfter = filler.fill.spaceAfter;
    const done = filler.fill.finish();
    out.lines.push(...done.lines);
    out.boxes.push(...done.boxes, ...paragraphBoxes(done.lines, column, (id) => filler.propertiesOf(id)));
  });
  return out;
}

/** Balanced: where all the blocks fit, the columns are as low as they can be with all of them still in (found by halving). */
function fillBalanced(setup: Setup, state: FlowState, columns: readonly Column[], until: number, atTop: boolean): Filled {
  let best = fillColumns(setup, state, columns, until, atTop);
  const isWhole = (filled: Filled): boolean => filled.next.block >= until && !filled.next.notes;
  if (!isWhole(best)) return best;
  let [low, high] = [0, columns[0]!.height];
  while (high - low > BALANCE_STEP) {
    const height = (low + high) / 2;
    const attempt = fillColumns(
      setup,
      state,
      columns.map((c) => ({ ...c, height })),
      until,
      atTop,
    );
    if (isWhole(attempt)) [best, high] = [attempt, height];
    else low = height;
  }
  return best;
}

/**
 * Fills a frame whose text has paragraphs across all columns: what stands before one is balanced in the columns above
 * it, and the columns begin anew below it.
 */
function fillAroundSpans(setup: Setup, state: FlowState, columns: readonly Column[]): Filled {
  const { flow, at } = setup;
  const { verticalAlign } = at.frame;
  const { top, height } = columns[0]!;
  const bottom = top + height;
  // Parts stand under one another from the top; all of them are moved together afterwards.
  const still: Setup = { ...setup, at: { ...at, frame: { ...at.frame, verticalAlign: 'top' } } };
  const last = columns[columns.length - 1]!;
  const whole = { ...columns[0]!, width: last.x + last.width - columns[0]!.x };
  const out: Filled = { lines: [], boxes: [], next: state, seen: state.block, bottom: top, spaceAfter: 0 };
  let y = top;
  let before: { start: FlowState; lines: number; boxes: number; keeps: boolean } | null = null;
  while (out.next.block < flow.order.length && !out.next.skip) {
    const start = out.next;
    const wide = spansColumns(flow, start.block);
    const until = wide ? endOfSpan(flow, start.block) : nextSpan(flow, start.block, start.block + FAR);
    const first = out.lines.length === 0;
    const gap = first ? 0 : out.spaceAfter + spaceBefore(flow, start);
    const part = { top: y + gap, height: Math.max(0, bottom - y - gap) };
    const room = wide ? [{ ...whole, ...part }] : columns.map((c) => ({ ...c, ...part }));
    const balanced = !wide && (until < flow.order.length || at.frame.balance);
    const filled = (balanced ? fillBalanced : fillColumns)(still, start, room, until, first);
    out.seen = Math.max(out.seen, filled.seen);
    if (!filled.lines.length && before?.keeps && before.lines > 0) {
      // Nothing that it must stay with fits below it: a heading goes on to the next frame.
      out.lines.length = before.lines;
      out.boxes.length = before.boxes;
      return { ...out, next: before.start };
    }
    before = { start, lines: out.lines.length, boxes: out.boxes.length, keeps: wide && keepsWithNext(flow, until - 1) };
    out.lines.push(...filled.lines);
    out.boxes.push(...filled.boxes);
    Object.assign(out, { next: filled.next, spaceAfter: filled.spaceAfter, bottom: filled.bottom });
    y = filled.bottom;
    if (filled.next.block < until) break;
  }
  const free = Math.max(0, bottom - y) * (verticalAlign === 'centre' ? 0.5 : verticalAlign === 'bottom' ? 1 : 0);
  if (!free) return out;
  return {
    ...out,
    lines: out.lines.map((l) => ({ ...l, baseline: l.baseline + free })),
    boxes: out.boxes.map((b) => ({ ...b, box: { ...b.box, y: b.box.y + free } })),
  };
}

function endOfSpan(flow: Flow, from: number): number {
  let block = from;
  while (block < flow.order.length && spansColumns(flow, block)) block++;
  return block;
}

const paragraphAt = ({ story, order }: Flow, block: number): Paragraph | undefined => {
  const found = story.blocks[order[block]!];
  return found?.kind === 'paragraph' ? found : undefined;
};

const keepsWithNext = (flow: Flow, block: number): boolean => {
  const paragraph = paragraphAt(flow, block);
  return paragraph !== undefined && resolveParagraph(flow.folio.head, paragraph).paragraph.keepWithNext > 0;
};

const spaceBefore = (flow: Flow, { block, unit }: FlowState): number => {
  const paragraph = unit === 0 ? paragraphAt(flow, block) : undefined;
  return paragraph ? resolveParagraph(flow.folio.head, paragraph).paragraph.spaceBefore : 0;
};

/** The document's baseline grid in a frame's own space; frames that are turned have none. */
function gridOf(folio: Folio, at: FlowFrame): BaselineGrid | null {
  const { baselineGrid } = folio.head;
  if (!baselineGrid || !isUpright(at.frame.transform)) return null;
  const page = folio.spreads[at.spread]?.pages.find((p) => p.id === at.page);
  return { start: (page?.box.y ?? 0) + baselineGrid.start - at.frame.transform[5], step: baselineGrid.step };
}
