import type { Head } from '../folio/head.ts';
import { leadingOf, resolveParagraph } from '../folio/resolve.ts';
import type { Story } from '../folio/story.ts';

/**
 * Takes away the empty paragraphs between others and gives their room to the paragraph before them as space after it.
 * Those with a list's label stay. Works in place; how many were taken.
 */
export function closeUp(head: Head, story: Story): number {
  let taken = 0;
  const order: string[] = [];
  const lastFilled = story.order.map((id) => isFilled(story, id)).lastIndexOf(true);
  story.order.forEach((id, i) => {
    const before = story.blocks[order[order.length - 1] ?? ''];
    const empty = story.blocks[id];
    if (i > lastFilled || isFilled(story, id) || before?.kind !== 'paragraph' || empty?.kind !== 'paragraph') {
      order.push(id);
      return;
    }
    const own = resolveParagraph(head, empty);
    const above = resolveParagraph(head, before);
    if (own.paragraph.list || own.paragraph.breakBefore !== 'none') {
      order.push(id);
      return;
    }
    const room = own.paragraph.spaceBefore + leadingOf(own.character) + own.paragraph.spaceAfter;
    before.overrides = { ...before.overrides, spaceAfter: above.paragraph.spaceAfter + room };
    delete story.blocks[id];
    story.aliases[id] = before.id;
    taken++;
  });
  story.order = order;
  return taken;
}

const isFilled = (story: Story, id: string): boolean => {
  const block = story.blocks[id];
  return block?.kind !== 'paragraph' || block.content.length > 0;
};
