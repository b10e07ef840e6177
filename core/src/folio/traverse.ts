import type { Folio } from './folio.ts';
import type { Item, Switcher } from './items.ts';
import type { Page, Spread } from './spread.ts';
import type { Paragraph, Story } from './story.ts';
import { cellsInOrder } from './tableCells.ts';
import { shownSpread } from './shownSpread.ts';
import { boundsOfPath, overlap, transformRect, union } from './geometry.ts';
import type { Rect } from './geometry.ts';

export interface PagePlace {
  page: Page;
  spread: Spread;
  /** Position in the document, from 1; what commands and people count by. */
  number: number;
  /** The pages of the layout that it shows as one, where spreads are shown as wholes; it has the name of the first of them. */
  joins?: readonly Page[];
}

const pagesCache = new WeakMap<object, { order: readonly string[]; masters: object; pages: PagePlace[] }>();

/** Every page in document order, its spread with the master items that it shows. */
export function pagesOf(folio: Folio): PagePlace[] {
  const cached = pagesCache.get(folio.spreads);
  if (cached?.order === folio.head.spreadOrder && cached.masters === folio.head.masterPages) return cached.pages;
  const pages: PagePlace[] = [];
  for (const id of folio.head.spreadOrder) {
    const spread = folio.spreads[id] && shownSpread(folio, folio.spreads[id]);
    for (const page of spread?.pages ?? []) pages.push({ page, spread: spread!, number: pages.length + 1 });
  }
  pagesCache.set(folio.spreads, { order: folio.head.spreadOrder, masters: folio.head.masterPages, pages });
  return pages;
}

const placesCache = new WeakMap<readonly PagePlace[], Map<string, PagePlace>>();

/** Where a page lies, by its id. */
export function placeOfPage(folio: Folio, id: string): PagePlace | undefined {
  const pages = pagesOf(folio);
  let places = placesCache.get(pages);
  if (!places) placesCache.set(pages, (places = new Map(pages.map((p) => [p.page.id, p]))));
  return places.get(id);
}

/** The number printed on a page. */
export const printedNumber = (place: PagePlace): string => place.page.number ?? String(place.number);

/** The upright box of an item in spread coordinates; a group's is the union of its members'. */
export function itemBounds(items: Record<string, Item>, item: Item, depth = 0): Rect {
  if (item.kind === 'group') {
    const members = item.members.flatMap((id) => (items[id] && depth < 32 ? [itemBounds(items, items[id], depth + 1)] : []));
    return union(members);
  }
  if (item.kind === 'shape') return boundsOfPath(item.path, item.transform);
  return transformRect(item.transform, { x: 0, y: 0, ...item.size });
}

/** The page an item belongs to: the one it covers most, else the nearest to its middle. */
export function pageOfItem(spread: Spread, item: Item): Page {
  if (spread.pages.length === 1) return spread.pages[0]!;
  const box = itemBounds(spread.items, item);
  // Lines have no area: a hair of thickness gives them a page all the same.
  const solid = { ...box, width: Math.max(box.width, 0.01), height: Math.max(box.height, 0.01) };
  let best = spread.pages[0]!;
  let bestScore = -Infinity;
  for (const page of spread.pages) {
    const shared = overlap(solid, page.box);
    const away = Math.hypot(
      box.x + box.width / 2 - page.box.x - page.box.width / 2,
      box.y + box.height / 2 - page.box.y - page.box.height / 2,
    );
    const score = shared > 0 ? shared : -away;
    if (score > bestScore) [best, bestScore] = [page, score];
  }
  return best;
}

/** Ids of items inside groups, switcher cards and the like, and looks of fields: they are reached through their holder. */
export function heldItems(spread: Pick<Spread, 'items'>): Map<string, string> {
  const held = new Map<string, string>();
  for (const item of Object.values(spread.items)) {
    if (item.kind === 'group') for (const id of item.members) held.set(id, item.id);
    if (item.kind === 'switcher') for (const card of item.cards) for (const id of card.items) held.set(id, item.id);
    if (item.kind === 'field') for (const id of [item.onLook, item.offLook]) if (id !== undefined) held.set(id, item.id);
  }
  return held;
}

/** Ids of what stands on a switcher's card: its items, and what groups among them hold. */
export const onCard = (items: Record<string, Item>, card: Switcher['cards'][number]): string[] =>
  card.items.flatMap((id) => {
    const held = items[id];
    return held?.kind === 'group' ? [id, ...leavesOf(items, held)] : [id];
  });

/** Ids of what stands on the cards of switchers after their first. */
export const laterCardsOf = ({ items }: Pick<Spread, 'items'>): string[] =>
  Object.values(items).flatMap((item) => (item.kind === 'switcher' ? item.cards.slice(1).flatMap((card) => onCard(items, card)) : []));

/** Ids of everything that a group holds, groups in groups unfolded. */
export function leavesOf(items: Record<string, Item>, group: Item & { kind: 'group' }, seen = new Set<string>()): Set<string> {
  const out = new Set<string>();
  seen.add(group.id);
  for (const id of group.members) {
    const member = items[id];
    if (member?.kind !== 'group') out.add(id);
    else if (!seen.has(id)) for (const leaf of leavesOf(items, member, seen)) out.add(leaf);
  }
  return out;
}

/** Items of a spread from back to front: layer by layer, then the spread's own list. Unlisted ids are ignored. */
export function paintOrder(folio: Pick<Folio, 'head'>, spread: Pick<Spread, 'items' | 'order'>): Item[] {
  const rank = new Map(folio.head.layerOrder.map((id, i) => [id, i]));
  const held = heldItems(spread);
  return spread.order
    .flatMap((id, i) => (spread.items[id] && !held.has(id) ? [{ item: spread.items[id], i }] : []))
    .sort((a, b) => (rank.get(a.item.layer) ?? 0) - (rank.get(b.item.layer) ?? 0) || a.i - b.i)
    .map((e) => e.item);
}

const homesCache = new WeakMap<object, Map<string, string>>();

/** The spread that an item lies on, by the item’s id; not for items of master pages. */
export function spreadOfItem(folio: Pick<Folio, 'spreads'>, item: string): Spread | undefined {
  let homes = homesCache.get(folio.spreads);
  if (!homes) {
    homes = new Map();
    for (const spread of Object.values(folio.spreads)) for (const id of Object.keys(spread.items)) homes.set(id, spread.id);
    homesCache.set(folio.spreads, homes);
  }
  return folio.spreads[homes.get(item) ?? ''];
}

const framesCache = new WeakMap<object, Map<string, string>>();

/** Frame id → id of the story it shows. */
export function storyOfFrame(folio: Folio): Map<string, string> {
  let map = framesCache.get(folio.stories);
  if (!map) {
    map = new Map();
    for (const story of Object.values(folio.stories)) for (const frame of story.frames) map.set(frame.item, story.id);
    framesCache.set(folio.stories, map);
  }
  return map;
}

/** The paragraphs of a story in text order, those of cells and notes where these stand. */
export function* paragraphsOf(story: Story, order: readonly string[] = story.order, depth = 0): Generator<Paragraph> {
  if (depth > 16) return;
  for (const id of order) {
    const block = story.blocks[id];
    if (!block) continue;
    if (block.kind === 'paragraph') {
      yield block;
      for (const node of block.content) if (node.type === 'note') yield* paragraphsOf(story, node.order, depth + 1);
    } else {
      const cells = cellsInOrder(block);
      for (const cell of cells) yield* paragraphsOf(story, cell.order, depth + 1);
    }
  }
}

export const isOnHiddenLayer = (folio: Folio, item: Item): boolean => folio.head.layers[item.layer]?.visible === false;
