import { XMLBuilder } from 'fast-xml-parser';

/** An element as the builder takes it: its children under its name, its attributes beside them. */
export type Node = Record<string, unknown>;
type Attributes = Record<string, string | number | undefined>;

/** An element of XML; attributes without a value are left out. */
export function el(name: string, attributes: Attributes = {}, children: readonly (Node | null | undefined | false)[] = []): Node {
  const own = Object.fromEntries(Object.entries(attributes).flatMap(([k, v]) => (v === undefined ? [] : [[k, String(v)]])));
  return { [name]: children.filter(Boolean), ...(Object.keys(own).length && { ':@': own }) };
}
export const text = (value: string): Node => ({ '#text': value });

const builder = new XMLBuilder({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '', suppressEmptyNode: true });
export const xmlOf = (root: Node): string => `<?xml version="1.0" encoding="UTF-8"?>\n${builder.build([root]) as string}`;

/** A length in points, to a thousandth. */
export const pt = (points: number): string => `${Math.round(points * 1000) / 1000 + 0}pt`;
export const percent = (share: number): string => `${Math.round(share * 10_000) / 100}%`;
