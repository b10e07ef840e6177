import type { Composition } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import { overlap } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { isMasterInstance } from '../../folio/masters.ts';
import { itemBounds } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { PageItem } from '../pages/paintedPage.ts';
import { linkCueOf } from '../../structure/pageTargets.ts';

/** What of a page stands on what it shares with others, such as a layout, and what on itself. */
export interface Divided {
  onLayout: PageItem[];
  onSlide: PageItem[];
}

/**
 * Layouts lie behind all of their slides: what repeats and lies over something of the page’s own stays with that. So does what
 * is so on its page alone, such as a frame with words of its own: `isOfPage`.
 */
export function divide(items: readonly PageItem[], { spread }: PagePlace, isOfPage: (item: string) => boolean): Divided {
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

/** Whether a frame says something that is so on its page alone, such as a number that the program does not count. */
export const isOfPage = (folio: Folio, composition: Composition, frame: string, countsPages: boolean): boolean =>
  Object.values(folio.stories[composition.frames.get(frame)?.story ?? '']?.blocks ?? {}).some(
    (b) =>
      b.kind === 'paragraph' &&
      b.content.some((n) => n.type === 'field' && (n.field === 'sectionName' || (n.field === 'pageNumber' && !countsPages))),
  );
