import type { Folio } from '../folio/folio.ts';
import type { TextFrame } from '../folio/items.ts';
import { shownSpread } from '../folio/shownSpread.ts';
import type { Story } from '../folio/story.ts';
import { pageOfItem } from '../folio/traverse.ts';
import { itemsIn } from './anchored.ts';
import { finishStory, setFrames } from './composeStory.ts';
import type { StorySetting } from './composeStory.ts';
import type { FlowFrame } from './flow.ts';
import type { ComposedFrame, Composition } from './marks.ts';
import { sameHead } from './sameHead.ts';

type Begin = (story: Story, chain: readonly FlowFrame[]) => StorySetting;

/** Texts whose frames are anchored in other texts: set where their frames came to stand, and kept while these stay. */
export class AnchoredTexts {
  private readonly settings = new Map<string, StorySetting>();

  /** Adds them to a composition; frames inside them may hold others. */
  setIn(composition: Composition, folio: Folio, begin: Begin): void {
    const owners = new Map<string, { story: Story; item: string }[]>();
    for (const story of Object.values(folio.stories))
      for (const f of story.frames)
        if (folio.stories[f.spread]) owners.set(f.spread, [...(owners.get(f.spread) ?? []), { story, item: f.item }]);
    const used = new Set<string>();
    const fresh: { composed: ComposedFrame; frame: TextFrame; page: string }[] = [];
    if (owners.size)
      for (const composed of composition.frames.values())
        if (composed.holdsItems && owners.has(composed.story)) {
          const spread = shownSpread(folio, folio.spreads[composed.spread]!);
          const frame = spread.items[composed.item];
          if (frame?.kind === 'textFrame') fresh.push({ composed, frame, page: pageOfItem(spread, frame).id });
        }
    for (let at = fresh.pop(); at; at = fresh.pop()) {
      const holder = folio.stories[at.composed.story]!;
      for (const item of itemsIn(holder, at.composed, at.frame).items) {
        const owner = owners.get(holder.id)?.find((o) => item.id === o.item || item.id.endsWith(`/${o.item}`));
        if (item.kind !== 'textFrame' || !owner || used.has(item.id)) continue;
        used.add(item.id);
        const setting = this.set(folio, owner.story, { spread: at.composed.spread, item: item.id, frame: item, page: at.page }, begin);
        const set = finishStory(setting);
        composition.stories.set(owner.story.id, set);
        for (const composed of set.frames) {
          composition.frames.set(composed.item, composed);
          if (composed.holdsItems) fresh.push({ composed, frame: item, page: at.page });
        }
      }
    }
    for (const key of this.settings.keys()) if (!used.has(key)) this.settings.delete(key);
  }

  private set(folio: Folio, story: Story, at: Omit<FlowFrame, 'startsPage'>, begin: Begin): StorySetting {
    const kept = this.settings.get(at.item);
    const same = kept && kept.story === story && kept.chain[0]!.page === at.page && sameHead(kept.flow.folio, folio);
    // What is set tells places from the frame's own corner: where the frame stands makes no difference.
    if (same && sameShape(kept.chain[0]!.frame, at.frame)) return kept;
    const setting = begin(story, [{ ...at, startsPage: true }]);
    setFrames(setting, 1);
    this.settings.set(at.item, setting);
    return setting;
  }
}

const sameShape = (a: TextFrame, b: TextFrame): boolean => {
  const bare = (frame: TextFrame): string => JSON.stringify({ ...frame, transform: null });
  return bare(a) === bare(b);
};
