import { isEmpty, lookOfParagraph, lookOfSpan } from '../folio/byHand.ts';
import { canonicalJson } from '../folio/canonicalJson.ts';
import type { Folio } from '../folio/folio.ts';
import type { Story } from '../folio/story.ts';
import { paragraphsOf } from '../folio/traverse.ts';

/** Passages whose look is not a style's: how many there are, in how many different looks, and in which texts. */
export interface HandFormatted {
  passages: number;
  looks: number;
  stories: Story[];
  says: string;
}

/** What is formatted by hand in a document; null where nothing is. */
export function handFormatted(folio: Folio): HandFormatted | null {
  let passages = 0;
  const looks = new Set<string>();
  const stories: Story[] = [];
  const take = (look: object): void => {
    passages++;
    looks.add(canonicalJson(look));
  };
  for (const story of Object.values(folio.stories)) {
    const before = passages;
    for (const p of paragraphsOf(story)) {
      const { look } = lookOfParagraph(p);
      if (!isEmpty(look.paragraph) || !isEmpty(look.character)) take(look);
      for (const node of p.content) {
        const own = node.type === 'span' ? lookOfSpan(node).look : {};
        if (!isEmpty(own)) take(own);
      }
    }
    if (passages > before) stories.push(story);
  }
  if (!passages) return null;
  const many = looks.size > 1 ? `, in ${looks.size} different looks` : '';
  return {
    passages,
    looks: looks.size,
    stories,
    says: `${passages} ${passages === 1 ? 'passage is' : 'passages are'} formatted by hand, not by a style${many}.`,
  };
}
