import { parse } from 'parse5';
import type { DefaultTreeAdapterMap } from 'parse5';

export type Node = DefaultTreeAdapterMap['node'];
export type Element = DefaultTreeAdapterMap['element'];

export const isElement = (node: Node): node is Element => 'tagName' in node;
export const isText = (node: Node): node is DefaultTreeAdapterMap['textNode'] => node.nodeName === '#text';
export const attribute = (e: Element, name: string): string | undefined => e.attrs.find((a) => a.name === name)?.value;

/** Parses a page as a browser would (WHATWG HTML). */
export const parsePage = (html: string): DefaultTreeAdapterMap['document'] => parse(html);

/** Elements below a node, in document order. */
export function* elementsOf(node: Node): Generator<Element> {
  if (!('childNodes' in node)) return;
  for (const child of node.childNodes)
    if (isElement(child)) {
      yield child;
      yield* elementsOf(child);
    }
}

export const textOf = (node: Node): string =>
  isText(node) ? node.value : 'childNodes' in node ? node.childNodes.map(textOf).join('') : '';
