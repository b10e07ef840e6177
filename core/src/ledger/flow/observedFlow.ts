import type { ObservedCell } from '../observed.ts';
import type { SeenLine, SeenStyle } from './cascade.ts';

/** A paragraph, heading, entry of a list, caption or cell text, as a file of running text shows it. */
export interface ObservedFlowBlock {
  /** The element that it is. */
  element: string;
  /** Elements around it, from the outside in. */
  within: string[];
  text: string;
  language: string;
  links: { text: string; href: string }[];
  /** What readers of ruby are given beside the text. */
  readings: { base: string; reading: string }[];
  file: string;
  look: SeenStyle;
  /** Its words by how they look. */
  runs: { text: string; look: SeenStyle; language: string }[];
  /** Whether its first letter is an initial. */
  initial: boolean;
  /** The number or bullet that the format counts before it. */
  label?: string;
}
/** A cell, with the ground it has and the lines around it: top, right, bottom, left. */
export interface ObservedFlowCell extends ObservedCell {
  ground: string | null;
  lines: (SeenLine | null)[];
}
interface ObservedFigure {
  alt: string;
  caption: string;
  /** A grid of average colours of its picture; undefined where the file is missing or no picture. */
  picture: Uint8Array | undefined;
  /** Of a film or sound: how many bytes its file has. */
  plays?: number;
  /** The number of blocks read before it. */
  after: number;
}

/** What a result of running text says of itself, read without knowledge of how it was made. */
export interface ObservedFlow {
  title: string;
  language: string;
  outline: { text: string; found: boolean }[];
  /** Numbers of printed pages that readers can go to. */
  pages: { number: string; found: boolean }[];
  blocks: ObservedFlowBlock[];
  figures: ObservedFigure[];
  tables: ObservedFlowCell[][][];
  /** Notes by the text of the reference that leads to each. */
  notes: { number: string; text: string; back: boolean }[];
  /** Families, weights and styles whose program is in the file. */
  embedded: { family: string; weight: string; style: string }[];
  /** Files that cannot be read as XML, links that lead nowhere, files that are missing or not listed. */
  problems: { file: string; says: string }[];
}
