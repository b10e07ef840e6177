import type { Folio } from './folio.ts';
import type { Head } from './head.ts';
import { pageOfItem } from './traverse.ts';

/** What of the head others name by ids. */
const NAMED = [
  'swatches',
  'layers',
  'paragraphStyles',
  'characterStyles',
  'listStyles',
  'itemStyles',
  'tableStyles',
  'cellStyles',
  'media',
  'masterPages',
] as const satisfies readonly (keyof Head)[];

/**
 * All that makes a page what it is, as one text: its items by their places on it, their texts, and what these are named by, such as
 * styles and pictures. It stays the same as long as none of that is changed, wherever the page stands. `called`: what ids were
 * called before. Empty where there is no such page.
 */
export function pageFacts(folio: Folio, pageId: string, called: (id: string) => string = (id) => id): string {
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
  const stories = Object.values(folio.stories)
    .filter((s) => s.id === page.notes || s.frames.some((f) => ids.has(f.item)))
    .sort(byId)
    .map((s) => ({ ...s, frames: s.frames.map((f) => f.item) }));
  const { structure } = folio.head;
  const own = {
    page: { ...page, box: { width, height } },
    items,
    overrides: Object.fromEntries(Object.entries(spread.masterOverrides).filter(([key]) => key.startsWith(`${pageId}/`))),
    stories,
    decorations: structure.decorations.filter((id) => ids.has(id)),
  };
  return canonical({ own, named: namedIn(folio, own) }, called);
}

const byId = (a: { id: string }, b: { id: string }): number => (a.id < b.id ? -1 : 1);
const rounded = (n: number): number => Math.round(n * 1000) / 1000;

/** What is named by its id anywhere inside, and inside of that; texts of master pages with their masters. */
function namedIn(folio: Folio, from: unknown): Record<string, unknown> {
  const out: Record<string, unknown> = {};
  const visit = (value: unknown): void => {
    if (typeof value === 'string') {
      for (const kind of NAMED) {
        const found = folio.head[kind][value];
        const key = `${kind} ${value}`;
        if (found === undefined || key in out) continue;
        out[key] = found;
        visit(found);
        if (kind !== 'masterPages') continue;
        const texts = Object.values(folio.stories).filter((s) => s.frames.some((f) => f.spread === value));
        texts.sort(byId);
        out[`texts ${value}`] = texts;
        visit(texts);
      }
    } else if (Array.isArray(value)) value.forEach(visit);
    else if (value !== null && typeof value === 'object') Object.values(value).forEach(visit);
  };
  visit(from);
  return out;
}

/** JSON in which the order of keys says nothing. */
function canonical(value: unknown, called: (id: string) => string): string {
  if (typeof value === 'string') return JSON.stringify(called(value));
  if (Array.isArray(value)) return `[${value.map((v) => canonical(v, called)).join(',')}]`;
  if (value === null || typeof value !== 'object') return JSON.stringify(value) ?? 'null';
  const entries = Object.entries(value)
    .filter(([, v]) => v !== undefined)
    .map(([key, v]) => `${JSON.stringify(key.split(' ').map(called).join(' '))}:${canonical(v, called)}`);
  return `{${entries.sort().join(',')}}`;
}
