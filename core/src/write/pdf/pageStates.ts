import type { Folio } from '../../folio/folio.ts';
import type { Switcher } from '../../folio/items.ts';
import { printedNumber } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { pageDestination } from '../../structure/pageDestination.ts';
import { itemsOfPage } from '../pages/paintedPage.ts';
import type { CardOf, PageItem } from '../pages/paintedPage.ts';
import type { Scope } from '../scope.ts';
import type { PdfSettings } from './settings.ts';

/** A page with one card of each switcher in sight: a page of the file of its own, where the recipe asks for cards as pages. */
export interface PageState {
  /** The name by which links and actions find it. */
  name: string;
  /** Which card is in sight, by the switcher's id; of all others it is the first. */
  seen: ReadonlyMap<string, number>;
  /** The card that this page is there for; null for the page itself, which shows the first card of each. */
  card: { switcher: Switcher; index: number } | null;
}

/** An item as a state shows it: `repeated` is what was in sight before its card was turned, `often` what several states show. */
export type StateItem = PageItem & { repeated: boolean; often: boolean };

export const isCard = (holder: PageItem['within'][number]): holder is CardOf => holder.kind === 'card';

/** The pages of a document as pages of the file, in order: one for each, or one more for each further card of their switchers. */
export class PageStates {
  readonly all: { place: PagePlace; state: PageState; items: StateItem[] }[] = [];

  constructor(folio: Folio, scope: Scope, cards: PdfSettings['cards']) {
    for (const place of scope.pages) {
      const items = itemsOfPage(folio, place, scope);
      const states = cards === 'pages' ? statesOf(place.page.id, items) : [itself(place.page.id)];
      const seen = states.map((state) => (cards === 'layers' ? items.map((i) => ({ ...i, repeated: false })) : itemsIn(items, state)));
      const often = new Set(seen.slice(1).flatMap((here) => here.flatMap((i) => (i.repeated ? [i.item.id] : []))));
      for (const [n, state] of states.entries())
        this.all.push({ place, state, items: seen[n]!.map((i) => ({ ...i, often: often.has(i.item.id) })) });
    }
  }

  /** Whether some page is there for a card. */
  get areMore(): boolean {
    return this.all.some((p) => p.state.card);
  }

  /** The state that shows a card of a switcher; the first card is in sight where the switcher first is. */
  showing(switcher: string, index: number): PageState | undefined {
    if (!index) return this.seenIn(switcher)[0];
    return this.all.find(({ state: { card } }) => card?.switcher.id === switcher && card.index === index)?.state;
  }

  /** Where an item is in sight: in this state, or else in the first that shows it. */
  home(item: string, here: PageState): PageState {
    const states = this.seenIn(item);
    return states.includes(here) ? here : (states[0] ?? here);
  }

  /** The first page of the file that shows an item, counted from none; of one that none shows, that of its page. */
  firstPageOf(item: string, place: PagePlace): number {
    const [first] = this.seenIn(item);
    return this.all.findIndex((p) => (first ? p.state === first : p.place === place));
  }

  /** What reading programs call the pages (ISO 32000-1, 12.4.2): those of cards after the page they belong to. */
  labels(): unknown[] {
    let card = 0;
    return this.all.flatMap(({ place, state }, n) => {
      card = state.card ? card + 1 : 0;
      return [n, { P: new String(card ? `${printedNumber(place)}-${card + 1}` : printedNumber(place)) }];
    });
  }

  private seenIn(item: string): readonly PageState[] {
    this.homes ??= this.findHomes();
    return this.homes.get(item) ?? [];
  }
  private homes: Map<string, PageState[]> | undefined;

  private findHomes(): Map<string, PageState[]> {
    const homes = new Map<string, PageState[]>();
    for (const { state, items } of this.all)
      for (const { item, own } of items) if (own) homes.set(item.id, [...(homes.get(item.id) ?? []), state]);
    return homes;
  }
}

const itself = (page: string): PageState => ({ name: pageDestination(page), seen: new Map(), card: null });

function statesOf(page: string, items: readonly PageItem[]): PageState[] {
  const out = [itself(page)];
  for (const { item, own, within } of items) {
    if (item.kind !== 'switcher' || !own) continue;
    const around = within.flatMap((w): [string, number][] => (isCard(w) && w.index ? [[w.switcher.id, w.index]] : []));
    for (const [index, card] of item.cards.entries())
      if (index)
        out.push({
          name: `${pageDestination(page)}/${item.id}/${card.id}`,
          seen: new Map([...around, [item.id, index]]),
          card: { switcher: item, index },
        });
  }
  return out;
}

/** What of a page's items a state shows, as if it stood on no card. */
const itemsIn = (items: readonly PageItem[], { seen, card }: PageState): Omit<StateItem, 'often'>[] =>
  items.flatMap((entry) => {
    const cards = entry.within.filter(isCard);
    if (cards.some((c) => (seen.get(c.switcher.id) ?? 0) !== c.index)) return [];
    const isNew = cards.some((c) => c.switcher.id === card?.switcher.id);
    return [{ ...entry, within: entry.within.filter((w) => !isCard(w)), repeated: card !== null && !isNew }];
  });
