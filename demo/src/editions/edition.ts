import type { Edition, Inline } from '@elastic-folio/core';

/** Translated paragraphs by the id of the paragraph; a string is plain text. */
export type EditionTexts = Record<string, readonly (string | Inline)[]>;

/** An edition of a document in one language. */
export const edition = (language: string, name: string, texts: EditionTexts): Edition => ({
  language,
  name,
  targets: Object.fromEntries(
    Object.entries(texts).map(([id, pieces]) => [id, pieces.map((p): Inline => (typeof p === 'string' ? { type: 'span', text: p } : p))]),
  ),
  overrides: {},
});
