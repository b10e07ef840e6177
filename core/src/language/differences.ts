import { diffWordsWithSpace } from 'diff';
import type { TextPart } from '../folio/edition.ts';
import { wordsOf } from './parts.ts';

/** A piece of a text beside another: in both, only in the text that was there, or only in the one there is now. */
export interface Difference {
  text: string;
  in: 'both' | 'before' | 'now';
}

/** What a text that was translated before and the one there is now do not share, in the order of both. */
export const differences = (before: readonly TextPart[], now: readonly TextPart[]): Difference[] =>
  diffWordsWithSpace(wordsOf(before), wordsOf(now)).map(({ value, added, removed }) => ({
    text: value,
    in: added ? 'now' : removed ? 'before' : 'both',
  }));
