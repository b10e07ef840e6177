import type { Folio } from '../folio/folio.ts';
import { multiply, translation } from '../folio/geometry.ts';
import type { Matrix } from '../folio/geometry.ts';
import type { Item, TextFrame } from '../folio/items.ts';
import { instanceId, isMasterInstance } from '../folio/masters.ts';
import { shownSpread } from '../folio/shownSpread.ts';
import type { Spread } from '../folio/spread.ts';
import type { Story } from '../folio/story.ts';
import { itemBounds } from '../folio/traverse.ts';
import type { ItemRoom } from './expand.ts';
import type { ComposedFrame, Composition } from './marks.ts';

/** Frames anchored in texts of frames that are anchored themselves are followed this far. */
const DEEPEST = 4;

/** How far an anchored item reaches from its place; null where there is no such item. */
export function roomOfAnchored(story: Story, id: string): ItemRoom | null {
  const item = story.items[id];
  if (!item) return null;
  const box = itemBounds(story.items, item);
  return { width: Math.max(0, box.x + box.width), height: Math.max(0, box.y + box.height) };
}

/** How an anchored item is called where its text stands: one of a master page's text is there once on every page. */
const anchoredId = (frame: string, item: string): string => (isMasterInstance(frame) ? instanceId(frame.split('/')[0]!, item) : item);

/** The items anchored in a frame's text, members of groups included, where they stand on the spread. */
export function itemsIn(story: Story, composed: ComposedFrame, frame: TextFrame): { top: string[]; items: Item[] } {
  const top: string[] = [];
  const items: Item[] = [];
  const put = (id: string, at: Matrix, depth: number): void => {
    const item = story.items[id];
    if (!item || depth > 32) return;
    const named = anchoredId(composed.item, id);
    const placed = { ...item, id: named, transform: multiply(at, item.transform) };
    if (placed.kind !== 'group') return void items.push(placed);
    for (const member of placed.members) put(member, at, depth + 1);
    items.push({ ...placed, members: placed.members.map((m) => anchoredId(composed.item, m)) });
  };
  for (const line of composed.lines)
    for (const { item, x, y } of line.anchored ?? []) {
      put(item, multiply(frame.transform, translation(line.x + x, line.baseline + y)), 0);
      if (story.items[item]) top.push(anchoredId(composed.item, item));
    }
  return { top, items };
}

const spreads = new WeakMap<Composition, Map<Spread, Spread>>();

/** A spread as it is shown, with the items that are anchored in its texts; each lies right above the frame of its text. */
export function composedSpread(folio: Folio, composition: Composition, bare: Spread): Spread {
  let kept = spreads.get(composition);
  if (!kept) spreads.set(composition, (kept = new Map()));
  const known = kept.get(bare);
  if (known) return known;
  let spread = shownSpread(folio, bare);
  for (let depth = 0, fresh = Object.values(spread.items); depth < DEEPEST && fresh.length; depth++) {
    const items = { ...spread.items };
    const order = [...spread.order];
    const next: Item[] = [];
    for (const frame of fresh) {
      const composed = frame.kind === 'textFrame' ? composition.frames.get(frame.id) : undefined;
      const story = composed?.holdsItems ? folio.stories[composed.story] : undefined;
      if (!composed || !story || frame.kind !== 'textFrame') continue;
      const held = itemsIn(story, composed, frame);
      for (const item of held.items) items[item.id] = item;
      next.push(...held.items);
      const at = order.indexOf(frame.id);
      order.splice(at < 0 ? order.length : at + 1, 0, ...held.top);
    }
    if (next.length) spread = { ...spread, items, order };
    fresh = next;
  }
  kept.set(bare, spread);
  return spread;
}

/** Ids of the items anchored in a frame's text, by the paragraph that anchors them, in text order. */
export function anchoredByParagraph(composed: ComposedFrame): Map<string, string[]> {
  const out = new Map<string, string[]>();
  if (composed.holdsItems)
    for (const line of composed.lines)
      for (const { item } of line.anchored ?? [])
        out.set(line.paragraph, [...(out.get(line.paragraph) ?? []), anchoredId(composed.item, item)]);
  return out;
}
