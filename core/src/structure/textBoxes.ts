import { columnsOf } from '../compose/columnFill.ts';
import type { ComposedFrame, Composition } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import type { Rect } from '../folio/geometry.ts';
import type { Item, TextFrame } from '../folio/items.ts';
import { isMasterInstance } from '../folio/masters.ts';
import type { Story } from '../folio/story.ts';
import { pageOfItem } from '../folio/traverse.ts';
import type { PagePlace } from '../folio/traverse.ts';
import { blocksOf } from './boxBlocks.ts';
import type { BoxBlock } from './boxBlocks.ts';
import { bottomOf, leadOver, roomsOf, topOf } from './boxRooms.ts';

/** A box that text flows through, in the space of its frame: a column of it, or the part of one beside something that text runs around. */
interface BoxArea {
  item: string;
  page: string;
  rect: Rect;
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

/** A frame of text that is shown on a page in scope. */
export interface TakenFrame {
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
        out.push({
          story,
          areas: asHighAsTheirText(part.flatMap((f) => f.areas)),
          blocks: blocksOf(
            story,
            part.map((f) => f.composed),
          ),
        });
        from = to;
      }
    }
  return out;
}

/** Frames of pages in scope that are shown, by their ids. */
export function framesIn(composition: Composition, { pages, shown }: BoxScope): Map<string, TakenFrame> {
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

/** The boxes of a frame, from its first column to its last, each from top to bottom. */
const areasOf = (folio: Folio, story: Story, { frame, composed, page }: TakenFrame): FilledArea[] =>
  columnsOf(frame).flatMap((column, n): FilledArea[] => {
    const lines = composed.lines.filter((l) => l.column === n);
    if (!lines.length) return [];
    const rooms = roomsOf(folio, story, column, lines);
    return rooms.map((room, i): FilledArea => {
      const y = i === 0 ? column.top : topOf(room);
      const end = i + 1 < rooms.length ? topOf(rooms[i + 1]!) : Math.max(column.top + column.height, bottomOf(room));
      const filled = bottomOf(room) - y + leadOver(room);
      return { item: frame.id, page, filled, rect: { x: room.left, y, width: room.right - room.left, height: Math.max(1, end - y) } };
    });
  });
