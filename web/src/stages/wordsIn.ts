import { plainText } from '@elastic-folio/core';
import type { Paragraph } from '@elastic-folio/core';

/** Where words stand in a paragraph for the first time, as offsets; null where they do not. */
export function wordsIn(paragraph: Paragraph, words: string): { from: number; to: number } | null {
  const asked = words.trim();
  const from = asked ? plainText(paragraph.content).indexOf(asked) : -1;
  return from < 0 ? null : { from, to: from + asked.length };
}
