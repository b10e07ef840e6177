import type { Folio } from '../folio/folio.ts';
import type { Rect } from '../folio/geometry.ts';
import type { Page, Spread } from '../folio/spread.ts';
import { heldItems, itemBounds, pageOfItem } from '../folio/traverse.ts';
import { movedItem } from './movedItem.ts';

/** How pages lie: each alone, the first alone and then two and two (a book with a cover), or two and two from the first. */
export type PageLay = 'single' | 'coverThenPairs' | 'pairs';

/** Languages that are written from the right: their books open the other way (common practice). */
const FROM_RIGHT = /^(ar|fa|he|ur|yi|ps|sd|ug|dv)\b/i;

/** How the pages of a document lie now; null where they lie in another way than those that can be chosen. */
export function layOf(folio: Folio): PageLay | null {
  const counts = folio.head.spreadOrder.map((id) => folio.spreads[id]?.pages.length ?? 0);
  if (counts.every((n) => n === 1)) return 'single';
  const inPairs = (list: number[]): boolean => list.every((n, i) => n === 2 || (n === 1 && i === list.length - 1));
  if (inPairs(counts)) return 'pairs';
  return counts[0] === 1 && inPairs(counts.slice(1)) ? 'coverThenPairs' : null;
}

/** Lays all pages anew, with what stands on them. Works in place; ids of pages and items stay, those of first spreads too. */
export function layPages(folio: Folio, lay: PageLay): void {
  const { head } = folio;
  const singles = head.spreadOrder.flatMap((id) => taken(folio, folio.spreads[id]!));
  for (const id of head.spreadOrder) delete folio.spreads[id];
  const groups: Spread[][] = [];
  for (let i = 0; i < singles.length;) {
    const count = lay === 'single' || (lay === 'coverThenPairs' && i === 0) ? 1 : 2;
    groups.push(singles.slice(i, i + count));
    i += count;
  }
  const fromRight = FROM_RIGHT.test(head.metadata.language);
  const spreads = groups.map((group) => joined(group, fromRight));
  const home = new Map(spreads.flatMap((s) => Object.keys(s.items).map((item) => [item, s.id] as const)));
  for (const spread of spreads) folio.spreads[spread.id] = spread;
  head.spreadOrder = spreads.map((s) => s.id);
  head.facingPages = lay !== 'single';
  const rehome = (place: { spread: string; item: string }): void => {
    place.spread = home.get(place.item) ?? place.spread;
  };
  for (const story of Object.values(folio.stories)) story.frames.forEach(rehome);
  for (const strand of head.structure.strands) strand.entries.forEach(rehome);
}

/** Every page of a spread as a spread of its own, at its origin, with the items that belong to it. */
function taken(folio: Folio, spread: Spread): Spread[] {
  if (spread.pages.length === 1) return [spread];
  const held = heldItems(spread);
  const pageOf = (id: string): string => {
    let top = id;
    for (let next = held.get(top); next !== undefined; next = held.get(top)) top = next;
    const item = spread.items[top] ?? spread.items[id]!;
    return pageOfItem(spread, item).id;
  };
  const home = new Map(Object.keys(spread.items).map((id) => [id, pageOf(id)]));
  return spread.pages.map((page, i): Spread => {
    let id = i === 0 ? spread.id : `${page.id.slice(0, 60)}-spread`;
    while (i > 0 && folio.spreads[id]) id += '-';
    const alone: Spread = {
      id,
      pages: [page],
      items: Object.fromEntries(Object.entries(spread.items).filter(([item]) => home.get(item) === page.id)),
      order: spread.order.filter((item) => home.get(item) === page.id),
      masterOverrides: Object.fromEntries(Object.entries(spread.masterOverrides).filter(([key]) => key.startsWith(`${page.id}/`))),
      // What a grid repeats onto another page is no grid any more: its copies stay as they are.
      ...(spread.grids && {
        grids: Object.fromEntries(Object.entries(spread.grids).filter(([, g]) => g.seeds.every((seed) => home.get(seed) === page.id))),
      }),
    };
    return moved(alone, -page.box.x, -page.box.y);
  });
}

/** Single pages side by side, in reading order; the later one on the left where books open from the right. */
function joined(group: readonly Spread[], fromRight: boolean): Spread {
  if (group.length === 1) return group[0]!;
  const [first, second] = group as [Spread, Spread];
  const width = (s: Spread): number => s.pages[0]!.box.width;
  const [left, right] = fromRight ? [second, first] : [first, second];
  const onLeft = withStrays(left, (box) => (box.x >= width(left) ? width(right) : 0));
  const onRight = moved(
    withStrays(right, (box) => (box.x + box.width <= 0 ? -width(left) : 0)),
    width(left),
    0,
  );
  const [a, b] = fromRight ? [onRight, onLeft] : [onLeft, onRight];
  return {
    id: first.id,
    pages: [...a.pages, ...b.pages],
    items: { ...a.items, ...b.items },
    order: [...a.order, ...b.order],
    masterOverrides: { ...a.masterOverrides, ...b.masterOverrides },
    ...((a.grids ?? b.grids) && { grids: { ...a.grids, ...b.grids } }),
  };
}

/** A page whose items beside it, where the other page comes to lie, are put beyond that: they are seen on neither. */
function withStrays(spread: Spread, shift: (box: Rect) => number): Spread {
  const held = heldItems(spread);
  const items: Spread['items'] = { ...spread.items };
  const put = (id: string, dx: number): void => {
    const item = items[id];
    if (!item) return;
    items[id] = movedItem(item, dx, 0);
    for (const [member, holder] of held) if (holder === id) put(member, dx);
  };
  for (const item of Object.values(spread.items)) {
    const dx = held.has(item.id) ? 0 : shift(itemBounds(spread.items, item));
    if (dx) put(item.id, dx);
  }
  return { ...spread, items };
}

function moved(spread: Spread, dx: number, dy: number): Spread {
  if (dx === 0 && dy === 0) return spread;
  const page = (p: Page): Page => ({ ...p, box: { ...p.box, x: p.box.x + dx, y: p.box.y + dy } });
  return {
    ...spread,
    pages: spread.pages.map(page),
    items: Object.fromEntries(Object.entries(spread.items).map(([id, item]) => [id, movedItem(item, dx, dy)])),
  };
}
