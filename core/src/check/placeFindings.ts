import type { Folio } from '../folio/folio.ts';
import { overlap } from '../folio/geometry.ts';
import { isOnHiddenLayer, itemBounds, pagesOf, storyOfFrame } from '../folio/traverse.ts';
import type { Finding } from './finding.ts';

/** Smaller than this in both directions, in points, an item can hardly be seen. */
const TINY = 1.5;

/** Items beside the pages, items too small to see, pages without any text. */
export function placeFindings(folio: Folio, pageOf: (spread: string, item: string) => number | undefined): Finding[] {
  const found: Finding[] = [];
  for (const spread of Object.values(folio.spreads))
    for (const item of Object.values(spread.items)) {
      if (item.kind === 'group' || isOnHiddenLayer(folio, item)) continue;
      const box = itemBounds(spread.items, item);
      // A line has no area: what it touches is what a hair around it overlaps.
      const touched = { x: box.x - 0.01, y: box.y - 0.01, width: box.width + 0.02, height: box.height + 0.02 };
      const at = { page: pageOf(spread.id, item.id), subject: item.id };
      const name = item.name ? `“${item.name}”` : 'An item';
      if (!spread.pages.some((p) => overlap(p.box, touched) > 0))
        found.push({ code: 'item.outside', says: `${name} lies outside its page.`, ...at });
      else if (box.width < TINY && box.height < TINY) found.push({ code: 'item.tiny', says: `${name} is too small to be seen.`, ...at });
    }
  const stories = storyOfFrame(folio);
  const bare = pagesOf(folio).filter(({ spread, page }) => {
    const items = Object.values(spread.items).filter((i) => stories.has(i.id) || stories.has(i.id.split('/').pop()!));
    return !items.some((i) => spread.pages.length === 1 || overlap(page.box, itemBounds(spread.items, i)) > 0);
  });
  if (bare.length)
    found.push({
      code: 'page.noText',
      says: `${bare.length === 1 ? 'Page' : 'Pages'} ${bare.map((p) => p.number).join(', ')} ${bare.length === 1 ? 'has' : 'have'} no text.`,
      page: bare[0]!.number,
    });
  return found;
}
