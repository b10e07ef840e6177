import type { Inline } from '@elastic-folio/core';

/** Translated paragraphs by the id of the paragraph; a string is plain text. */
export type EditionTexts = Record<string, readonly (string | Inline)[]>;

/** The same as content of paragraphs. */
export const paragraphsFrom = (texts: EditionTexts): Record<string, Inline[]> =>
  Object.fromEntries(
    Object.entries(texts).map(([id, pieces]) => [id, pieces.map((p): Inline => (typeof p === 'string' ? { type: 'span', text: p } : p))]),
  );
