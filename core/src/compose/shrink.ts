import type { Folio } from '../folio/folio.ts';
import type { Head } from '../folio/head.ts';
import type { Paragraph, Story } from '../folio/story.ts';
import { CHARACTER_DEFAULTS } from '../folio/styles.ts';
import type { CharacterOverrides, ParagraphOverrides } from '../folio/styles.ts';

/** Text shrinks to this share of its size at the least; smaller, nobody could read it. */
const LEAST = 0.3;
/** The share is found to within this. */
const STEP = 0.005;

/**
 * The largest share of its size at which a text fits its frames, found by halving; `fits` sets it at a share. Where it
 * does not even fit at the least, that is it.
 */
export function shareThatFits(fits: (share: number) => boolean): number {
  if (fits(1)) return 1;
  if (!fits(LEAST)) return LEAST;
  let [low, high] = [LEAST, 1];
  while (high - low > STEP) {
    const share = (low + high) / 2;
    if (fits(share)) low = share;
    else high = share;
  }
  return low;
}

/** A document and one of its texts with all sizes, leadings and spaces at a share of themselves. */
export function atShare(folio: Folio, story: Story, share: number): { folio: Folio; story: Story } {
  if (share === 1) return { folio, story };
  return { folio: { ...folio, head: headAt(folio.head, share) }, story: { ...story, blocks: blocksAt(story, share) } };
}

function headAt(head: Head, share: number): Head {
  return {
    ...head,
    paragraphStyles: mapped(head.paragraphStyles, (style) => ({
      ...style,
      paragraph: paragraphAt(style.paragraph, share),
      // What no style says is the same for all: its share is taken where the styles begin.
      character: characterAt(style.basedOn === undefined ? { size: CHARACTER_DEFAULTS.size, ...style.character } : style.character, share),
    })),
    characterStyles: mapped(head.characterStyles, (style) => ({ ...style, character: characterAt(style.character, share) })),
  };
}

const mapped = <T>(record: Record<string, T>, change: (value: T) => T): Record<string, T> =>
  Object.fromEntries(Object.entries(record).map(([id, value]) => [id, change(value)]));

function blocksAt(story: Story, share: number): Story['blocks'] {
  return mapped(story.blocks, (block) => {
    if (block.kind !== 'paragraph') return block;
    const paragraph: Paragraph = {
      ...block,
      ...(block.overrides && { overrides: paragraphAt(block.overrides, share) }),
      ...(block.character && { character: characterAt(block.character, share) }),
      content: block.content.map((n) => (n.type === 'span' && n.overrides ? { ...n, overrides: characterAt(n.overrides, share) } : n)),
    };
    return paragraph;
  });
}

function characterAt(c: CharacterOverrides, share: number): CharacterOverrides {
  return {
    ...c,
    ...(c.size !== undefined && { size: c.size * share }),
    ...(typeof c.leading === 'number' && { leading: c.leading * share }),
    ...(c.baselineShift !== undefined && { baselineShift: c.baselineShift * share }),
  };
}

function paragraphAt(p: ParagraphOverrides, share: number): ParagraphOverrides {
  return {
    ...p,
    ...(p.spaceBefore !== undefined && { spaceBefore: p.spaceBefore * share }),
    ...(p.spaceAfter !== undefined && { spaceAfter: p.spaceAfter * share }),
    ...(p.firstLineIndent !== undefined && { firstLineIndent: p.firstLineIndent * share }),
  };
}
