import type { Composition } from '../compose/marks.ts';
import type { FontSet } from '../compose/fontSet.ts';
import type { Folio } from '../folio/folio.ts';
import { paragraphRole } from '../folio/resolve.ts';
import { pageOfItem, pagesOf, paragraphsOf } from '../folio/traverse.ts';
import { brokenParts } from './brokenParts.ts';
import type { Finding } from './finding.ts';
import { fontFindings } from './fontFindings.ts';
import { handFormatted } from './handFormatted.ts';
import { lineFindings } from './lineFindings.ts';
import { motionFindings } from './motionFindings.ts';
import { pictureFindings } from './pictureFindings.ts';
import { placeFindings } from './placeFindings.ts';
import { spacingFindings } from './spacingFindings.ts';
import { styleFindings } from './styleFindings.ts';

/** What a designer should look at in a document, page by page where it has a place. */
export function findingsOf(folio: Folio, composition: Composition, fonts: FontSet): Finding[] {
  const found: Finding[] = [];
  const numberOf = new Map(pagesOf(folio).map((p) => [p.page.id, p.number]));
  const pageOf = (spreadId: string, itemId: string): number | undefined => {
    const spread = folio.spreads[spreadId];
    const item = spread?.items[itemId];
    return spread && item ? numberOf.get(pageOfItem(spread, item).id) : undefined;
  };
  found.push(...fontFindings(fonts));
  for (const set of composition.stories.values()) {
    const story = folio.stories[set.story]!;
    const last = story.frames[story.frames.length - 1];
    if (set.overflow)
      found.push({
        code: 'text.overflow',
        says: `${set.overflow.characters} characters (${set.overflow.lines} lines) do not fit.`,
        page: last && pageOf(last.spread, last.item),
        subject: last?.item,
      });
    found.push(...lineFindings(set, pageOf));
  }
  const byHand = handFormatted(folio);
  if (byHand) {
    const first = byHand.stories.find((s) => s.frames.length)?.frames[0];
    found.push({
      code: 'style.handFormatted',
      says: byHand.says,
      page: first && pageOf(first.spread, first.item),
      subject: first?.item,
    });
  }
  found.push(
    ...pictureFindings(folio, pageOf),
    ...spacingFindings(folio, pageOf),
    ...placeFindings(folio, pageOf),
    ...motionFindings(folio, pageOf),
  );
  for (const layer of Object.values(folio.head.layers))
    if (!layer.visible) found.push({ code: 'layer.hidden', says: `The layer “${layer.name}” is hidden.`, subject: layer.id });
    else if (!layer.printing)
      found.push({ code: 'layer.notPrinted', says: `The layer “${layer.name}” is shown, but not printed.`, subject: layer.id });
  found.push(...styleFindings(folio), ...brokenParts(folio), ...headingFindings(folio));
  return found;
}

/** WCAG 2.2, 1.3.1 and 2.4.6: headings should begin at level one and not skip levels on the way down. */
function headingFindings(folio: Folio): Finding[] {
  const levels: number[] = [];
  for (const id of folio.head.storyOrder)
    for (const p of folio.stories[id] ? paragraphsOf(folio.stories[id]) : []) {
      const level = /^h([1-6])$/.exec(paragraphRole(folio.head, p.style).element)?.[1];
      if (level) levels.push(Number(level));
    }
  if (!levels.includes(1)) return [{ code: 'heading.none', says: 'No style is a heading of the first level.' }];
  const used = [...new Set(levels)].sort();
  const gap = used.find((l, i) => i > 0 && l - used[i - 1]! > 1);
  return gap ? [{ code: 'heading.skip', says: `Headings of level ${gap} are used, but none of level ${gap - 1}.` }] : [];
}
