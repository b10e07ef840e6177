import { attrs, escape } from '../../paint/svg/markup.ts';
import type { Attributes } from '../../paint/svg/markup.ts';

declare const markup: unique symbol;
/** Markup that is well formed by itself; text becomes such only by `words`. */
export type Xml = string & { [markup]: true };
export type Child = Xml | readonly Child[] | null | undefined | false;

const joined = (children: readonly Child[]): string => {
  let out = '';
  for (const c of children) if (c) out += typeof c === 'string' ? c : joined(c as readonly Child[]);
  return out;
};

/** An element; children that are nothing are left out. */
export function el(name: string, attributes: Attributes = {}, ...children: Child[]): Xml {
  const inside = joined(children);
  return (inside ? `<${name}${attrs(attributes)}>${inside}</${name}>` : `<${name}${attrs(attributes)}/>`) as Xml;
}

/** Text as content; characters that XML 1.0 forbids are left out. */
export const words = (text: string): Xml => escape(text) as Xml;

/** Several elements after one another. */
export const all = (...children: Child[]): Xml => joined(children) as Xml;

/**
 * An element whose children stand in the order that its schema asks for (`xsd:sequence`), whatever order they are given in:
 * what a complex type may hold is said once, and no other order can be written.
 */
export const sequence =
  <K extends string>(name: string, order: readonly K[]) =>
  (parts: Partial<Record<K, Child>>, attributes: Attributes = {}): Xml =>
    el(name, attributes, ...order.map((k) => parts[k]));

/** The same, or nothing where it would hold nothing. */
export const sequenceOrNone = <K extends string>(name: string, order: readonly K[]) => {
  const make = sequence(name, order);
  return (parts: Partial<Record<K, Child>>): Xml | null => (order.some((k) => parts[k]) ? make(parts) : null);
};

/** A file of XML, from its root. */
export const xmlFile = (root: Xml): string => `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n${root}`;
