import type { Folio } from '../folio/folio.ts';
import type { Group, Item } from '../folio/items.ts';
import type { Spread } from '../folio/spread.ts';
import { paragraphRole } from '../folio/resolve.ts';
import { heldItems, itemBounds, leavesOf, paragraphsOf, storyOfFrame } from '../folio/traverse.ts';

/** The outermost group that an item is, or stands in; undefined where it stands by itself. */
export function groupAround(spread: Pick<Spread, 'items'>, item: string): Group | undefined {
  const held = heldItems(spread);
  let found: Group | undefined;
  for (let at: string | undefined = item, depth = 0; at !== undefined && depth < 32; at = held.get(at), depth++) {
    const holder = spread.items[at];
    if (holder?.kind === 'group') found = holder;
  }
  return found;
}

/** Whether a text of a group goes on outside it: it cannot be drawn as one figure then, since the text would be cut. */
export function runsOn(folio: Folio, spread: Pick<Spread, 'items'>, group: Group): boolean {
  const members = leavesOf(spread.items, group);
  const stories = storyOfFrame(folio);
  return [...members].some((id) => folio.stories[stories.get(id) ?? '']?.frames.some((f) => !members.has(f.item)));
}

/** Whether a frame holds nothing but captions: they stay texts, below the figure. */
export function isCaptionFrame(folio: Folio, item: Item): boolean {
  const story = item.kind === 'textFrame' ? folio.stories[storyOfFrame(folio).get(item.id) ?? ''] : undefined;
  const paragraphs = story ? [...paragraphsOf(story)] : [];
  return paragraphs.length > 0 && paragraphs.every((p) => paragraphRole(folio.head, p.style).element === 'figcaption');
}

const known = new WeakMap<Folio, ReadonlyMap<string, Group>>();

/** Groups that running text shows as one figure, because a person said so, by what each of them draws. */
export function figureGroups(folio: Folio): ReadonlyMap<string, Group> {
  let found = known.get(folio);
  if (found) return found;
  const out = new Map<string, Group>();
  const chosen = new Set(folio.head.structure.figures);
  if (chosen.size)
    for (const spread of Object.values(folio.spreads))
      for (const item of Object.values(spread.items)) {
        if (item.kind !== 'group' || !chosen.has(item.id) || runsOn(folio, spread, item)) continue;
        for (const id of leavesOf(spread.items, item)) {
          const member = spread.items[id];
          if (member && !isCaptionFrame(folio, member)) out.set(id, item);
        }
      }
  known.set(folio, (found = out));
  return found;
}

/** What the structure says, said of figures instead of their parts. */
export function structureOfFigures(folio: Folio, groups: ReadonlyMap<string, Group>): Folio['head']['structure'] {
  const { structure } = folio.head;
  const whole = (id: string): string => groups.get(id)?.id ?? id;
  return {
    ...structure,
    strands: structure.strands.map((s) => {
      const seen = new Set<string>();
      return {
        ...s,
        entries: s.entries.flatMap((e) => {
          const item = whole(e.item);
          if (seen.has(item)) return [];
          seen.add(item);
          return [{ ...e, item }];
        }),
      };
    }),
    pins: Object.fromEntries(Object.entries(structure.pins).map(([id, pin]) => [id, { ...pin, item: whole(pin.item) }])),
    captions: Object.fromEntries(Object.entries(structure.captions).map(([frame, figure]) => [frame, whole(figure)])),
  };
}

/** A spread as it is read where groups are figures: each of them as a picture that stands where the group does, its parts gone. */
export function spreadOfFigures(spread: Spread, groups: ReadonlyMap<string, Group>): Spread {
  const here = new Map([...groups.values()].flatMap((g) => (spread.items[g.id] ? [[g.id, g] as const] : [])));
  if (!here.size) return spread;
  const items: Record<string, Item> = {};
  const order = [...spread.order];
  for (const item of Object.values(spread.items)) if (!groups.has(item.id)) items[item.id] = item;
  for (const group of here.values()) {
    items[group.id] = stillOf(spread, group);
    // Captions come out of their group and are read after it.
    const captions = [...leavesOf(spread.items, group)].filter((id) => items[id]);
    order.splice(order.indexOf(group.id) + 1, 0, ...captions);
  }
  return { ...spread, items, order };
}

function stillOf(spread: Spread, group: Group): Item {
  const { x, y, width, height } = itemBounds(spread.items, group);
  const size = { width: Math.max(width, 0.01), height: Math.max(height, 0.01) };
  return { ...group, kind: 'picture', transform: [1, 0, 0, 1, x, y], size, media: null, placement: [1, 0, 0, 1, 0, 0] } as Item;
}
