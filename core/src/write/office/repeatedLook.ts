import type { Composition } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import { multiply, translation } from '../../folio/geometry.ts';
import { printedNumber } from '../../folio/traverse.ts';
import type { PagePlace } from '../../folio/traverse.ts';
import type { PageItem } from '../pages/paintedPage.ts';

/** What items that repeat look like and say on a page, but for its number where that is counted: pages of which this is the same share it. */
export function repeatedLook(
  folio: Folio,
  composition: Composition,
  place: PagePlace,
  items: readonly PageItem[],
  counts: boolean,
): string {
  const { box } = place.page;
  const number = printedNumber(place);
  return JSON.stringify(
    items.map(({ item: at }) => {
      const { id, transform, ...item } = at;
      const frame = composition.frames.get(id);
      const hasNumber = Object.values(folio.stories[frame?.story ?? '']?.blocks ?? {}).some(
        (b) => b.kind === 'paragraph' && b.content.some((n) => n.type === 'field' && n.field === 'pageNumber'),
      );
      const says = frame?.lines.flatMap((l) => l.runs.map((r) => r.text)).join('') ?? '';
      const said = hasNumber && counts ? says.replace(number, '#') : says;
      return [id.slice(id.indexOf('/') + 1), multiply(translation(-box.x, -box.y), transform), item, said];
    }),
  );
}
