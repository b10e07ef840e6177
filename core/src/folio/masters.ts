import type { Folio } from './folio.ts';
import type { Item } from './items.ts';
import type { MasterPage, Page, Spread } from './spread.ts';
import { multiply, translation } from './geometry.ts';

/** How an item of a master page is called on one of the pages that show it. */
export const instanceId = (page: string, masterItem: string): string => `${page}/${masterItem}`;
export const isMasterInstance = (id: string): boolean => id.includes('/');

/** A master page and those it is based on, from the root down; one that is based on itself is cut where it repeats. */
export function masterChain(folio: Folio, id: string | undefined): MasterPage[] {
  const chain: MasterPage[] = [];
  for (
    let master = id === undefined ? undefined : folio.head.masterPages[id];
    master && !chain.includes(master);
    master = master.basedOn === undefined ? undefined : folio.head.masterPages[master.basedOn]
  )
    chain.unshift(master);
  return chain;
}

/** Whether a page shows the items of a master page. */
export const showsMaster = (folio: Folio, page: Page, master: string): boolean =>
  page.showMaster && masterChain(folio, page.master).some((m) => m.id === master);

/** The master items that a page shows, where they stand on its spread; its own versions take their place. */
function instancesOn(folio: Folio, spread: Spread, page: Page): Item[] {
  if (!page.showMaster) return [];
  const out: Item[] = [];
  for (const master of masterChain(folio, page.master))
    for (const id of [...master.order, ...heldIn(master)]) {
      const key = instanceId(page.id, id);
      const own = spread.masterOverrides[key];
      const item = own === undefined ? master.items[id] : own;
      if (!item) continue;
      const place = multiply(translation(page.box.x, page.box.y), item.transform);
      out.push(
        item.kind === 'group'
          ? { ...item, id: key, members: item.members.map((m) => instanceId(page.id, m)) }
          : { ...item, id: key, transform: place },
      );
    }
  return out;
}

/** Members of groups that the master's own order does not name. */
function heldIn(master: MasterPage): string[] {
  const named = new Set(master.order);
  return Object.values(master.items).flatMap((i) => (i.kind === 'group' ? i.members.filter((m) => !named.has(m)) : []));
}

const spreads = new WeakMap<Spread, { masters: object; result: Spread }>();

/** A spread with the master items of its pages among its own, behind them on each layer. The same object for the same parts. */
export function withMasters(folio: Folio, spread: Spread): Spread {
  const { masterPages } = folio.head;
  const kept = spreads.get(spread);
  if (kept?.masters === masterPages) return kept.result;
  const instances = spread.pages.flatMap((page) => instancesOn(folio, spread, page));
  const result = instances.length
    ? {
        ...spread,
        items: { ...Object.fromEntries(instances.map((i) => [i.id, i])), ...spread.items },
        order: [...instances.map((i) => i.id), ...spread.order],
      }
    : spread;
  spreads.set(spread, { masters: masterPages, result });
  return result;
}
