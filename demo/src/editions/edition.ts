import { Edition } from '@elastic-folio/core';
import type { Folio, Inline } from '@elastic-folio/core';
import { contentOf, fromReadable, unitsFromParagraphs, unitsOf } from '@elastic-folio/core/language';
import type { z } from 'zod';

/** Translated paragraphs by the id of the paragraph, in pieces; a string is plain text. */
export type EditionTexts = Record<string, readonly (string | Inline)[]>;

/** Translated paragraphs by the id of the paragraph, with codes as translators see them: `{1}bold{/1}`, `{wrap}`. */
export type ReadableTexts = Record<string, string>;

/** What an edition has beside its texts. */
export type MoreOfEdition = Omit<z.input<typeof Edition>, 'language' | 'name' | 'units'>;

/** An edition of a document from its translated paragraphs. A text that belongs to none of its paragraphs is an error. */
export function editionOf(
  folio: Folio,
  language: string,
  name: string,
  texts: readonly (EditionTexts | ReadableTexts)[],
  more: MoreOfEdition = {},
): Edition {
  const units = new Map(unitsOf(folio).map((u) => [u.id, u]));
  const contents: Record<string, Inline[]> = {};
  for (const [id, text] of texts.flatMap((t) => Object.entries(t))) {
    const unit = units.get(id);
    if (unit?.paragraph === undefined) throw new Error(`There is no paragraph “${id}” to translate.`);
    contents[id] =
      typeof text === 'string'
        ? contentOf(fromReadable(text), unit.codes, unit.ground)
        : text.map((p: string | Inline): Inline => (typeof p === 'string' ? { type: 'span', text: p } : p));
  }
  return Edition.parse({ language, name, units: unitsFromParagraphs(folio, contents), ...more });
}
