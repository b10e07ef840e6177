import type { Folio } from './folio.ts';
import { NAMED } from './headKinds.ts';
import { pageOfItem } from './traverse.ts';

/** What of the head others name by ids, and what makes them look as they do. */
const BY_ID = [...NAMED, 'media'] as const;

/** Something as text, and what of the head it names. */
interface Told {
  text: string;
  names: ReadonlySet<string>;
}

/**
 * All that makes a page what it is, as one text: its items by their places on it, their texts, and what these are named by, such as
 * styles and pictures. It stays the same as long as none of that is changed, wherever the page stands. `called`: what ids were
 * called before. Texts of many pages are told once.
 */
export class PageFacts {
  private readonly told = new Map<object, Told>();

  constructor(
    private readonly folio: Folio,
    private readonly called: (id: string) => string = (id) => id,
  ) {}

  /** Of one page; empty where there is none of that id. */
  of(pageId: string): string {
    const { folio } = this;
    const spread = Object.values(folio.spreads).find((s) => s.pages.some((p) => p.id === pageId));
    const page = spread?.pages.find((p) => p.id === pageId);
    if (!spread || !page) return '';
    const { x, y, width, height } = page.box;
    const inOthers = Object.keys(spread.items).filter((id) => !spread.order.includes(id));
    const items = [...spread.order, ...inOthers.sort()].flatMap((id) => {
      const item = spread.items[id];
      if (!item || pageOfItem(spread, item).id !== pageId) return [];
      const [a, b, c, d, e, f] = item.transform;
      return [{ ...item, transform: [a, b, c, d, rounded(e - x), rounded(f - y)] }];
    });
    const ids = new Set(items.map((i) => i.id));
    const own = {
      page: { ...page, box: { width, height } },
      items,
      overrides: Object.fromEntries(Object.entries(spread.masterOverrides).filter(([key]) => key.startsWith(`${pageId}/`))),
      decorations: folio.head.structure.decorations.filter((id) => ids.has(id)),
    };
    const stories = Object.values(folio.stories).filter((s) => s.id === page.notes || s.frames.some((f) => ids.has(f.item)));
    const parts = [this.tell(own), ...stories.sort(byId).map((s) => this.story(s.id))];
    return [...parts.map((p) => p.text), ...this.named(parts)].join('\n');
  }

  private story(id: string): Told {
    const story = this.folio.stories[id]!;
    // Spreads are called anew when pages are put together.
    return this.once(story, () => ({ ...story, frames: story.frames.map((f) => f.item) }));
  }

  /** What is named by its id anywhere inside, and inside of that; master pages with their texts. */
  private named(from: readonly Told[]): string[] {
    const found = new Map<string, string>();
    const visit = ({ names }: Told): void => {
      for (const name of names)
        for (const kind of BY_ID) {
          const entry = this.folio.head[kind][name];
          const key = `${kind} ${this.called(name)}`;
          if (entry === undefined || found.has(key)) continue;
          const told = this.once(entry, () => entry);
          found.set(key, told.text);
          visit(told);
          if (kind !== 'masterPages') continue;
          const texts = Object.values(this.folio.stories).filter((s) => s.frames.some((f) => f.spread === name));
          for (const text of texts.sort(byId)) {
            const held = this.story(text.id);
            found.set(`text ${this.called(text.id)}`, held.text);
            visit(held);
          }
        }
    };
    from.forEach(visit);
    return [...found].map(([key, text]) => `${key} ${text}`).sort();
  }

  private once(key: object, value: () => unknown): Told {
    let told = this.told.get(key);
    if (!told) this.told.set(key, (told = this.tell(value())));
    return told;
  }

  /** JSON in which the order of keys says nothing. */
  private tell(value: unknown): Told {
    const names = new Set<string>();
    const write = (v: unknown): string => {
      if (typeof v === 'string') {
        if (BY_ID.some((kind) => this.folio.head[kind][v] !== undefined)) names.add(v);
        return JSON.stringify(this.called(v));
      }
      if (Array.isArray(v)) return `[${v.map(write).join(',')}]`;
      if (v === null || typeof v !== 'object') return JSON.stringify(v) ?? 'null';
      const entries = Object.entries(v).filter(([, inside]) => inside !== undefined);
      return `{${entries
        .map(([key, inside]) => `${JSON.stringify(this.called(key))}:${write(inside)}`)
        .sort()
        .join(',')}}`;
    };
    return { text: write(value), names };
  }
}

const rounded = (n: number): number => Math.round(n * 1000) / 1000;
const byId = (a: { id: string }, b: { id: string }): number => (a.id < b.id ? -1 : 1);
