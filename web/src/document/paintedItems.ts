import { paintOrder } from '@elastic-folio/core';
import type { Folio, Item, Spread } from '@elastic-folio/core';
import type { ComposedFrame, Composition } from '@elastic-folio/core/compose';
import { paintTop } from '@elastic-folio/core/paint';
import type { PaintedItem, SvgOptions } from '@elastic-folio/core/paint';

/** What an item’s picture is made from; where all of it is the same, so is the picture. */
interface Made {
  item: Item;
  frame: ComposedFrame | undefined;
  head: Folio['head'];
  painted: PaintedItem;
}

/** The items of a spread as they were last painted: of a new painting, what has changed since. */
export class PaintedItems {
  private readonly made = new Map<string, Made>();
  private order: string[] = [];

  /** Null where nothing is another. */
  paint(folio: Folio, composition: Composition, spread: Spread, o: SvgOptions): { order: string[]; changed: PaintedItem[] } | null {
    const changed: PaintedItem[] = [];
    const shown = paintOrder(folio, spread).filter(o.shown);
    for (const item of shown) {
      const old = this.made.get(item.id);
      const frame = composition.frames.get(item.id);
      const { head } = folio;
      // Groups and slideshows show other items, and their texts: what they are made from is told by no one thing.
      const alone = item.kind !== 'group' && item.kind !== 'switcher';
      if (alone && old?.item === item && old.frame === frame && sameLooks(old.head, head)) continue;
      const painted = paintTop(folio, composition, spread, item, o);
      const same = old !== undefined && old.painted.svg === painted.svg && sameLines(old.painted.lines, painted.lines);
      this.made.set(item.id, { item, frame, head, painted: same ? old.painted : painted });
      if (!same) changed.push(painted);
    }
    const order = shown.map((i) => i.id);
    for (const id of this.made.keys()) if (!order.includes(id)) this.made.delete(id);
    const moved = order.join(' ') !== this.order.join(' ');
    this.order = order;
    return changed.length || moved ? { order, changed } : null;
  }
}

const sameLines = (a: readonly string[] | undefined, b: readonly string[] | undefined): boolean =>
  a?.length === b?.length && (a ?? []).every((line, i) => line === b![i]);

/** Whether what items are painted with is the same. */
const sameLooks = (a: Folio['head'], b: Folio['head']): boolean =>
  a === b || (a.swatches === b.swatches && a.media === b.media && a.layers === b.layers);
