import type { Group } from '../../../folio/items.ts';
import type { Rect } from '../../../folio/geometry.ts';
import type { Head } from '../../../folio/head.ts';
import type { PagePlace } from '../../../folio/traverse.ts';
import { itemBounds } from '../../../folio/traverse.ts';
import { effectFilter, effectReach, hasEffects, reachedInBox, unturned } from '../../../paint/effects.ts';
import { px } from '../../../paint/html/metrics.ts';
import { attrs, num } from '../../../paint/svg/markup.ts';

/** An item's markup, the groups it stands in from the outside in, and its place in the painting order. */
export interface Marked {
  markup: string;
  within: readonly Group[];
  z: number;
}

interface Node {
  group: Group | null;
  z: number;
  children: (Node | string)[];
  groups: Map<string, Node>;
}
const node = (group: Group | null, z: number): Node => ({ group, z, children: [], groups: new Map() });

/** Puts items into their groups' elements, in the order in which they come; what follows late joins its group. */
export function groupMarkup(items: readonly Marked[], place: PagePlace, head: Head): string {
  const root = node(null, 0);
  for (const { markup, within, z } of items) {
    if (!markup) continue;
    let at = root;
    for (const group of within) {
      let inner = at.groups.get(group.id);
      if (!inner) {
        inner = node(group, z);
        at.groups.set(group.id, inner);
        at.children.push(inner);
      }
      inner.z = Math.min(inner.z, z);
      at = inner;
    }
    at.children.push(markup);
  }
  return written(root, place, head);
}

function written({ group, z, children }: Node, place: PagePlace, head: Head): string {
  const inner = children.map((c) => (typeof c === 'string' ? c : written(c, place, head))).join('\n');
  if (!group) return inner;
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

/** The filter for a group's effects. */
function groupFilter(group: Group, { width, height }: Rect, head: Head): string {
  const region = reachedInBox(px(width), px(height), px(effectReach(group.effects)));
  const space = { region, inBox: true, scale: px(1), shift: unturned };
  return `<svg class="o" width="0" height="0" aria-hidden="true"><defs>${effectFilter(`${group.id}-fx`, group.effects, 'all', space, head.swatches)}</defs></svg>`;
}
