import { columnsOf } from '../compose/columnFill.ts';
import type { Folio } from '../folio/folio.ts';
import type { TextFrame } from '../folio/items.ts';
import { shownSpread } from '../folio/shownSpread.ts';
import type { Story, Table } from '../folio/story.ts';
import { pageOfItem, pagesOf } from '../folio/traverse.ts';
import type { Finding } from './finding.ts';

/** What a table may be wider than its column without anybody seeing it, in points. */
const NEAR = 0.05;

/** Parts of a document that cannot work as they are: it is set all the same, as far as it goes. */
export function brokenParts(folio: Folio): Finding[] {
  return [
    ...styleLoops(folio),
    ...Object.values(folio.stories).flatMap((story) => [...frameFindings(folio, story), ...tableFindings(folio, story)]),
  ];
}

function styleLoops({ head }: Folio): Finding[] {
  const { paragraphStyles, characterStyles, itemStyles, cellStyles, tableStyles, listStyles, masterPages } = head;
  const found: Finding[] = [];
  for (const styles of [paragraphStyles, characterStyles, itemStyles, cellStyles, tableStyles, listStyles, masterPages] as Record<
    string,
    { id: string; name: string; basedOn?: string | undefined }
  >[])
    for (const style of Object.values(styles)) {
      const seen = new Set<string>();
      let at: typeof style | undefined = style;
      while (at && !seen.has(at.id)) {
        seen.add(at.id);
        at = at.basedOn === undefined ? undefined : styles[at.basedOn];
      }
      if (at?.id === style.id)
        found.push({
          code: 'style.loop',
          says: `“${style.name}” is based on itself; what it would inherit is left out.`,
          subject: style.id,
        });
    }
  return found;
}

interface Placed {
  item: string;
  frame: TextFrame;
  page: number | undefined;
}

/** The frames of a story that stand on a spread, with their page numbers. */
function framesOf(folio: Folio, story: Story): Placed[] {
  const numbers = new Map(pagesOf(folio).map((p) => [p.page.id, p.number]));
  return story.frames.flatMap(({ spread: id, item }): Placed[] => {
    const spread = folio.spreads[id] && shownSpread(folio, folio.spreads[id]);
    const frame = spread?.items[item];
    return frame?.kind === 'textFrame' ? [{ item, frame, page: numbers.get(pageOfItem(spread!, frame).id) }] : [];
  });
}

function frameFindings(folio: Folio, story: Story): Finding[] {
  const found: Finding[] = [];
  const seen = new Set<string>();
  for (const { item, frame, page } of framesOf(folio, story)) {
    const { width, height } = columnsOf(frame)[0]!;
    if (width <= 0 || height <= 0)
      found.push({
        code: 'frame.noRoom',
        says: 'The frame has no room for text: it is too small for its insets and columns.',
        page,
        subject: item,
      });
    if (seen.has(item))
      found.push({
        code: 'chain.loop',
        says: 'The chain of frames comes back to this one; the text ends before that.',
        page,
        subject: item,
      });
    seen.add(item);
  }
  return found;
}

/** Tables whose fixed columns alone are wider than the column of text they stand in. */
function tableFindings(folio: Folio, story: Story): Finding[] {
  const tables = Object.values(story.blocks).filter((b): b is Table => b.kind === 'table');
  if (!tables.length) return [];
  const [first] = framesOf(folio, story);
  if (!first) return [];
  const room = columnsOf(first.frame)[0]!.width;
  return tables.flatMap((table): Finding[] => {
    const wide = table.columns.reduce((sum, c) => sum + (c.unit === 'pt' ? c.width : 0), 0);
    if (wide <= room + NEAR) return [];
    const over = Math.round(wide - room);
    return [
      { code: 'table.tooWide', says: `The table is ${over} pt wider than the column it stands in.`, page: first.page, subject: table.id },
    ];
  });
}
