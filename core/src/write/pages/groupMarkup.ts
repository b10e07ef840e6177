import type { Group, Switcher } from '../../folio/items.ts';
import type { Rect } from '../../folio/geometry.ts';
import type { Head } from '../../folio/head.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { itemBounds } from '../../folio/traverse.ts';
import { effectFilter, effectReach, hasEffects, reachedInBox, unturned } from '../../paint/effects.ts';
import { px } from '../../paint/html/metrics.ts';
import { attrs, num } from '../../paint/svg/markup.ts';
import type { CardOf } from './paintedPage.ts';

/** An item's markup, the groups and cards it stands in from the outside in, and its place in the painting order. */
export interface Marked {
  markup: string;
  within: readonly (Group | CardOf)[];
  z: number;
}

type Holder = Group | CardOf | Switcher;

interface Node {
  group: Holder | null;
  z: number;
  children: (Node | string)[];
  groups: Map<string, Node>;
}
const node = (group: Holder | null, z: number): Node => ({ group, z, children: [], groups: new Map() });

/** What holds an item, with a switcher around each of its cards. */
const holders = (within: Marked['within']): Holder[] => within.flatMap((h): Holder[] => (h.kind === 'card' ? [h.switcher, h] : [h]));

/** Puts items into their groups' elements, in the order in which they come; what follows late joins its group. */
export function groupMarkup(items: readonly Marked[], place: PagePlace, head: Head, isPressed: (item: Switcher) => boolean): string {
  const root = node(null, 0);
  for (const { markup, within, z } of items) {
    if (!markup && !within.some((h) => h.kind === 'card')) continue;
    let at = root;
    for (const group of holders(within)) {
      let inner = at.groups.get(group.id);
      if (!inner) {
        inner = node(group, z);
        at.groups.set(group.id, inner);
        at.children.push(inner);
      }
      inner.z = Math.min(inner.z, z);
      at = inner;
    }
    if (markup) at.children.push(markup);
  }
  return written(root, place, head, isPressed);
}

const cardIndex = (child: Node | string): number => (typeof child !== 'string' && child.group?.kind === 'card' ? child.group.index : -1);

function written({ group, z, children }: Node, place: PagePlace, head: Head, isPressed: (item: Switcher) => boolean): string {
  // Cards stand in the order in which they are shown, whatever of them is read first.
  if (group?.kind === 'switcher') children.sort((a, b) => cardIndex(a) - cardIndex(b));
  const inner = children.map((c) => (typeof c === 'string' ? c : written(c, place, head, isPressed))).join('\n');
  if (!group) return inner;
  if (group.kind === 'switcher') return switcherMarkup(group, z, inner, place, isPressed(group));
  if (group.kind === 'card') return cardMarkup(group, inner, place);
  const fx = hasEffects(group.effects);
  const style = [
    `z-index:${z}`,
    group.opacity === 1 ? '' : `opacity:${num(group.opacity, 4)}`,
    group.blend === 'normal' ? 'isolation:isolate' : `mix-blend-mode:${group.blend}`,
    fx ? `filter:url(#${group.id}-fx)` : '',
  ];
  const css = style.filter(Boolean).join(';');
  if (!fx) return `<div${attrs({ class: 'g', 'data-group': group.id, style: css })}>${inner}</div>`;
  // The group's element has the group's own box, since filters go by boxes; what it holds is told from the page's corner.
  const bounds = itemBounds(place.spread.items, group);
  const [x, y] = [px(bounds.x - place.page.box.x), px(bounds.y - place.page.box.y)];
  const size = `left:${num(x, 4)}px;top:${num(y, 4)}px;width:${num(px(bounds.width), 4)}px;height:${num(px(bounds.height), 4)}px`;
  return (
    groupFilter(group, bounds, head) +
    `<div${attrs({ class: 'g', 'data-group': group.id, style: `${size};${css}` })}><div class="g" style="left:${num(-x, 4)}px;top:${num(-y, 4)}px">${inner}</div></div>`
  );
}

/**
 * A switcher as a strip of its cards, which can be pushed sideways where there is no program. Its cards stand in the order
 * in which they are shown.
 */
function switcherMarkup(switcher: Switcher, z: number, inner: string, place: PagePlace, isPressed: boolean): string {
  const { x, y, width, height } = itemBounds(place.spread.items, switcher);
  const { box } = place.page;
  const style = `left:${num(px(x - box.x), 4)}px;top:${num(px(y - box.y), 4)}px;width:${num(px(width), 4)}px;height:${num(px(height), 4)}px;z-index:${z}`;
  const label = switcher.alt || switcher.name;
  return `<div${attrs({ class: 'w', 'data-item': switcher.id, 'data-press': isPressed ? switcher.id : undefined, role: 'group', tabindex: 0, 'aria-label': label, style })}>${inner}</div>`;
}

function cardMarkup({ id, switcher, index }: CardOf, inner: string, place: PagePlace): string {
  const bounds = itemBounds(place.spread.items, switcher);
  const [x, y] = [px(bounds.x - place.page.box.x), px(bounds.y - place.page.box.y)];
  const label = `${index + 1}/${switcher.cards.length}: ${switcher.cards[index]!.name}`;
  // What stands on a card is told from the page's corner, as everywhere.
  return `<div${attrs({ class: 'card', 'data-card': id, role: 'group', 'aria-label': label, style: `left:calc(100% * ${index})` })}><div class="g" style="left:${num(-x, 4)}px;top:${num(-y, 4)}px">${inner}</div></div>`;
}

/** The filter for a group's effects. */
function groupFilter(group: Group, { width, height }: Rect, head: Head): string {
  const region = reachedInBox(px(width), px(height), px(effectReach(group.effects)));
  const space = { region, inBox: true, scale: px(1), shift: unturned };
  return `<svg class="o" width="0" height="0" aria-hidden="true"><defs>${effectFilter(`${group.id}-fx`, group.effects, 'all', space, head.swatches)}</defs></svg>`;
}
