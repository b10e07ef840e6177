import type { ObservedBlock, ObservedDocument, ObservedPage } from '../../ledger/observed.ts';
import type { PageStates } from './pageStates.ts';

/** Where cards are pages of their own, what was observed of these, told of the pages that they belong to. */
export function joinStates(observed: ObservedDocument, { all }: PageStates): ObservedDocument {
  // The document's page, from none, for each page of the file; what there is too much of stays apart, and is told.
  const places = [...new Set(all.map((p) => p.place))];
  const extra = observed.pages.slice(all.length).map((_, i) => places.length + i);
  const pageOf = [...all.map((p) => places.indexOf(p.place)), ...extra];
  const led = (target: string): string => target.replace(/^page:(\d+)$/, (_, n: string) => `page:${(pageOf[Number(n) - 1] ?? -1) + 1}`);
  const pages: ObservedPage[] = [];
  observed.pages.forEach((page, n) => {
    const seen: ObservedPage = {
      ...page,
      areas: page.areas.map((a) => ({ ...a, target: led(a.target) })),
      blocks: page.blocks.map((b) => ({ ...b, runs: b.runs.map((r) => (r.link === undefined ? r : { ...r, link: led(r.link) })) })),
    };
    const there = pages[pageOf[n]!];
    if (!there) pages[pageOf[n]!] = seen;
    else pages[pageOf[n]!] = joined(there, seen);
  });
  const motion: ObservedDocument['motion'] = observed.motion && new Map();
  for (const [key, fact] of observed.motion ?? []) {
    const n = /^page (\d+) /.exec(key)?.[1];
    // What a page does is told by the first of its states.
    if (n === undefined) motion?.set(key, fact);
    else if (!all[Number(n) - 1]?.state.card) motion?.set(key.replace(/^page \d+/, `page ${pageOf[Number(n) - 1]! + 1}`), fact);
  }
  const outline = observed.outline.map((o) => ({ ...o, page: o.page === null ? null : pageOf[o.page - 1]! + 1 }));
  return { ...observed, pages, outline, motion };
}

const joined = (page: ObservedPage, more: ObservedPage): ObservedPage => ({
  ...page,
  blocks: inOrder([...page.blocks, ...more.blocks]),
  pictures: [...page.pictures, ...more.pictures],
  shapes: [...page.shapes, ...more.shapes],
  tables: [...page.tables, ...more.tables],
  loose: [...page.loose, ...more.loose],
  areas: [...page.areas, ...more.areas],
  parts: [...page.parts, ...more.parts.filter((p) => !page.parts.some((x) => x.item === p.item))],
});

/** In the order of the whole file; what has no number stands where it stood, after what came before it. */
function inOrder(blocks: readonly ObservedBlock[]): ObservedBlock[] {
  let last = -1;
  return blocks
    .map((block, i) => ({ block, i, at: (last = block.at ?? last) }))
    .sort((a, b) => a.at - b.at || a.i - b.i)
    .map((b) => b.block);
}
