import type { Composition } from '../compose/marks.ts';
import { composedSpread } from '../compose/anchored.ts';
import type { Folio } from '../folio/folio.ts';
import type { Item } from '../folio/items.ts';
import type { Cue, Destination } from '../folio/motion.ts';
import { isSafeAddress } from '../folio/address.ts';
import { pageOfItem } from '../folio/traverse.ts';
import type { PagePlace } from '../folio/traverse.ts';

/** Where a link of a result leads: outside, or to one of its pages. */
export type Target = { href: string; newWindow: boolean } | { page: string };

/** Finds where destinations lead among the pages that a result has. */
export class PageTargets {
  private readonly index: Map<string, number>;
  private paragraphs: Map<string, string> | null = null;

  constructor(
    private readonly folio: Folio,
    private readonly composition: Composition,
    private readonly pages: readonly PagePlace[],
  ) {
    this.index = new Map(pages.flatMap((p, i) => (p.joins ?? [p.page]).map(({ id }) => [id, i] as const)));
  }

  /** The target of a destination as seen from a page; null where it leads outside the result, may not be written, or needs a program. */
  of(destination: Destination | undefined, from: string): Target | null {
    if (!destination) return null;
    if (destination.to === 'address')
      return isSafeAddress(destination.href) ? { href: destination.href, newWindow: destination.window === 'new' } : null;
    const page = this.pageOf(destination, from);
    const at = page === undefined ? undefined : this.index.get(page);
    return at === undefined ? null : { page: this.pages[at]!.page.id };
  }

  private pageOf(d: Exclude<Destination, { to: 'address' }>, from: string): string | undefined {
    const at = this.index.get(from);
    switch (d.to) {
      case 'page':
        return d.page;
      case 'paragraph':
        return this.pageOfParagraph(d.paragraph);
      case 'first':
        return this.pages[0]?.page.id;
      case 'last':
        return this.pages[this.pages.length - 1]?.page.id;
      case 'next':
        return at === undefined ? undefined : this.pages[at + 1]?.page.id;
      case 'previous':
        return at === undefined ? undefined : this.pages[at - 1]?.page.id;
      case 'back':
        return undefined;
    }
  }

  /** The page on which a paragraph begins. */
  private pageOfParagraph(id: string): string | undefined {
    if (!this.paragraphs) {
      this.paragraphs = new Map();
      for (const frame of this.composition.frames.values())
        for (const line of frame.lines) {
          const spread = this.folio.spreads[frame.spread];
          const item = line.first && spread && composedSpread(this.folio, this.composition, spread).items[frame.item];
          if (item) this.paragraphs.set(line.paragraph, pageOfItem(spread, item).id);
        }
    }
    return this.paragraphs.get(id);
  }
}

/** What a press on something leads to, where that is all the cue does: then it is a link. */
function linkOfCue(cue: Cue): Destination | null {
  const [step, ...more] = cue.steps;
  if (cue.trigger.when !== 'press' || !step || more.length || step.do !== 'go' || step.after > 0) return null;
  return step.destination;
}

/** The cue that makes an item a link: the first that is one, where no other waits for a press as well. */
export function linkCueOf(item: Pick<Item, 'cues'>): { cue: Cue; destination: Destination } | null {
  const pressed = Object.values(item.cues).filter((c) => c.trigger.when === 'press');
  const destination = pressed.length === 1 ? linkOfCue(pressed[0]!) : null;
  return destination && { cue: pressed[0]!, destination };
}
