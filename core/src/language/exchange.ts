import type { SegmentState, TextPart } from '../folio/edition.ts';
import type { CutUnit } from './unit.ts';

/** A segment’s translation as far as it is, for putting into a file that goes out. */
export interface Outbound {
  target: TextPart[] | null;
  state: SegmentState;
  /** How much of it the memory had, where it is from there. */
  percent?: number;
  comments?: readonly string[];
}

/** All that a format needs to write a file for translators. */
export interface ExchangeJob {
  document: { id: string; title: string };
  source: string;
  target: string;
  units: readonly CutUnit[];
  /** By the names of segments. */
  translated: ReadonlyMap<string, Outbound>;
  /** Whether targets that are empty are a copy of their source. */
  copySource: boolean;
  clock(): Date;
}

/** A segment as a file brings it back. */
export interface InboundSegment {
  unit: string;
  /** Its place among the segments of its unit, from 0 on. */
  at: number;
  /** Null where the file has no sources. */
  source: TextPart[] | null;
  glue?: TextPart[];
  /** What stands before the first segment of its unit, where the file says so. */
  before?: TextPart[];
  /** Null where it is empty. */
  target: TextPart[] | null;
  state: SegmentState | null;
  comments: string[];
}

/** What a file for translators brings back. */
export interface Inbound {
  /** The document it says it is of. */
  document: string | null;
  source: string | null;
  target: string | null;
  segments: InboundSegment[];
  /** What of the file was passed over, in plain words. */
  passedOver: string[];
}

export const emptyInbound = (): Inbound => ({ document: null, source: null, target: null, segments: [], passedOver: [] });
