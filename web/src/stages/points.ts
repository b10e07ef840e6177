import { useDeferredValue, useMemo } from 'react';
import { pagesOf, paragraphsOf } from '@elastic-folio/core';
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
  for (const { spread } of pagesOf(folio).filter((p, i, all) => all.findIndex((q) => q.spread === p.spread) === i))
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
  for (const story of Object.values(folio.stories)) {
    const first = story.frames[0];
    let passages = 0;
    for (const p of paragraphsOf(story))
      passages += (p.overrides || p.character ? 1 : 0) + p.content.filter((n) => n.type === 'span' && n.overrides).length;
    if (passages && first)
      out.push({
        id: `hand-${story.id}`,
        says: `${passages} ${passages === 1 ? 'passage is' : 'passages are'} formatted by hand, not by a style.`,
        page: pageNumberOf(folio, first.spread, first.item),
        item: first.item,
      });
  }
  return out.sort((a, b) => (a.page ?? 0) - (b.page ?? 0));
}
