import { useDeferredValue, useMemo } from 'react';
import { handFormatted } from '@elastic-folio/core/check';
import type { Folio } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { pageNumberOf } from '../table/PageTable.tsx';

/** Something to look at, with its place. */
export interface Point {
  id: string;
  says: string;
  page: number | undefined;
  item?: string | undefined;
}

/** What the designer should look at: texts that do not fit, pictures without words, fonts that are missing. */
export function usePoints(): Point[] {
  // Looked through after the page has been shown: a keystroke does not wait for it.
  const folio = useDeferredValue(useDocument((s) => s.folio));
  const overflow = useDocument((s) => s.overflow);
  const fontProblems = useDocument((s) => s.fontProblems);
  return useMemo(() => (folio ? pointsOf(folio, overflow, fontProblems) : []), [folio, overflow, fontProblems]);
}

function pointsOf(folio: Folio, overflow: ReturnType<typeof useDocument.getState>['overflow'], fontProblems: string[]): Point[] {
  const out: Point[] = fontProblems.map((says, i) => ({ id: `font-${i}`, says, page: undefined }));
  for (const [story, over] of Object.entries(overflow)) {
    const last = folio.stories[story]?.frames.at(-1);
    if (over && last)
      out.push({
        id: `overflow-${story}`,
        says: `${over.characters} characters do not fit their frame.`,
        page: pageNumberOf(folio, last.spread, last.item),
        item: last.item,
      });
  }
  for (const spread of Object.values(folio.spreads))
    for (const item of Object.values(spread.items)) {
      if (
        item.kind !== 'picture' ||
        item.alt ||
        folio.head.structure.decorations.includes(item.id) ||
        folio.head.layers[item.layer]?.visible === false
      )
        continue;
      out.push({
        id: `alt-${item.id}`,
        says: `The picture “${folio.head.media[item.media ?? '']?.name ?? item.id}” has no alt text.`,
        page: pageNumberOf(folio, spread.id, item.id),
        item: item.id,
      });
    }
  const byHand = handFormatted(folio);
  const first = byHand?.stories.find((s) => s.frames.length)?.frames[0];
  if (byHand && first)
    out.push({ id: 'by-hand', says: byHand.says, page: pageNumberOf(folio, first.spread, first.item), item: first.item });
  return out.sort((a, b) => (a.page ?? 0) - (b.page ?? 0));
}
