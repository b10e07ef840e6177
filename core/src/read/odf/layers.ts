import type { Head } from '../../folio/head.ts';
import { itemBounds } from '../../folio/traverse.ts';
import { overlap } from '../../folio/geometry.ts';
import type { Spread } from '../../folio/spread.ts';
import type { Names } from './names.ts';
import { childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** The layer of what names none (19.151). */
const PLAIN = 'layout';

/** The original's layers by name. There they only gather objects; here they are also stacked. */
export class Layers {
  readonly layers: Head['layers'] = {};
  private readonly ids = new Map<string, string>();

  constructor(
    set: XmlElement | undefined,
    private readonly names: Names,
  ) {
    for (const { attributes: a } of set ? childrenOf(set, 'draw:layer') : []) {
      const display = a['draw:display'] ?? 'always';
      const id = this.idOf(a['draw:name'] ?? PLAIN);
      Object.assign(this.layers[id]!, {
        visible: display === 'always' || display === 'screen',
        printing: display === 'always' || display === 'printer',
        locked: a['draw:protected'] === 'true',
      });
    }
  }

  idOf(name = PLAIN): string {
    let id = this.ids.get(name);
    if (id === undefined) {
      id = this.names.free('layer', name);
      this.ids.set(name, id);
      this.layers[id] = { id, name, visible: true, printing: true, locked: false };
    }
    return id;
  }

  /**
   * Layers from back to front, so that what overlaps is stacked as on the original's pages; and the numbers (from 0) of the
   * spreads on which no order of layers can do that.
   */
  order(spreads: readonly Stack[]): { order: string[]; against: number[] } {
    const used = Object.keys(this.layers);
    const below = new Map<string, Map<string, Set<number>>>(used.map((id) => [id, new Map()]));
    spreads.forEach((spread, n) => {
      for (const [under, over] of overlaps(spread)) {
        const known = below.get(under)!;
        known.set(over, (known.get(over) ?? new Set()).add(n));
      }
    });
    const order: string[] = [];
    const left = new Set(used);
    while (left.size) {
      // The first that nothing left must lie under; where there is none, the one that fewest pages speak against.
      const against = (id: string): number => [...left].reduce((sum, other) => sum + (below.get(other)!.get(id)?.size ?? 0), 0);
      const next = [...left].reduce((a, b) => (against(b) < against(a) ? b : a));
      order.push(next);
      left.delete(next);
    }
    const wrong = new Set<number>();
    order.forEach((over, i) => {
      for (const under of order.slice(0, i)) for (const n of below.get(over)!.get(under) ?? []) wrong.add(n);
    });
    return { order, against: [...wrong].sort((a, b) => a - b) };
  }
}

/** Items over one another, those of the master page among them. */
type Stack = Pick<Spread, 'items' | 'order'>;

/** Layers of items that overlap on a spread, the lower one first. */
function* overlaps(spread: Stack): Generator<[string, string]> {
  const items = spread.order.flatMap((id) => (spread.items[id] ? [spread.items[id]] : []));
  if (new Set(items.map((i) => i.layer)).size < 2) return;
  // Thousands of shapes on a page are compared with their neighbours only.
  const reach = items.length > 1500 ? 40 : items.length;
  const bounds = items.map((i) => itemBounds(spread.items, i));
  for (let i = 0; i < items.length; i++)
    for (let j = i + 1; j < Math.min(items.length, i + reach); j++)
      if (items[i]!.layer !== items[j]!.layer && overlap(bounds[i]!, bounds[j]!) > 0.01) yield [items[i]!.layer, items[j]!.layer];
}
