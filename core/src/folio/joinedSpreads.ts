import { union } from './geometry.ts';
import type { Page, Spread } from './spread.ts';
import type { PagePlace } from './traverse.ts';

/** The same pages with those of each spread joined into one, for outputs that show spreads as wholes. */
export function joinedSpreads(pages: readonly PagePlace[]): PagePlace[] {
  const groups: PagePlace[][] = [];
  for (const place of pages) {
    const last = groups.at(-1);
    if (last?.[0]!.spread.id === place.spread.id) last.push(place);
    else groups.push([place]);
  }
  return groups.map((group) => (group.length < 2 ? group[0]! : joined(group)));
}

function joined(group: readonly PagePlace[]): PagePlace {
  const [first] = group as [PagePlace];
  const joins = group.map((p) => p.page);
  const page: Page = {
    ...first.page,
    box: union(joins.map((p) => p.box)),
    // Each page has a ground of its own.
    background: { type: 'none' },
    cues: Object.assign({}, ...joins.map((p) => p.cues)) as Page['cues'],
  };
  const others = first.spread.pages.filter((p) => !joins.some((j) => j.id === p.id));
  return { ...first, page, spread: { ...first.spread, pages: [page, ...others] }, joins };
}

/** What pages that are shown as one are called together. */
export const nameOfPages = (first: number, count: number): string => `Pages ${first}–${first + count - 1}`;

/** How many pages a name tells of; one, where it is that of a page. */
export function pagesNamed(name: string | undefined): number {
  const [, from, to] = /^Pages (\d+)–(\d+)$/.exec(name ?? '') ?? [];
  return from === undefined ? 1 : Math.max(1, Number(to) - Number(from) + 1);
}

/** The pages that a place shows, as the layout has them. */
export const pagesAt = ({ page, joins }: PagePlace): readonly Page[] => joins ?? [page];

/** The spread of a place as the layout has it. */
export const spreadInLayout = ({ spread, page, joins }: PagePlace): Spread =>
  joins ? { ...spread, pages: [...joins, ...spread.pages.filter((p) => p.id !== page.id)] } : spread;
