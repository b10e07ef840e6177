import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import { instanceId, isMasterInstance } from '../folio/masters.ts';
import type { Step } from '../folio/motion.ts';
import { pageOfItem, pagesOf, placeOfPage } from '../folio/traverse.ts';
import type { Spread } from '../folio/spread.ts';
import type { PagePlace } from '../folio/traverse.ts';

const cache = new WeakMap<object, { masters: object; items: Map<string, Item> }>();

/** Every item of a document by its own id, those of master pages and texts too. */
export function itemsById(folio: Folio): Map<string, Item> {
  const kept = cache.get(folio.spreads);
  if (kept?.masters === folio.head.masterPages) return kept.items;
  const holders = [...Object.values(folio.spreads), ...Object.values(folio.head.masterPages), ...Object.values(folio.stories)];
  const items = new Map(holders.flatMap((h) => Object.values(h.items).map((i) => [i.id, i] as const)));
  cache.set(folio.spreads, { masters: folio.head.masterPages, items });
  return items;
}

/** What a step acts on that is there, and what is not there any more. Steps without targets have neither. */
export function targetsOfStep(folio: Folio, step: Step): { there: string[]; gone: string[] } {
  const items = itemsById(folio);
  const split = (ids: readonly string[], isThere: (id: string) => boolean): { there: string[]; gone: string[] } => ({
    there: ids.filter(isThere),
    gone: ids.filter((id) => !isThere(id)),
  });
  switch (step.do) {
    case 'showCard':
      return split([step.switcher], (id) => {
        const switcher = items.get(id);
        return (
          switcher?.kind === 'switcher' &&
          (step.card === 'next' || step.card === 'previous' || switcher.cards.some((c) => c.id === step.card))
        );
      });
    case 'show':
    case 'hide':
    case 'toggle':
    case 'animate':
      return split(step.items, (id) => items.has(id));
    case 'play':
    case 'pause':
    case 'stop':
    case 'seek':
      return split([step.media], (id) => items.get(id)?.kind === 'media');
    case 'openFile':
      return split([step.media], (id) => !!folio.head.media[id]);
    case 'go':
      return step.destination.to === 'page' ? split([step.destination.page], (id) => !!placeOfPage(folio, id)) : { there: [], gone: [] };
    default:
      return { there: [], gone: [] };
  }
}

/** Whether a step does nothing, because all that it acts on is gone. */
export function isDead(folio: Folio, step: Step): boolean {
  const { there, gone } = targetsOfStep(folio, step);
  return gone.length > 0 && there.length === 0;
}

/** The item that something on a page acts on: what hangs on a master page's item acts on that of its own page first. */
export const nearItem = ({ items }: Pick<Spread, 'items'>, id: string, holder: string): string => {
  const own = isMasterInstance(holder) ? instanceId(holder.split('/')[0]!, id) : id;
  return items[own] ? own : id;
};

/** The numbers of the pages that cues on a page lead to. */
export function targetPages(folio: Folio, { page, spread }: PagePlace): number[] {
  const holders = [page, ...Object.values(spread.items).filter((i) => pageOfItem(spread, i).id === page.id)];
  const steps = holders.flatMap((h) => Object.values(h.cues).flatMap((c) => c.steps));
  const count = pagesOf(folio).length;
  return steps.flatMap((s) => {
    if (s.do !== 'go') return [];
    const { destination: d } = s;
    if (d.to === 'page') return placeOfPage(folio, d.page)?.number ?? [];
    return d.to === 'first' ? 1 : d.to === 'last' ? count : [];
  });
}
