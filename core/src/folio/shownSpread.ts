import type { Folio } from './folio.ts';
import type { Head } from './head.ts';
import type { Item } from './items.ts';
import { withMasters } from './masters.ts';
import { styleChain } from './resolve.ts';
import type { Spread } from './spread.ts';

const cache = new WeakMap<Spread, { masters: object; styles: object; result: Spread }>();

/**
 * A spread as it is to be shown: the items of master pages among its own, and every item with what its item style
 * gives it where it has no fill, stroke or transparency of its own. The same object for the same parts.
 */
export function shownSpread(folio: Folio, bare: Spread): Spread {
  const { masterPages, itemStyles } = folio.head;
  const kept = cache.get(bare);
  if (kept?.masters === masterPages && kept.styles === itemStyles) return kept.result;
  const spread = withMasters(folio, bare);
  const styled = Object.values(spread.items).filter((i) => i.style !== undefined);
  const result = styled.length
    ? { ...spread, items: { ...spread.items, ...Object.fromEntries(styled.map((i) => [i.id, withStyle(folio.head, i)])) } }
    : spread;
  cache.set(bare, { masters: masterPages, styles: itemStyles, result });
  return result;
}

function withStyle(head: Head, item: Item): Item {
  const chain = styleChain(head.itemStyles, item.style);
  const of = <K extends 'fill' | 'stroke' | 'opacity'>(key: K) => chain.findLast((s) => s[key] !== undefined)?.[key];
  const [fill, stroke, opacity] = [of('fill'), of('stroke'), of('opacity')];
  return {
    ...item,
    ...(item.fill.type === 'none' && fill && { fill }),
    ...(item.stroke === null && stroke && { stroke }),
    ...(item.opacity === 1 && opacity !== undefined && { opacity }),
  };
}
