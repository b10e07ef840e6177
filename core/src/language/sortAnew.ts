import type { Folio } from '../folio/folio.ts';
import type { Story } from '../folio/story.ts';
import { readText } from '../folio/text.ts';

/**
 * Lists that are in alphabetical order, sorted anew by the rules of a language (Unicode Collation Algorithm, UTS 10, with the language’s
 * own order from CLDR). What follows an entry up to the next goes with it.
 */
export function sortedAnew(folio: Folio, language: string): Folio {
  const lists = Object.values(folio.head.structure.alphabetical ?? {});
  if (!lists.length) return folio;
  const collator = new Intl.Collator(language, { usage: 'sort', numeric: true });
  const stories = { ...folio.stories };
  for (const { story: id, entries } of lists) {
    const story = stories[id];
    if (story) stories[id] = { ...story, order: sorted(story, new Set(entries), collator) };
  }
  return { ...folio, stories };
}

function sorted(story: Story, entries: ReadonlySet<string>, collator: Intl.Collator): string[] {
  const at = story.order.flatMap((id, i) => (entries.has(id) ? [i] : []));
  if (at.length < 2) return story.order;
  // What follows the last entry is no part of it, save as many paragraphs as follow the others at most.
  const lengths = at.slice(1).map((next, i) => next - at[i]!);
  const end = Math.min(story.order.length, at[at.length - 1]! + Math.max(...lengths));
  const groups = at.map((from, i) => story.order.slice(from, at[i + 1] ?? end));
  const word = (group: string[]): string => {
    const block = story.blocks[group[0]!];
    return block?.kind === 'paragraph' ? readText(block).trim() : '';
  };
  groups.sort((a, b) => collator.compare(word(a), word(b)));
  return [...story.order.slice(0, at[0]), ...groups.flat(), ...story.order.slice(end)];
}
