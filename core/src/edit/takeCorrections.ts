import type { Edit } from './edits.ts';
import type { Folio } from '../folio/folio.ts';
import type { Inline, Paragraph, Span } from '../folio/story.ts';
import { lengthOf } from '../folio/text.ts';
import type { Correction } from './correction.ts';

/** The edits that take corrections: words alone, in the look of those that they take the place of; from the end of each paragraph on. */
export function takeCorrections(folio: Folio, corrections: readonly Correction[]): Edit[] {
  return corrections.flatMap(({ story, paragraph, changes }) => {
    const block = folio.stories[story]?.blocks[paragraph];
    if (block?.kind !== 'paragraph') return [];
    return [...changes].reverse().map((c): Edit => {
      const place = (offset: number) => ({ paragraphId: paragraph, offset });
      return {
        kind: 'text.replace',
        args: {
          story,
          from: place(c.from),
          to: place(c.to),
          content: [inlines(block, c.to > c.from ? c.from : Math.max(0, c.from - 1), c.text)],
          newIds: [],
        },
      };
    });
  });
}

/** Words as content, in the look of the span that stands at an offset, or before it: those put in between look like what is before them. */
function inlines(paragraph: Paragraph, offset: number, text: string): Inline[] {
  const look = lookAt(paragraph, offset);
  return text.split(/([\n\t])/).flatMap((part): Inline[] => {
    if (part === '\n') return [{ type: 'softReturn' }];
    if (part === '\t') return [{ type: 'tab' }];
    return part ? [{ ...look, type: 'span', text: part }] : [];
  });
}

function lookAt({ content }: Paragraph, offset: number): Omit<Span, 'text' | 'type'> {
  let at = 0;
  let before: Span | undefined;
  for (const node of content) {
    const end = at + lengthOf(node);
    if (node.type === 'span') {
      if (offset < end) return lookOf(offset >= at ? node : (before ?? node));
      before = node;
    }
    at = end;
  }
  return before ? lookOf(before) : {};
}

const lookOf = ({ style, overrides, link }: Span): Omit<Span, 'text' | 'type'> => ({
  ...(style !== undefined && { style }),
  ...(overrides && { overrides }),
  ...(link !== undefined && { link }),
});
