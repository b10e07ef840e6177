import type { Folio } from '../folio/folio.ts';
import type { Story } from '../folio/story.ts';

const byStory = new WeakMap<Story, ReadonlySet<string>>();

/** Languages that passages of a story are marked with. Stories are never changed in place: each is looked through once. */
function languagesOfStory(story: Story): ReadonlySet<string> {
  let found = byStory.get(story);
  if (found) return found;
  const languages = new Set<string>();
  for (const block of Object.values(story.blocks)) {
    if (block.kind !== 'paragraph') continue;
    if (block.character?.language) languages.add(block.character.language);
    for (const inline of block.content) if (inline.type === 'span' && inline.overrides?.language) languages.add(inline.overrides.language);
  }
  byStory.set(story, (found = languages));
  return found;
}

/** Every language that texts of a document are in: words of all these may have to be divided. */
export function spokenLanguages({ head, stories }: Pick<Folio, 'head' | 'stories'>): Set<string> {
  const languages = new Set<string>([head.metadata.language]);
  for (const style of [...Object.values(head.paragraphStyles), ...Object.values(head.characterStyles)])
    if (style.character.language) languages.add(style.character.language);
  for (const story of Object.values(stories)) for (const language of languagesOfStory(story)) languages.add(language);
  return languages;
}
