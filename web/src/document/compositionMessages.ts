import type { Folio, ParagraphPlace, Patch, PinSuggestion, Spread, Story } from '@elastic-folio/core';
import type { FontEntry } from '@elastic-folio/core/api';
import type { FamilyReport, Finding } from '@elastic-folio/core/check';
import type { PaintedItem } from '@elastic-folio/core/paint';

/** What the page asks of the typesetter's worker. */
export type ToWorker =
  /** `root`: where the server answers. */
  | { type: 'open'; id: string; root: string; head: Folio['head']; editions: Folio['editions']; fonts: FontEntry[] }
  /** Which edition is shown; null: the document in its own language. `forecast`: open texts as long as that, beside their sources. */
  | { type: 'language'; language: string | null; forecast: number | null }
  | { type: 'fonts'; fonts: FontEntry[] }
  | { type: 'parts'; spreads: Record<string, Spread>; stories: Record<string, Story>; more: boolean }
  /** The document as a whole, in the place of the one that is there. */
  | { type: 'whole'; folio: Folio; stamp: number }
  | { type: 'patches'; patches: Patch[]; stamp: number }
  | { type: 'show'; spreads: string[] };

/** A spread as it is painted. */
export interface PaintedSpread {
  spread: string;
  paper: string;
  items: PaintedItem[];
  /** Where its paragraphs stand. */
  places: ParagraphPlace[];
}

/** A spread that was painted anew: of its items, those that are not as they were when they were last told. */
export interface PaintedNews extends Omit<PaintedSpread, 'items'> {
  order: string[];
  changed: PaintedItem[];
}

/** Shares of a frame’s height that its text takes; more than 1 where it is longer. */
export interface Fill {
  before: number;
  after: number;
}

export type FromWorker =
  | { type: 'painted'; spreads: PaintedNews[]; stamp: number }
  | {
      type: 'state';
      overflow: Record<string, { lines: number; characters: number; words: number } | null>;
      /** By frames: how far each is filled, in the document’s own language and in the one that is shown; only where that is another. */
      fill: Record<string, Fill>;
      /** Signs that no font has, by stories. */
      missing: Record<string, string[]>;
    }
  | { type: 'findings'; findings: Finding[]; fonts: FamilyReport[]; pins: PinSuggestion[] }
  | { type: 'failed'; message: string };
