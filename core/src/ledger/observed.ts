import type { Point, Rect } from '../folio/geometry.ts';
import type { MotionFacts } from './motionFacts.ts';

/** A stretch of text of one look, as a file shows it. Lengths in points from the page's top left. */
export interface ObservedRun {
  text: string;
  /** PostScript name of the font that is in the file, or what stands in for it. */
  font: string;
  size: number;
  /** `#rrggbb`, or `drawn` where letters are shapes. */
  colour: string;
  /** Where its first letter stands on its baseline; null for spaces, and where the reader’s program breaks the lines. */
  start: Point | null;
  /** Angle of the baseline in degrees clockwise. */
  angle: number;
  link?: string | undefined;
  language: string;
}

/** A paragraph, heading, list line or figure, in the order in which it is read. */
export interface ObservedBlock {
  role: string;
  text: string;
  language: string;
  runs: ObservedRun[];
  alt?: string | undefined;
  /** Where a figure stands. */
  box?: Rect | undefined;
  /** A small grid of average colours of a figure's picture, if it has one. */
  picture?: Uint8Array | undefined;
  /** Which it is of all that the file has to read, where its order goes over pages. */
  at?: number | undefined;
}

/** A cell of a table as a reader is told of it. */
export interface ObservedCell {
  text: string;
  heading: boolean;
  /** How many rows and columns it takes, where the way of reading tells. */
  rows?: number;
  columns?: number;
}

/** A filled or stroked outline. */
export interface ObservedShape {
  box: Rect;
  fill: string | null;
  stroke: string | null;
}

export interface ObservedPage {
  width: number;
  height: number;
  /** Nobody sees the page: a rule hides it, or what it stands in. */
  hidden?: boolean;
  blocks: ObservedBlock[];
  /** Pictures in painting order, those of figures included. */
  pictures: { box: Rect; picture: Uint8Array; alt: string | undefined }[];
  shapes: ObservedShape[];
  /** Tables, row by row. */
  tables: ObservedCell[][][];
  /** Text that is seen but belongs to no block. */
  loose: ObservedRun[];
  /** Places that lead somewhere and have no text of their own. */
  areas: { box: Rect; target: string }[];
  /** Boxes that hold text, or go on with one, in the order of the file. */
  boxes?: Rect[];
  /** Where parts stand that react, move or are filled in, by the item each shows. */
  parts: { item: string; box: Rect }[];
}

/** A page on which nothing has been found yet. */
export const emptyPage = (width: number, height: number): ObservedPage & { boxes: Rect[] } => ({
  width,
  height,
  blocks: [],
  pictures: [],
  shapes: [],
  tables: [],
  loose: [],
  areas: [],
  parts: [],
  boxes: [],
});

/** What a finished result says of itself when it is read without knowledge of how it was made. */
export interface ObservedDocument {
  title: string;
  language: string;
  /** Headings for jumping, with the page each leads to (from 1). */
  outline: { text: string; page: number | null }[];
  pages: ObservedPage[];
  /** PostScript names of fonts whose program is in the file. */
  embedded: string[];
  /** What it says of its motion; null where it can have none. */
  motion: MotionFacts | null;
}
