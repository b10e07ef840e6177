import type { Tightening } from '../folio/edition.ts';
import type { Folio } from '../folio/folio.ts';
import type { Block, Story } from '../folio/story.ts';
import type { CharacterOverrides } from '../folio/styles.ts';
import { leadingOf, resolveParagraph, resolveSpan } from '../folio/resolve.ts';

/** A document in which some texts are set tighter, each by so much. */
export function tightened(folio: Folio, by: Readonly<Record<string, Tightening>>): Folio {
  const wanted = Object.entries(by).filter(([id, t]) => folio.stories[id] && !isNone(t));
  if (!wanted.length) return folio;
  return {
    ...folio,
    stories: { ...folio.stories, ...Object.fromEntries(wanted.map(([id, t]) => [id, tighter(folio, folio.stories[id]!, t)])) },
  };
}

const isNone = (t: Tightening): boolean => t.tracking === 0 && t.wordSpace === 1 && t.size === 1 && t.leading === 1;

function tighter(folio: Folio, story: Story, by: Tightening): Story {
  const blocks = Object.fromEntries(
    Object.entries(story.blocks).map(([id, block]): [string, Block] => {
      if (block.kind !== 'paragraph') return [id, block];
      const { character, paragraph } = resolveParagraph(folio.head, block);
      const { least, ideal, most } = paragraph.wordSpace;
      const content = block.content.map((node) => {
        if (node.type !== 'span') return node;
        const look = resolveSpan(folio.head, character, node);
        // Only what a span says for itself: the rest it has from its paragraph.
        const own: CharacterOverrides = {};
        if (look.size !== character.size) own.size = look.size * by.size;
        if (look.leading !== character.leading) own.leading = leadingOf(look) * by.leading;
        if (look.tracking !== character.tracking) own.tracking = look.tracking + by.tracking;
        return Object.keys(own).length ? { ...node, overrides: { ...node.overrides, ...own } } : node;
      });
      return [
        id,
        {
          ...block,
          content,
          character: {
            ...block.character,
            size: character.size * by.size,
            leading: leadingOf(character) * by.leading,
            tracking: character.tracking + by.tracking,
          },
          overrides: {
            ...block.overrides,
            wordSpace: {
              least: Math.min(least, ideal * by.wordSpace) * (by.wordSpace < 1 ? by.wordSpace : 1),
              ideal: ideal * by.wordSpace,
              most,
            },
          },
        },
      ];
    }),
  );
  return { ...story, blocks };
}
