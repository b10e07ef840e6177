import type { Destination } from '../../folio/motion.ts';
import type { Spread } from '../../folio/spread.ts';
import type { Story } from '../../folio/story.ts';
import type { Names } from './names.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import { childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type Content = Pick<Story, 'links'>;

/** Where links and presses lead: pages by their names, passages by their bookmarks, addresses of the web; nowhere else. */
export class Links {
  readonly pages = new Map<string, string>();
  /** Bookmarks of the pages, with an id that stands for their paragraph until that has been read. */
  private readonly marks = new Map<string, { standing: string; paragraph: string | null }>();

  constructor(
    body: XmlElement,
    names: Names,
    private readonly notTaken: NotTakenList,
  ) {
    for (const name of bookmarksIn(body))
      if (!this.marks.has(name)) this.marks.set(name, { standing: names.free('mark'), paragraph: null });
  }

  /** Takes note of the paragraph in which a bookmark stands. */
  mark(name: string, paragraph: string): void {
    const mark = this.marks.get(name);
    if (mark) mark.paragraph ??= paragraph;
  }

  /** Where a reference leads; null where it may not be followed, which is listed. */
  destination(href: string, window: string | undefined): Destination | null {
    if (href.startsWith('#')) {
      const name = safeDecode(href.slice(1)).split('|')[0]!;
      const page = this.pages.get(name);
      if (page !== undefined) return { to: 'page', page };
      const mark = this.marks.get(name);
      if (mark) return { to: 'paragraph', paragraph: mark.standing };
      this.notTaken.add('leftOut', 'Link', `nothing here is called “${name.slice(0, 60)}”`);
      return null;
    }
    if (/^(https?|mailto|tel|ftp):/i.test(href))
      return { to: 'address', href, window: window === 'new' || window === '_blank' ? 'new' : 'same' };
    if (href) this.notTaken.add('leftOut', 'Link', `it leads to ${href.slice(0, 80)}, which is no address of the web`);
    return null;
  }

  /** Puts the paragraphs of bookmarks in their places, when all texts have been read. */
  settle(texts: readonly Content[], spreads: readonly Spread[]): void {
    const found = new Map([...this.marks.values()].map((m) => [m.standing, m.paragraph]));
    const lead = (d: Destination): Destination => {
      if (d.to !== 'paragraph' || !found.has(d.paragraph)) return d;
      const paragraph = found.get(d.paragraph);
      // One on a page that shows no text of its own leads to the beginning.
      return paragraph ? { to: 'paragraph', paragraph } : { to: 'first' };
    };
    for (const { links } of texts) for (const link of Object.values(links)) link.destination = lead(link.destination);
    for (const spread of spreads)
      for (const item of Object.values(spread.items))
        for (const cue of Object.values(item.cues ?? {}))
          for (const step of cue.steps) if (step.do === 'go') step.destination = lead(step.destination);
  }
}

function* bookmarksIn(element: XmlElement): Generator<string> {
  for (const child of childrenOf(element)) {
    const name = /^text:(bookmark|bookmark-start)$/.test(child.name) ? child.attributes['text:name'] : undefined;
    if (name) yield name;
    yield* bookmarksIn(child);
  }
}

function safeDecode(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
