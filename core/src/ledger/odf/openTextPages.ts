import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { pointsOf } from './odfStyles.ts';
import { isObject } from './placedThings.ts';

/** A page that a paragraph begins: its size, what is anchored there, what stands at its head, the number that it has. */
export interface OpenTextPage {
  width: number;
  height: number;
  own: AnchoredObject[];
  header: AnchoredObject[];
  /** Names of places in its paragraph and in its boxes. */
  places: string[];
  number: number;
}

/** Something drawn that a paragraph holds, with where a press on it leads. */
export interface AnchoredObject {
  node: Node;
  link: string | undefined;
  /** What it lies over: all that has less (19.231). */
  depth: number;
}

/** The pages of a text document in which paragraphs begin pages of masters (16.2, 16.9); none where it is running text. */
export function openTextPages(content: Node | undefined, styles: Node | undefined): OpenTextPage[] {
  const automatic = childrenOf(child(content, 'office:automatic-styles'), 'style:style');
  const masters = childrenOf(child(styles, 'office:master-styles'), 'style:master-page');
  const layouts = childrenOf(child(styles, 'office:automatic-styles'), 'style:page-layout');
  const named = <T extends Node>(list: readonly T[], name: string | undefined): T | undefined =>
    list.find((n) => n.attributes['style:name'] === name);
  let number = 0;
  return childrenOf(child(child(content, 'office:body'), 'office:text'), 'text:p').flatMap((p) => {
    const style = named(automatic, p.attributes['text:style-name']);
    const master = named(masters, style?.attributes['style:master-page-name']);
    if (!master) return [];
    const begins = child(style, 'style:paragraph-properties')?.attributes['style:page-number'];
    number = begins === undefined ? number + 1 : Number(begins);
    const paper = child(named(layouts, master.attributes['style:page-layout-name']), 'style:page-layout-properties')?.attributes ?? {};
    return [
      {
        width: pointsOf(paper['fo:page-width']),
        height: pointsOf(paper['fo:page-height']),
        own: anchoredIn(p),
        header: childrenOf(child(master, 'style:header'), 'text:p').flatMap((n) => anchoredIn(n)),
        places: [...placesIn(p)],
        number,
      },
    ];
  });
}

const anchoredIn = (around: Node, link?: string): AnchoredObject[] =>
  around.children.flatMap((node) => {
    if (node.name === 'draw:a') return anchoredIn(node, node.attributes['xlink:href']);
    return isObject(node) ? [{ node, link, depth: Number(node.attributes['draw:z-index'] ?? 0) }] : [];
  });

function* placesIn(node: Node): Generator<string> {
  if (node.name === 'text:bookmark') yield node.attributes['text:name'] ?? '';
  for (const c of node.children) yield* placesIn(c);
}

/** The names of boxes that go on with the text of another, each with its chain’s first and the boxes before it in their order (19.147). */
export function chainsIn(objects: readonly AnchoredObject[]): Map<string, string[]> {
  const next = new Map<string, string>();
  for (const { node } of objects) {
    const to = child(node, 'draw:text-box')?.attributes['draw:chain-next-name'];
    if (to !== undefined) next.set(node.attributes['draw:name'] ?? '', to);
  }
  const later = new Set(next.values());
  const out = new Map<string, string[]>();
  for (const first of next.keys()) {
    if (later.has(first)) continue;
    const chain = [first];
    for (let at = next.get(first); at !== undefined && !chain.includes(at); at = next.get(at)) {
      out.set(at, [...chain]);
      chain.push(at);
    }
  }
  return out;
}
