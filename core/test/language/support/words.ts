import type { Story } from '../../../src/index.ts';

/** Runs of words of a story that are long enough to be known again elsewhere. */
export const longWords = (story: Story): string[] =>
  Object.values(story.blocks).flatMap((b) =>
    b.kind === 'paragraph' ? b.content.flatMap((n) => (n.type === 'span' && n.text.length > 24 ? [n.text] : [])) : [],
  );
