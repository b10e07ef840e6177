import { composedSpread } from '../compose/anchored.ts';
import type { Composition } from '../compose/marks.ts';
import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import { isOnHiddenLayer, laterCardsOf, pageOfItem, pagesOf } from '../folio/traverse.ts';
import type { PagePlace } from '../folio/traverse.ts';
import type { Spread } from '../folio/spread.ts';
import { pageNumbers } from '../folio/pageRange.ts';
import { PageTargets } from '../structure/pageTargets.ts';

/** What of a document an output takes. */
export interface Scope {
  pages: PagePlace[];
  hiddenLayers: boolean;
  /** What stands on cards that a still output cannot show: all but the first of each switcher. */
  laterCards: ReadonlySet<string>;
  shown(item: Item): boolean;
  /** Whether an item is among those that were chosen, where only some are. */
  chosen(item: Item): boolean;
  hasPage(id: string): boolean;
  /** Where links lead among these pages. */
  targets: PageTargets;
  /** Whether an item is taken: on a page in range and not on a layer left out. */
  takes(spread: Spread, item: Item): boolean;
}

export function scopeOf(
  folio: Folio,
  composition: Composition,
  settings: { pages: string; hiddenLayers: 'out' | 'in'; only?: string },
  isStill = false,
): Scope {
  const all = pagesOf(folio);
  const numbers = pageNumbers(settings.pages, all.length);
  const pages = all
    .filter((p) => numbers.has(p.number))
    .map((p) => ({ ...p, spread: composedSpread(folio, composition, folio.spreads[p.spread.id]!) }));
  const ids = new Set(pages.map((p) => p.page.id));
  const hiddenLayers = settings.hiddenLayers === 'in';
  const only = new Set((settings.only ?? '').split(/\s+/).filter(Boolean));
  const laterCards = new Set(isStill ? Object.values(folio.spreads).flatMap(laterCardsOf) : []);
  const chosen = (item: Item): boolean => !only.size || only.has(item.id);
  const shown = (item: Item): boolean => chosen(item) && !laterCards.has(item.id) && (hiddenLayers || !isOnHiddenLayer(folio, item));
  return {
    pages,
    hiddenLayers,
    laterCards,
    shown,
    chosen,
    hasPage: (id) => ids.has(id),
    targets: new PageTargets(folio, composition, pages),
    takes: (spread, item) => shown(item) && ids.has(pageOfItem(spread, item).id),
  };
}
