import type { Folio } from '../folio/folio.ts';
import { composeStory, ParagraphCache } from './composeStory.ts';
import type { FontSet } from './fontSet.ts';
import type { Composition } from './marks.ts';

/**
 * Sets a document and keeps it set: after an edit only stories whose own parts, styles or frames
 * changed are composed again, from cached paragraphs.
 */
export class Composer {
  private readonly cache = new ParagraphCache();
  private last: { folio: Folio; composition: Composition } | null = null;

  constructor(private readonly fonts: FontSet) {}

  /** Sets every story, or only those named (others keep what they had). */
  compose(folio: Folio, only?: ReadonlySet<string>): Composition {
    const before = this.last;
    const composition: Composition = { frames: new Map(), stories: new Map() };
    for (const id of folio.head.storyOrder) {
      const story = folio.stories[id];
      if (!story) continue;
      const kept = before?.composition.stories.get(id);
      const same =
        kept &&
        before &&
        before.folio.stories[id] === story &&
        before.folio.head.paragraphStyles === folio.head.paragraphStyles &&
        before.folio.head.characterStyles === folio.head.characterStyles &&
        before.folio.head.metadata === folio.head.metadata &&
        story.frames.every((f) => before.folio.spreads[f.spread] === folio.spreads[f.spread]) &&
        before.folio.head.spreadOrder === folio.head.spreadOrder;
      if (!same && only && !only.has(id)) continue;
      const set = same ? kept : composeStory(folio, story, this.fonts, this.cache);
      composition.stories.set(id, set);
      for (const frame of set.frames) composition.frames.set(frame.item, frame);
    }
    this.last = { folio, composition };
    return composition;
  }
}
