import type { Composition } from '../../compose/marks.ts';
import type { Size } from '../../folio/geometry.ts';
import { itemBounds } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import { mm, PT_PER_INCH } from '../../folio/units.ts';

/** No page of the format is wider or higher: 22 inches (common practice of programs that read it). */
export const LARGEST_PAGE = 22 * PT_PER_INCH;
/** Frames with fewer lines say nothing of where the text stands. */
const TEXT_LINES = 5;
const A4: Size = { width: mm(210), height: mm(297) };
const LEAST_MEASURE = 100;

/** A size of paper that the format can have. */
export const onPaper = ({ width, height }: Size): Size => ({
  width: Math.min(width, LARGEST_PAGE),
  height: Math.min(height, LARGEST_PAGE),
});

/** The paper and the text’s place on it, in points. */
export interface PageSetup {
  size: Size;
  top: number;
  right: number;
  bottom: number;
  left: number;
}

export const measureOf = ({ size, left, right }: PageSetup): number => size.width - left - right;

/** The value below which a share of all lie. */
const quantile = (values: number[], share: number): number => values.sort((a, b) => a - b)[Math.floor((values.length - 1) * share)]!;
/** Pictures and titles take room at the top and the foot of many pages: the text goes as far as it does on the fuller ones. */
const SHARE = { top: 0.2, bottom: 0.2, left: 0.5, right: 0.5 };

/** Paper as most pages of the layout have it, with the text where most of them have theirs. */
export function pageSetup(pages: readonly PagePlace[], composition: Composition): PageSetup {
  const sizes = new Map<string, { size: Size; count: number }>();
  for (const { page } of pages) {
    const { width, height } = page.box;
    const key = `${Math.round(width)}×${Math.round(height)}`;
    sizes.set(key, { size: { width, height }, count: (sizes.get(key)?.count ?? 0) + 1 });
  }
  const usual = [...sizes.values()].reduce((a, b) => (b.count > a.count ? b : a), { size: A4, count: 0 }).size;
  const size = Math.max(usual.width, usual.height) > LARGEST_PAGE ? A4 : usual;
  const margins = pages.flatMap(({ page, spread }) => {
    if (Math.abs(page.box.width - size.width) > 1 || Math.abs(page.box.height - size.height) > 1) return [];
    const boxes = Object.values(spread.items).flatMap((item) => {
      if (item.kind !== 'textFrame' || (composition.frames.get(item.id)?.lines.length ?? 0) < TEXT_LINES) return [];
      const box = itemBounds(spread.items, item);
      const middle = box.x + box.width / 2;
      return middle >= page.box.x && middle <= page.box.x + page.box.width ? [box] : [];
    });
    if (!boxes.length) return [];
    const edge = (of: (b: (typeof boxes)[number]) => number, pick: (...n: number[]) => number): number => pick(...boxes.map(of));
    return [
      {
        top: edge((b) => b.y, Math.min) - page.box.y,
        left: edge((b) => b.x, Math.min) - page.box.x,
        right: page.box.x + page.box.width - edge((b) => b.x + b.width, Math.max),
        bottom: page.box.y + page.box.height - edge((b) => b.y + b.height, Math.max),
      },
    ];
  });
  const usualEdge = (side: 'top' | 'right' | 'bottom' | 'left', most: number): number => {
    const wanted = margins.length
      ? quantile(
          margins.map((m) => m[side]),
          SHARE[side],
        )
      : Math.min(mm(25), most);
    return Math.min(most, Math.max(mm(10), wanted));
  };
  const [left, right] = [usualEdge('left', size.width / 3), usualEdge('right', size.width / 3)];
  const narrow = size.width - left - right < LEAST_MEASURE;
  return {
    size,
    top: usualEdge('top', size.height / 3),
    bottom: usualEdge('bottom', size.height / 3),
    left: narrow ? size.width * 0.1 : left,
    right: narrow ? size.width * 0.1 : right,
  };
}
