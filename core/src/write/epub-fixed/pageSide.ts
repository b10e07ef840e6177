import type { Folio } from '../../folio/folio.ts';
import type { PagePlace } from '../../folio/traverse.ts';

/** Where a page lies when two are seen at once. */
export type PageSide = 'left' | 'right' | 'center';

/**
 * The side of a page: the one it has in the layout. A page that stands alone in a document of facing pages stands
 * where the fold leaves it: the first opposite to where the book goes on, any later one at the beginning of a pair.
 */
export function pageSide(folio: Folio, { page, spread, number }: PagePlace): PageSide | null {
  if (!hasFacingPages(folio)) return null;
  const across = [...spread.pages].sort((a, b) => a.box.x - b.box.x);
  if (across.length === 1) {
    const [begins, ends] = readsFromRight(folio) ? (['right', 'left'] as const) : (['left', 'right'] as const);
    return number === 1 ? ends : begins;
  }
  const at = across.indexOf(page);
  return at === 0 ? 'left' : at === across.length - 1 ? 'right' : 'center';
}

/** Whether pages go on to the left: where the first of two facing pages lies on the right. */
export function readsFromRight(folio: Folio): boolean {
  const pair = folio.head.spreadOrder.map((id) => folio.spreads[id]).find((s) => s && s.pages.length > 1);
  return !!pair && pair.pages[0]!.box.x > pair.pages[1]!.box.x;
}

/** Whether any two pages lie beside each other. */
const hasFacingPages = (folio: Folio): boolean => Object.values(folio.spreads).some((s) => s.pages.length > 1);
