import type { Folio } from '../folio/folio.ts';
import type { Rect } from '../folio/geometry.ts';
import type { Item } from '../folio/items.ts';
import type { Page } from '../folio/spread.ts';
import type { Story } from '../folio/story.ts';
import { readText } from '../folio/text.ts';
import { itemBounds, paragraphsOf, storyOfFrame } from '../folio/traverse.ts';

/** An item as matching looks at it. */
export interface ItemLook {
  item: Item;
  box: Rect;
  text: string;
  /** The picture it shows, by its bytes. */
  picture: string;
  key: string;
}

/** What stands together, on a page or a master page: its items, and what they say. */
export interface Surface {
  id: string;
  name: string;
  size: { width: number; height: number };
  items: ItemLook[];
  text: string;
  pictures: Set<string>;
  key: string;
}

/** A document as matching looks at it. */
export interface Contents {
  folio: Folio;
  pages: (Surface & { page: Page; spread: string })[];
  masters: Surface[];
  storyOf: ReadonlyMap<string, string>;
}

/** A document with pages one by one, as a reader made it, laid out for matching. */
export function contentsOf(folio: Folio): Contents {
  const storyOf = storyOfFrame(folio);
  const texts = new Map(Object.values(folio.stories).map((s) => [s.id, textOf(s)]));
  const surface = (id: string, name: string, size: Surface['size'], items: Record<string, Item>): Surface => {
    const looks = Object.values(items).map((item) => lookOf(folio, items, item, texts.get(storyOf.get(item.id) ?? '') ?? ''));
    const text = looks.map((l) => l.text).join('\n');
    const pictures = new Set(looks.flatMap((l) => (l.picture ? [l.picture] : [])));
    const key = JSON.stringify(looks.map((l) => l.key));
    return { id, name, size, items: looks, text, pictures, key };
  };
  const pages = folio.head.spreadOrder.map((id) => {
    const spread = folio.spreads[id]!;
    const page = spread.pages[0]!;
    return { ...surface(page.id, '', page.box, spread.items), page, spread: id };
  });
  const masters = Object.values(folio.head.masterPages).map((m) => surface(m.id, m.name, { width: 1, height: 1 }, m.items));
  return { folio, pages, masters, storyOf };
}

const textOf = (story: Story): string => [...paragraphsOf(story)].map((p) => readText(p)).join('\n');

function lookOf(folio: Folio, items: Record<string, Item>, item: Item, text: string): ItemLook {
  const box = itemBounds(items, item);
  const media = item.kind === 'picture' || item.kind === 'media' ? item.media : null;
  const picture = media === null ? '' : (folio.head.media[media]?.sha256 ?? '');
  const place = [box.x, box.y, box.width, box.height].map((n) => Math.round(n)).join(' ');
  return { item, box, text, picture, key: `${item.kind}|${text}|${picture}|${place}` };
}
