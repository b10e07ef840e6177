import type { TextPart } from '../folio/edition.ts';
import type { Code, Coded } from './codes.ts';

/** What a text is in the document. */
export type UnitKind =
  | 'text'
  | 'note'
  | 'master'
  | 'speakersNote'
  | 'alt'
  | 'caption'
  | 'fieldLabel'
  | 'linkTarget'
  | 'linkTitle'
  | 'outline'
  | 'metadata'
  | 'part';

/** One text of the document that can be translated: a paragraph, an alt text, a title. */
export interface Unit extends Coded {
  /** The id of the paragraph, or a name made of what it belongs to: `alt:moon-picture`. */
  id: string;
  kind: UnitKind;
  /** The language of its source, where the text says another than its document. */
  language: string;
  /** Pages it is seen on, counted from 1. */
  pages: readonly number[];
  /** The name of its paragraph style, for translators. */
  style?: string;
  /** What it is, in plain words: “alt text of a picture”. */
  says: string;
  story?: string;
  paragraph?: string;
  /** On a layer that is hidden. */
  hidden: boolean;
  /** How many letters there is room for; none where the text goes on elsewhere. */
  room?: number;
}

/** Texts that are no paragraphs have no codes. */
export const plainText = (text: string): Coded => ({ parts: text ? [{ type: 'text', text }] : [], codes: [], ground: {} });

/** A unit with its segments, as it goes out. */
export interface CutUnit extends Unit {
  before?: TextPart[];
  segments: { id: string; source: TextPart[]; glue?: TextPart[] }[];
  /** All codes, those of pairs that were cut in two as well. */
  codes: Code[];
}

/** The name of a segment: that of its unit where it is the only one. */
export const segmentId = (unit: string, at: number, of: number): string => (of === 1 ? unit : `${unit}/${at + 1}`);

/** The unit and place that a segment's name stands for. */
export function unitOfSegment(id: string): { unit: string; at: number } {
  const slash = id.lastIndexOf('/');
  const at = slash < 0 ? NaN : Number(id.slice(slash + 1));
  return Number.isInteger(at) && at > 0 ? { unit: id.slice(0, slash), at: at - 1 } : { unit: id, at: 0 };
}
