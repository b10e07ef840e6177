import type { Folio } from '../folio/folio.ts';
import { paragraphsOf, storyOfFrame } from '../folio/traverse.ts';
import { same } from '../folio/same.ts';

/** What the designer decided about an item or a page since it came in, in words. */
export function decisionsAbout(was: Folio, here: Folio): (spread: string, id: string) => string[] {
  const [before, now] = [was.head.structure, here.head.structure];
  const strands = new Set(now.strands.flatMap((s) => s.entries.map((e) => e.item)));
  const pinned = new Set(Object.values(now.pins).map((p) => p.item));
  const stories = storyOfFrame(here);
  return (spreadId, id) => {
    const [old, mine] = [was.spreads[spreadId]?.items[id], here.spreads[spreadId]?.items[id]];
    const out: string[] = [];
    if (!mine) return out;
    if (!same(old?.alt, mine.alt)) out.push('alt text');
    if (!same(old?.cues, mine.cues)) out.push('cues');
    if (!same(old?.language, mine.language)) out.push('language');
    if (now.decorations.includes(id) && !before.decorations.includes(id)) out.push('decoration');
    if (now.figures.includes(id)) out.push('one figure');
    if (now.leftOut.includes(id)) out.push('left out of reading');
    if (strands.has(id)) out.push('place in the reading path');
    if (pinned.has(id)) out.push('pin');
    const story = stories.get(id) ?? '';
    if (here.stories[story] && was.stories[story] && !same(writtenIn(was, story), writtenIn(here, story))) out.push('text written here');
    return out;
  };
}

/** The words of a story without their looks. */
const writtenIn = (folio: Folio, story: string): string =>
  [...paragraphsOf(folio.stories[story]!)]
    .map((p) => p.content.map((n) => (n.type === 'span' ? n.text : `[${n.type}]`)).join(''))
    .join('\n');
