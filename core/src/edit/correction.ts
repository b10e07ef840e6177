import { z } from 'zod';
import { Id } from '../folio/ids.ts';

/** Words that take the place of others in a paragraph, by its units of offset. */
export const WordChange = z.object({ from: z.number().int().min(0), to: z.number().int().min(0), text: z.string() });
export type WordChange = z.infer<typeof WordChange>;

/** What a colleague has changed in the words of a paragraph. */
export const Correction = z.object({
  story: Id,
  paragraph: Id,
  before: z.string(),
  after: z.string(),
  changes: z.array(WordChange).min(1),
  /** The paragraph is another here, too, since the file was written. */
  changedHere: z.boolean(),
  /** A picture, a note or a field is not there any more; it stays. */
  keepsObjects: z.boolean(),
});
export type Correction = z.infer<typeof Correction>;

/** All that a file brings back. */
export const Corrections = z.object({
  corrections: z.array(Correction),
  /** Paragraphs of the file that are new, and after which of ours they stand: they are told, not taken. */
  added: z.array(z.object({ after: Id.nullable(), text: z.string() })),
  /** Paragraphs that the file does not have any more: they stay. */
  gone: z.array(z.object({ paragraph: Id, text: z.string() })),
});
export type Corrections = z.infer<typeof Corrections>;
