import { createHash } from 'node:crypto';
import type { Folio } from '../folio/folio.ts';
import { readText } from '../folio/text.ts';

/** A short sign of a text: it is another when the text is. */
export const textSign = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 16);

/** The signs of all paragraphs of a document as they are now, by their ids. */
export const signsOf = (folio: Folio): Map<string, string> =>
  new Map(
    Object.values(folio.stories).flatMap((s) =>
      Object.values(s.blocks).flatMap((b) => (b.kind === 'paragraph' ? [[b.id, textSign(readText(b))] as const] : [])),
    ),
  );
