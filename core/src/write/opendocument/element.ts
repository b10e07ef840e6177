import { el as element, words, xmlFile } from '../assets/xml.ts';
import type { Child, Xml } from '../assets/xml.ts';

export type { Xml } from '../assets/xml.ts';
type Attributes = Record<string, string | number | undefined>;

/** An element of XML; attributes without a value, and children that are nothing, are left out. */
export const el = (name: string, attributes: Attributes = {}, children: readonly Child[] = []): Xml => element(name, attributes, children);
export const text = words;
export const xmlOf = xmlFile;

/** A length in points, to a thousandth. */
export const pt = (points: number): string => `${Math.round(points * 1000) / 1000 + 0}pt`;
export const percent = (share: number): string => `${Math.round(share * 10_000) / 100}%`;
