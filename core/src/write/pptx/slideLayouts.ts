import { overlap } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { isMasterInstance } from '../../folio/masters.ts';
import { itemBounds } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { PageItem } from '../shared/paintedPage.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';

/** What of a page stands on its layout, and what on its slide. */
export interface Divided {
  onLayout: PageItem[];
  onSlide: PageItem[];
}

/**
 * Layouts lie behind all of their slides: what repeats and lies over something of the page’s own stays with that. So does a frame whose
 * words are another page’s no more: `isOfPage`.
 */
export function divide(items: readonly PageItem[], { spread }: PagePlace, isOfPage: (frame: string) => boolean): Divided {
  const own: Rect[] = [];
  const out: Divided = { onLayout: [], onSlide: [] };
  for (const at of items) {
    const box = itemBounds(spread.items, at.item);
    const isStill = Object.keys(at.item.cues).length === (linkCueOf(at.item) ? 1 : 0);
    if (isMasterInstance(at.item.id) && isStill && !isOfPage(at.item.id) && !own.some((o) => overlap(o, box) > 0)) out.onLayout.push(at);
    else {
      out.onSlide.push(at);
      own.push(box);
    }
  }
  return out;
}
