import { arrayMove } from '@dnd-kit/sortable';
import { pathOf } from '@elastic-folio/core';
import type { Edit, Folio } from '@elastic-folio/core';

/** What is dragged on the pages: a stop of the path, or the pin of something. */
export interface Dragged {
  what: 'stop' | 'pin';
  spread: string;
  item: string;
}
/** What it is dropped on. */
export type DropTarget = { to: 'item'; item: string } | { to: 'paragraph'; paragraph: string };

/** The change that dropping something makes; null where it makes none. */
export function editOfDrop(folio: Folio, dragged: Dragged, target: DropTarget | undefined): Edit | null {
  const spread = folio.spreads[dragged.spread];
  if (!spread || !target) return null;
  if (target.to === 'paragraph') {
    const pin = Object.values(folio.head.structure.pins).find((p) => p.item === dragged.item);
    const { paragraph } = target;
    return { kind: 'pin.set', args: { id: `pin-${dragged.item}`, as: 'after', ...pin, item: dragged.item, paragraph, offset: 0 } };
  }
  const order = pathOf(folio, spread).map((i) => i.id);
  const [from, to] = [order.indexOf(dragged.item), order.indexOf(target.item)];
  if (from < 0 || to < 0 || from === to) return null;
  return { kind: 'path.order', args: { spread: spread.id, order: arrayMove(order, from, to) } };
}
