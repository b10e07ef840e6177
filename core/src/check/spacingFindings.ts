import type { Folio } from '../folio/folio.ts';
import type { Paragraph, Story } from '../folio/story.ts';
import type { Finding } from './finding.ts';

/** So many spaces in a row, or tabs, are there to move what follows, not to part words. */
const SPACES = 3;
const TABS = 2;

/** Text that is put in its place by empty paragraphs and rows of spaces: it falls apart when anything is set anew. */
export function spacingFindings(folio: Folio, pageOf: (spread: string, item: string) => number | undefined): Finding[] {
  return Object.values(folio.stories).flatMap((story): Finding[] => {
    const place = story.frames[0];
    const at = place && { page: pageOf(place.spread, place.item), subject: place.item };
    const empty = emptyBetween(story);
    const rows = story.order.reduce((n, id) => {
      const block = story.blocks[id];
      return n + (block?.kind === 'paragraph' ? rowsIn(block) : 0);
    }, 0);
    const found: Finding[] = [];
    if (empty)
      found.push({
        code: 'text.emptyParagraphs',
        says: `${empty} empty ${empty === 1 ? 'paragraph makes' : 'paragraphs make'} room in a text.`,
        ...at,
      });
    if (rows)
      found.push({
        code: 'text.rowsOfSpaces',
        says: `${rows} ${rows === 1 ? 'place is' : 'places are'} spaced by rows of spaces or tabs.`,
        ...at,
      });
    return found;
  });
}

/** Empty paragraphs with text before and after them; those at the ends make no room. */
function emptyBetween(story: Story): number {
  const filled = story.order.map((id) => story.blocks[id]?.kind !== 'paragraph' || (story.blocks[id] as Paragraph).content.length > 0);
  const [first, last] = [filled.indexOf(true), filled.lastIndexOf(true)];
  return filled.filter((f, i) => !f && i > first && i < last).length;
}

function rowsIn({ content }: Paragraph): number {
  let rows = 0;
  let tabs = 0;
  for (const node of content) {
    tabs = node.type === 'tab' ? tabs + 1 : 0;
    if (tabs === TABS) rows++;
    if (node.type === 'span') rows += node.text.match(ROW)?.length ?? 0;
  }
  return rows;
}
const ROW = new RegExp(`[ \\u00A0]{${SPACES},}`, 'g');
